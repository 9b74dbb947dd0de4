import { contains, intersect, sameRect, type Rect } from '../planes/rect'
import { byteSize, type Value } from '../planes/value'
import { contentWords } from './contentKey'
import { HEAD, MOST_SLOTS, PAGE, Pages, SLOT, StoreIndex, type StoreMemory } from './storeMemory'

const [FREE, CLAIMED, READY] = [0, 1, 2] as const
/** The lock of a thread that died while it held it: nothing in there can be trusted. */
const BROKEN = -1
/** As what the pool itself takes part. */
export const POOL_LANE = 63
const kinds: readonly Value['kind'][] = ['tones', 'field', 'mask', 'layer', 'parts']
/** More reads than this count as many. */
const MOST_READS = 32
/** Looks again after so long, since whoever was waited for may have died, ms. */
const WAIT = 50

/** What became of asking to compute a result: it is there; another thread computes it; or the one that asks is to. */
export type Claim = 'there' | 'taken' | 'mine'

/** A result that lies in the store, as long as it is lent. */
export interface Lent {
  readonly kind: Value['kind']
  readonly planes: number
  /** Copies a part of a plane into the memory of kernels, at an address where a plane of another rectangle begins. */
  copy(plane: number, part: Rect, memory: ArrayBufferLike, address: number, to: Rect): void
}

/**
 * Results that all threads share, each computed by one of them: whoever comes first claims it, the others take up something else and wait when nothing else is left. No thread waits for what waits
 * for it: a result that is claimed needs only such as come before it in the graph. Within its limit goes what took the least to compute for its size and was read the least often, the longer
 * ago the sooner (GreedyDual-Size-Frequency, Cherkasova 1998, from memory). Each thread has one of these for the same memory.
 */
export class ResultStore {
  private readonly index: StoreIndex
  private readonly pages: Pages
  private readonly isShared: boolean

  /** @param lane number of the thread, which no other has */
  constructor(
    memory: StoreMemory,
    private readonly lane: number,
  ) {
    this.index = new StoreIndex(memory.index)
    this.pages = new Pages(memory.pages)
    this.isShared = memory.pages !== undefined
  }

  /** Bytes that results take. */
  get size(): number {
    return (this.index.head[HEAD.used] ?? 0) * PAGE
  }

  /**
   * Lends a result that covers a rectangle, as long as `use` runs; undefined without calling it if there is none.
   * @param worth how many times its cost it is worth from now on
   */
  lend<T>(key: string, rect: Rect, use: (lent: Lent) => T, worth = 1): T | undefined {
    const slot = this.locked(() => {
      const found = this.find(key, (one) => this.at(one, SLOT.state) === READY && contains(this.rectOf(one), rect))
      if (found === undefined) return undefined
      this.touch(found, worth)
      this.index.lanes[this.lane] = found + 1
      return found
    })
    if (slot === undefined) return undefined
    try {
      const from = this.rectOf(slot)
      return use({
        kind: kinds[this.at(slot, SLOT.kind)] ?? 'parts',
        planes: this.at(slot, SLOT.planes),
        copy: (plane, part, memory, address, to) => this.copyOut(slot, plane, from, part, new Uint8Array(memory), address, to),
      })
    } finally {
      Atomics.store(this.index.lanes, this.lane, 0)
    }
  }

  /** Asks to compute a result. What is `mine` must be published, or abandoned. */
  claim(key: string, rect: Rect): Claim {
    return (
      this.locked((): Claim => {
        const found = this.find(key, (one) =>
          this.at(one, SLOT.state) === READY ? contains(this.rectOf(one), rect) : sameRect(this.rectOf(one), rect),
        )
        if (found !== undefined) return this.at(found, SLOT.state) === READY ? 'there' : 'taken'
        this.add(key, rect)
        return 'mine'
      }) ?? 'mine'
    )
  }

  /**
   * Puts a result in that was claimed. Where there is no room for it, it is as if it had been abandoned.
   * @param memory of kernels, where its planes lie
   * @param cost what it took to compute it
   * @returns whether it is in the store
   */
  publish(key: string, value: Value, memory: ArrayBufferLike, cost: number): boolean {
    const slot = this.locked(() => {
      const own = this.ownClaim(key, value.rect)
      if (own === undefined) return undefined
      if (this.takePages(own, Math.ceil(byteSize(value) / PAGE))) return own
      this.remove(own)
      return undefined
    })
    if (slot === undefined) return false
    this.copyIn(slot, value, new Uint8Array(memory))
    this.locked(() => {
      this.index.numbers[2 + 2 * slot] = cost / Math.max(1, this.at(slot, SLOT.pages))
      this.set(slot, SLOT.planes, value.planes.length)
      this.set(slot, SLOT.kind, kinds.indexOf(value.kind))
      this.touch(slot)
      this.become(slot, READY)
    })
    return true
  }

  /** Gives a claim back: another thread may compute it. */
  abandon(key: string, rect: Rect): void {
    this.locked(() => {
      const own = this.ownClaim(key, rect)
      if (own !== undefined) this.remove(own)
    })
  }

  /** Puts a result in that nobody claimed, unless it is there. */
  keep(key: string, value: Value, memory: ArrayBufferLike, cost: number): void {
    if (this.claim(key, value.rect) === 'mine') this.publish(key, value, memory, cost)
  }

  /** Waits a moment for a result that another thread computes. */
  wait(key: string, rect: Rect): void {
    const slot = this.locked(() => {
      const found = this.find(key, (one) => this.at(one, SLOT.state) === CLAIMED && sameRect(this.rectOf(one), rect))
      if (found !== undefined) this.set(found, SLOT.waiters, this.at(found, SLOT.waiters) + 1)
      return found
    })
    if (slot !== undefined) Atomics.wait(this.index.slots, slot * SLOT.size + SLOT.state, CLAIMED, WAIT)
  }

  /** Whether another thread waits, or has waited, for a result that this one has claimed. */
  isAwaited(key: string, rect: Rect): boolean {
    const own = this.locked(() => this.ownClaim(key, rect))
    return own !== undefined && this.at(own, SLOT.waiters) > 0
  }

  /** Bytes that results may take from now on, as far as there is memory. */
  limitTo(bytes: number): void {
    this.locked(() => {
      this.index.head[HEAD.limit] = Math.min(this.index.most, Math.max(1, Math.floor(bytes / PAGE)))
      while ((this.index.head[HEAD.used] ?? 0) > (this.index.head[HEAD.limit] ?? 0) && this.evict());
    })
  }

  /** Forgets all results that are there. */
  clear(): void {
    this.locked(() => {
      while (this.evict());
      if (this.index.head[HEAD.used] === 0) this.pages.letGo()
    })
  }

  /** Gives back what a thread that has ended had claimed or was reading. @returns false if it left the store in disorder: the others need a new one */
  forgetLane(lane: number): boolean {
    const { head, lanes } = this.index
    if (Atomics.compareExchange(head, HEAD.lock, lane + 1, BROKEN) === lane + 1) return false
    const done = this.locked(() => {
      lanes[lane] = 0
      for (let slot = 0; slot < (head[HEAD.slots] ?? 0); slot++)
        if (this.at(slot, SLOT.state) === CLAIMED && this.at(slot, SLOT.owner) === lane) this.remove(slot)
      return true
    })
    return done ?? false
  }

  /** Runs `work` while no other thread changes anything; undefined without running it if the store is broken. */
  private locked<T>(work: () => T): T | undefined {
    const { head } = this.index
    for (;;) {
      const holder = Atomics.compareExchange(head, HEAD.lock, 0, this.lane + 1)
      if (holder === 0) break
      if (holder === BROKEN) return undefined
      // The pool may not wait; nobody holds it for long.
      if (this.lane !== POOL_LANE) Atomics.wait(head, HEAD.lock, holder, WAIT)
    }
    try {
      return work()
    } finally {
      Atomics.compareExchange(head, HEAD.lock, this.lane + 1, 0)
      if (this.isShared) Atomics.notify(head, HEAD.lock, 1)
    }
  }

  private at(slot: number, number: number): number {
    return this.index.slots[slot * SLOT.size + number] ?? 0
  }

  private set(slot: number, number: number, value: number): void {
    this.index.slots[slot * SLOT.size + number] = value
  }

  private rectOf(slot: number): Rect {
    const [x, y, width, height] = [0, 1, 2, 3].map((i) => this.at(slot, SLOT.rect + i)) as [number, number, number, number]
    return { x, y, width, height }
  }

  private find(key: string, fits: (slot: number) => boolean): number | undefined {
    const words = contentWords(key)
    for (let slot = (this.index.buckets[this.index.bucketOf(words[0])] ?? 0) - 1; slot >= 0; slot = this.at(slot, SLOT.next) - 1)
      if (words.every((word, i) => this.at(slot, SLOT.key + i) === (word | 0)) && fits(slot)) return slot
    return undefined
  }

  private ownClaim(key: string, rect: Rect): number | undefined {
    return this.find(
      key,
      (one) => this.at(one, SLOT.state) === CLAIMED && this.at(one, SLOT.owner) === this.lane && sameRect(this.rectOf(one), rect),
    )
  }

  /** A claim of this thread; nothing if there is no slot left for it. */
  private add(key: string, { x, y, width, height }: Rect): void {
    const slot = this.freeSlot()
    if (slot === undefined) return
    const words = contentWords(key)
    const bucket = this.index.bucketOf(words[0])
    ;[...words, this.index.buckets[bucket] ?? 0, CLAIMED, this.lane, 0, 0, 0, x, y, width, height, 0, 0, 0].forEach((value, i) =>
      this.set(slot, i, value | 0),
    )
    this.index.buckets[bucket] = slot + 1
  }

  private freeSlot(): number | undefined {
    const { head } = this.index
    for (;;) {
      const free = (head[HEAD.freeSlot] ?? 0) - 1
      if (free >= 0) {
        head[HEAD.freeSlot] = this.at(free, SLOT.next)
        return free
      }
      const fresh = head[HEAD.slots] ?? 0
      if (fresh < MOST_SLOTS) {
        head[HEAD.slots] = fresh + 1
        return fresh
      }
      if (!this.evict()) return undefined
    }
  }

  private remove(slot: number): void {
    const { head, buckets, slots, next } = this.index
    for (let page = this.at(slot, SLOT.page) - 1; page >= 0;) {
      const after = (next[page] ?? 0) - 1
      next[page] = head[HEAD.freePage] ?? 0
      head[HEAD.freePage] = page + 1
      page = after
    }
    head[HEAD.used] = (head[HEAD.used] ?? 0) - this.at(slot, SLOT.pages)
    const bucket = this.index.bucketOf(this.at(slot, SLOT.key))
    if (buckets[bucket] === slot + 1) buckets[bucket] = this.at(slot, SLOT.next)
    else {
      let before = (buckets[bucket] ?? 0) - 1
      while (this.at(before, SLOT.next) !== slot + 1) before = this.at(before, SLOT.next) - 1
      this.set(before, SLOT.next, this.at(slot, SLOT.next))
    }
    slots.fill(0, slot * SLOT.size, (slot + 1) * SLOT.size)
    this.set(slot, SLOT.next, head[HEAD.freeSlot] ?? 0)
    head[HEAD.freeSlot] = slot + 1
    this.become(slot, FREE)
  }

  private become(slot: number, state: number): void {
    const place = slot * SLOT.size + SLOT.state
    Atomics.store(this.index.slots, place, state)
    if (this.isShared) Atomics.notify(this.index.slots, place)
  }

  private touch(slot: number, worth = 1): void {
    const { numbers } = this.index
    const reads = Math.min(MOST_READS, this.at(slot, SLOT.reads) + 1)
    this.set(slot, SLOT.reads, reads)
    numbers[1 + 2 * slot] = (numbers[0] ?? 0) + worth * reads * (numbers[2 + 2 * slot] ?? 0)
  }

  /** Takes pages for a slot, from others if need be. @returns whether there are enough */
  private takePages(slot: number, count: number): boolean {
    const { head, next } = this.index
    while ((head[HEAD.used] ?? 0) + count > (head[HEAD.limit] ?? 0)) if (!this.evict()) return false
    while ((head[HEAD.grown] ?? 0) - (head[HEAD.used] ?? 0) < count) if (!this.grow() && !this.evict()) return false
    let last = -1
    for (let i = 0; i < count; i++) {
      const page = (head[HEAD.freePage] ?? 0) - 1
      head[HEAD.freePage] = next[page] ?? 0
      if (last < 0) this.set(slot, SLOT.page, page + 1)
      else next[last] = page + 1
      last = page
    }
    next[last] = 0
    this.set(slot, SLOT.pages, count)
    head[HEAD.used] = (head[HEAD.used] ?? 0) + count
    return true
  }

  private grow(): boolean {
    const { head, next, most } = this.index
    const before = head[HEAD.grown] ?? 0
    const now = this.pages.grow(before, most)
    for (let page = now - 1; page >= before; page--) {
      next[page] = head[HEAD.freePage] ?? 0
      head[HEAD.freePage] = page + 1
    }
    head[HEAD.grown] = now
    return now > before
  }

  /** Lets the least worth go that nobody reads. @returns whether there was any */
  private evict(): boolean {
    const { head, numbers, lanes } = this.index
    const read = lanes.filter((slot) => slot > 0)
    let [least, credit] = [-1, Infinity]
    for (let slot = 0; slot < (head[HEAD.slots] ?? 0); slot++) {
      const own = numbers[1 + 2 * slot] ?? 0
      if (this.at(slot, SLOT.state) === READY && own < credit && !read.includes(slot + 1)) [least, credit] = [slot, own]
    }
    if (least < 0) return false
    numbers[0] = credit
    this.remove(least)
    return true
  }

  private copyIn(slot: number, { rect, planes }: Value, memory: Uint8Array): void {
    const bytes = 4 * rect.width * rect.height
    planes.forEach((address, plane) => {
      this.eachPart(slot, plane * bytes, bytes, (part, done) => part.set(memory.subarray(address + done, address + done + part.length)))
    })
  }

  private copyOut(slot: number, plane: number, from: Rect, part: Rect, memory: Uint8Array, address: number, to: Rect): void {
    const { x, y, width, height } = intersect(intersect(from, part), to)
    const start = 4 * plane * from.width * from.height
    // Whole rows that lie one after the other are one piece.
    const isWhole = width === from.width && width === to.width
    const [rows, bytes] = isWhole ? [1, 4 * width * height] : [height, 4 * width]
    for (let row = 0; row < rows; row++) {
      const target = address + 4 * ((y + row - to.y) * to.width + x - to.x)
      this.eachPart(slot, start + 4 * ((y + row - from.y) * from.width + x - from.x), bytes, (piece, done) =>
        memory.set(piece, target + done),
      )
    }
  }

  /** Bytes of a slot from a place on, piece by piece. */
  private eachPart(slot: number, start: number, bytes: number, use: (part: Uint8Array, done: number) => void): void {
    let page = this.at(slot, SLOT.page) - 1
    let skip = start
    for (; skip >= PAGE; skip -= PAGE) page = (this.index.next[page] ?? 0) - 1
    for (let done = 0; done < bytes;) {
      const length = Math.min(PAGE - skip, bytes - done)
      use(this.pages.at(page).subarray(skip, skip + length), done)
      done += length
      skip += length
      if (skip < PAGE) continue
      page = (this.index.next[page] ?? 0) - 1
      skip = 0
    }
  }
}
