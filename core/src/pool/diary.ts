/** Places of the numbers. */
const [NODE, SIGNS, GIVEN_UP, ALLOWANCE] = [0, 1, 2, 3] as const

/**
 * Numbers in shared memory. By them the pool sees of a thread while it works which node it computes, how many signs of life it has given, and for how many seconds it asked not to
 * be expected to give another; a thread that is stuck or dead writes no more. By another the pool tells the thread which call is no longer wanted.
 */
export class Diary {
  private readonly entries: Int32Array

  constructor(readonly memory: SharedArrayBuffer = new SharedArrayBuffer(16)) {
    this.entries = new Int32Array(memory)
  }

  /** A new diary; undefined where memory cannot be shared. */
  static start(): Diary | undefined {
    return typeof SharedArrayBuffer === 'undefined' ? undefined : new Diary()
  }

  /** Begins a node. @param index when it was sent */
  begin(index: number): void {
    Atomics.store(this.entries, NODE, index)
    this.beat()
  }

  /** Gives a sign of life. @param seconds for so long there need not be another */
  beat(seconds = 0): void {
    Atomics.store(this.entries, ALLOWANCE, Math.ceil(seconds))
    Atomics.add(this.entries, SIGNS, 1)
  }

  /** The call of this number is to end before its next operation. */
  giveUp(call: number): void {
    Atomics.store(this.entries, GIVEN_UP, call)
  }

  isGivenUp(call: number): boolean {
    return Atomics.load(this.entries, GIVEN_UP) === call
  }

  get node(): number {
    return Atomics.load(this.entries, NODE)
  }

  get signs(): number {
    return Atomics.load(this.entries, SIGNS)
  }

  /** Seconds for which no further sign is to be expected after the last. */
  get allowance(): number {
    return Atomics.load(this.entries, ALLOWANCE)
  }
}
