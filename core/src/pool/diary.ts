/**
 * Two numbers in shared memory by which the pool sees what a thread is doing while it does it: which node it computes, and how many it has begun.
 * A thread that is stuck or dead writes no more.
 */
export class Diary {
  private readonly entries: Int32Array

  constructor(readonly memory: SharedArrayBuffer = new SharedArrayBuffer(8)) {
    this.entries = new Int32Array(memory)
  }

  /** A new diary; undefined where memory cannot be shared. */
  static start(): Diary | undefined {
    return typeof SharedArrayBuffer === 'undefined' ? undefined : new Diary()
  }

  /** @param index when the node was sent */
  begin(index: number): void {
    Atomics.store(this.entries, 0, index)
    Atomics.add(this.entries, 1, 1)
  }

  get node(): number {
    return Atomics.load(this.entries, 0)
  }

  get begun(): number {
    return Atomics.load(this.entries, 1)
  }
}
