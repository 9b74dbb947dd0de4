import { byteSize, type Value } from '../planes/value'

/** Results by key, least recently used first out. Values are freed only in `trim`, never while a tile is computed. */
export class ValueCache {
  private readonly values = new Map<string, Value>()
  private bytes = 0

  constructor(
    private readonly budgetBytes: number,
    private readonly release: (address: number) => void,
  ) {}

  get(key: string): Value | undefined {
    const value = this.values.get(key)
    if (value) {
      this.values.delete(key)
      this.values.set(key, value)
    }
    return value
  }

  put(key: string, value: Value): void {
    this.values.set(key, value)
    this.bytes += byteSize(value)
  }

  /** Frees the least recently used values until the budget holds. */
  trim(budgetBytes = this.budgetBytes): void {
    for (const [key, value] of this.values) {
      if (this.bytes <= budgetBytes) return
      this.values.delete(key)
      this.bytes -= byteSize(value)
      value.planes.forEach(this.release)
    }
  }

  /** Bytes held now. */
  get size(): number {
    return this.bytes
  }
}
