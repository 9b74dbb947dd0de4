import { contains, type Rect } from '../planes/rect'
import { byteSize, type Value } from '../planes/value'

interface Entry {
  readonly value: Value
  /** What it is known by; nothing for a value that is used once. */
  readonly key: string | undefined
  /** Readers that hold it; while there are any it is not freed. */
  readers: number
}

/**
 * Results of one thread in the memory of its kernels, by what they are and the rectangle they cover. A value that is held stays whatever the budget; of the others the least recently used goes
 * first, as soon as the budget is exceeded, in the middle of a tile too.
 */
export class ValueCache {
  private readonly byKey = new Map<string, Set<Entry>>()
  /** What has a key, the least recently used first. */
  private readonly age = new Set<Entry>()
  private readonly held = new Map<Value, Entry>()
  private bytes = 0

  /** @param budget bytes */
  constructor(
    public budget: number,
    private readonly release: (address: number) => void,
  ) {}

  /** A value of a key that covers a rectangle, held for the caller until `letGo`. It may cover more. */
  find(key: string, rect: Rect): Value | undefined {
    for (const entry of this.byKey.get(key) ?? []) {
      if (!contains(entry.value.rect, rect)) continue
      this.age.delete(entry)
      this.age.add(entry)
      return this.hold(entry)
    }
    return undefined
  }

  /** Keeps a value, and holds it for the caller until `letGo`. Without a key it is freed then. */
  keep(key: string | undefined, value: Value): Value {
    const entry: Entry = { key, value, readers: 0 }
    this.bytes += byteSize(value)
    if (key !== undefined) {
      const known = this.byKey.get(key)
      if (known) known.add(entry)
      else this.byKey.set(key, new Set([entry]))
      this.age.add(entry)
    }
    this.hold(entry)
    this.trim()
    return value
  }

  /** Holds a value, which is held already, once more. */
  again(value: Value): Value {
    const entry = this.held.get(value)
    if (!entry) throw new Error('The value is not held.')
    return this.hold(entry)
  }

  letGo(value: Value): void {
    const entry = this.held.get(value)
    if (!entry) throw new Error('The value is not held.')
    if (--entry.readers > 0) return
    this.held.delete(value)
    if (entry.key === undefined) this.free(entry)
  }

  /** Nobody holds anything any more: an evaluation ended before its end. */
  letAllGo(): void {
    for (const entry of this.held.values()) {
      entry.readers = 0
      if (entry.key === undefined) this.free(entry)
    }
    this.held.clear()
    this.trim()
  }

  /** Frees what nobody holds until the budget, or a lower one, holds. */
  trim(budget = this.budget): void {
    for (const entry of this.age) {
      if (this.bytes <= budget) return
      if (entry.readers === 0) this.forget(entry)
    }
  }

  /** Bytes that values take now. */
  get size(): number {
    return this.bytes
  }

  private hold(entry: Entry): Value {
    entry.readers++
    this.held.set(entry.value, entry)
    return entry.value
  }

  private forget(entry: Entry): void {
    this.age.delete(entry)
    const known = entry.key === undefined ? undefined : this.byKey.get(entry.key)
    known?.delete(entry)
    if (known?.size === 0 && entry.key !== undefined) this.byKey.delete(entry.key)
    this.free(entry)
  }

  private free({ value }: Entry): void {
    this.bytes -= byteSize(value)
    value.planes.forEach(this.release)
  }
}
