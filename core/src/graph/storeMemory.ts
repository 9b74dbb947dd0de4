import { sharedBuffer } from '../photo/photoData'

/** Bytes of a page: what is kept takes whole pages, wherever they lie. */
export const PAGE = 16 * 1024
/** Pages that come at once. */
const GROWTH = 1024
/** Results that are kept at most, and threads that there are at most. */
export const MOST_SLOTS = 16_384
export const MOST_LANES = 256
const BUCKETS = 4096

/** Numbers of a slot: its key, the next slot in its bucket, and what lies there. */
export const SLOT = {
  key: 0,
  next: 4,
  state: 5,
  owner: 6,
  page: 7,
  planes: 8,
  kind: 9,
  rect: 10,
  waiters: 14,
  pages: 15,
  reads: 16,
  size: 17,
} as const
/** Numbers of the whole. */
export const HEAD = { lock: 0, limit: 1, grown: 2, freePage: 3, used: 4, slots: 5, freeSlot: 6, size: 16 } as const

/** Where results lie: an index, and pages in memory that all threads see; without pages each thread has its own. */
export interface StoreMemory {
  readonly index: ArrayBufferLike
  readonly pages: SharedArrayBuffer | undefined
}

/** Whether threads can see the same memory, and wait for one another. */
export function canShare(): boolean {
  return typeof SharedArrayBuffer !== 'undefined' && 'grow' in SharedArrayBuffer.prototype && globalThis.crossOriginIsolated !== false
}

/**
 * Memory for results. Nothing is taken of it until it is needed.
 * @param most bytes that it takes at the most; less where the platform refuses so much
 * @param shared whether all threads see it
 */
export function storeMemory(most: number, shared = canShare()): StoreMemory {
  let bytes = Math.max(1, Math.floor(most / PAGE)) * PAGE
  for (;;) {
    try {
      const pages = shared ? new SharedArrayBuffer(0, { maxByteLength: bytes }) : undefined
      const size = places(bytes / PAGE).bytes
      const index = shared ? sharedBuffer(size) : new ArrayBuffer(size)
      new Int32Array(index, places(0).head)[HEAD.limit] = bytes / PAGE
      return { index, pages }
    } catch (error) {
      if (bytes <= PAGE) throw error
      bytes = Math.ceil(bytes / PAGE / 2) * PAGE
    }
  }
}

/** Where the parts of the index begin, bytes. */
function places(pages: number) {
  // Numbers of 8 bytes come first: a level, and for each slot its credit and its cost.
  const head = 8 * (1 + 2 * MOST_SLOTS)
  const lanes = head + 4 * HEAD.size
  const buckets = lanes + 4 * MOST_LANES
  const slots = buckets + 4 * BUCKETS
  const next = slots + 4 * SLOT.size * MOST_SLOTS
  return { head, lanes, buckets, slots, next, bytes: next + 4 * pages }
}

/** The parts of the index as one thread sees them. */
export class StoreIndex {
  readonly numbers: Float64Array
  readonly head: Int32Array
  /** Of each thread the slot that it reads, and one more; 0 if it reads none. */
  readonly lanes: Int32Array
  readonly buckets: Int32Array
  readonly slots: Int32Array
  /** Of each page the next one, and one more. */
  readonly next: Int32Array
  /** Pages that there may ever be. */
  readonly most: number

  constructor(index: ArrayBufferLike) {
    const at = places(0)
    this.most = (index.byteLength - at.next) / 4
    this.numbers = new Float64Array(index, 0, 1 + 2 * MOST_SLOTS)
    this.head = new Int32Array(index, at.head, HEAD.size)
    this.lanes = new Int32Array(index, at.lanes, MOST_LANES)
    this.buckets = new Int32Array(index, at.buckets, BUCKETS)
    this.slots = new Int32Array(index, at.slots, SLOT.size * MOST_SLOTS)
    this.next = new Int32Array(index, at.next, this.most)
  }

  bucketOf(word: number): number {
    return word & (BUCKETS - 1)
  }
}

/** The pages as one thread sees them. */
export class Pages {
  private readonly own: Uint8Array[] = []

  constructor(private readonly shared: SharedArrayBuffer | undefined) {}

  /** The bytes of a page. */
  at(page: number): Uint8Array {
    if (this.shared) return new Uint8Array(this.shared, page * PAGE, PAGE)
    return (this.own[page] ??= new Uint8Array(PAGE))
  }

  /** Makes room for more pages than there are. @returns how many there are then; as many as before if the platform refuses */
  grow(pages: number, most: number): number {
    const wanted = Math.min(most, pages + GROWTH)
    try {
      this.shared?.grow(wanted * PAGE)
      return wanted
    } catch (error) {
      if (error instanceof RangeError) return pages
      throw error
    }
  }

  /** Gives the bytes of all pages back, where they belong to this thread. */
  letGo(): void {
    this.own.length = 0
  }
}
