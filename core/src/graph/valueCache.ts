import { byteSize, type Value } from '../planes/value'

interface Entry {
  readonly value: Value
  /** What it is known by; nothing for a value that is used once. */
  readonly key: string | undefined
  /** Readers that hold it; while there are any it is not freed. */
  readers: number
  /** Whether it stands for much of the picture: a block of a coarse grid, which many others read. */
  precious: boolean
  /** Bytes that had been kept when it was last used. */
  used: number
}

/** What is used up is as good as so many times as old. */
const USED_UP_AGES = 64

/**
 * Results by key within a budget of bytes. A value that is held stays whatever the budget; everything else goes as soon as it is over, in the middle of a tile
 * too, and is computed again if it is wanted again: the least recently used first, and what has been used up sooner than the rest.
 */
export class ValueCache {
  private readonly entries = new Map<string, Entry>()
  /** Those of the entries that nothing is likely to ask for soon, oldest first. */
  private readonly usedUp = new Map<string, Entry>()
  private readonly held = new Map<Value, Entry>()
  private bytes = 0
  private bytesSoFar = 0

  constructor(
    private readonly budgetBytes: number,
    private readonly release: (address: number) => void,
  ) {}

  /** The value of a key, held for the caller until `letGo`. */
  find(key: string, precious = false): Value | undefined {
    const entry = this.entries.get(key)
    if (!entry) return undefined
    entry.precious ||= precious
    this.entries.delete(key)
    this.entries.set(key, entry)
    this.usedUp.delete(key)
    return this.hold(entry)
  }

  /** Keeps a value, and holds it for the caller until `letGo`. Without a key it is freed then. */
  keep(key: string | undefined, value: Value, precious = false): Value {
    const entry = { key, value, precious, readers: 0, used: 0 }
    this.bytes += byteSize(value)
    this.bytesSoFar += byteSize(value)
    if (key !== undefined) this.entries.set(key, entry)
    this.hold(entry)
    this.trim()
    return value
  }

  /** @param usedUp whether what was made of it is kept, and it itself hardly needed again */
  letGo(value: Value, usedUp = false): void {
    const entry = this.held.get(value)
    if (!entry) throw new Error('The value is not held.')
    if (usedUp && entry.key !== undefined) this.usedUp.set(entry.key, entry)
    if (--entry.readers > 0) return
    this.held.delete(value)
    if (entry.key === undefined) this.free(entry)
  }

  /** Frees what nobody holds until the budget holds. */
  trim(budgetBytes = this.budgetBytes): void {
    if (this.bytes <= budgetBytes) return
    const [usedUp, others] = [oldest(this.usedUp), oldest(this.entries, false)]
    let [first, second] = [usedUp(), others()]
    while (this.bytes > budgetBytes && (first || second)) {
      if (first && (!second || USED_UP_AGES * this.ageOf(first) >= this.ageOf(second))) {
        this.forget(first)
        first = usedUp()
      } else if (second) {
        this.forget(second)
        second = others()
      }
    }
    const precious = oldest(this.entries)
    for (let entry = precious(); entry && this.bytes > budgetBytes; entry = precious()) this.forget(entry)
  }

  /** Bytes that values take now. */
  get size(): number {
    return this.bytes
  }

  private ageOf({ used }: Entry): number {
    return this.bytesSoFar - used
  }

  private hold(entry: Entry): Value {
    entry.readers++
    entry.used = this.bytesSoFar
    this.held.set(entry.value, entry)
    return entry.value
  }

  private forget(entry: Entry): void {
    if (entry.key === undefined || !this.entries.delete(entry.key)) return
    this.usedUp.delete(entry.key)
    this.free(entry)
  }

  private free({ value }: Entry): void {
    this.bytes -= byteSize(value)
    value.planes.forEach(this.release)
  }
}

/** One after the other those that nobody holds, as they stand. */
function oldest(entries: ReadonlyMap<string, Entry>, precious?: boolean): () => Entry | undefined {
  const values = entries.values()
  return () => {
    for (let next = values.next(); !next.done; next = values.next()) {
      if (next.value.readers === 0 && (precious === undefined || next.value.precious === precious)) return next.value
    }
    return undefined
  }
}
