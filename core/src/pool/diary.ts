/**
 * Numbers in shared memory: by two of them the pool sees what a thread is doing while it does it, which node it computes and how many it has begun; a thread that is
 * stuck or dead writes no more. By the third the pool tells the thread which call is no longer wanted.
 */
export class Diary {
  private readonly entries: Int32Array

  constructor(readonly memory: SharedArrayBuffer = new SharedArrayBuffer(12)) {
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

  /** The call of this number is to end before its next operation. */
  giveUp(call: number): void {
    Atomics.store(this.entries, 2, call)
  }

  isGivenUp(call: number): boolean {
    return Atomics.load(this.entries, 2) === call
  }

  get node(): number {
    return Atomics.load(this.entries, 0)
  }

  get begun(): number {
    return Atomics.load(this.entries, 1)
  }
}
