import { intersect, type Rect } from '../planes/rect'
import type { Value } from '../planes/value'
import { contentWords } from './contentKey'
import { HEAD, MOST_SLOTS, PAGE, Pages, SLOT, StoreIndex, type StoreMemory } from './storeMemory'

/** States of a slot. */
export const [CLAIMED, READY] = [1, 2] as const
const FREE = 0
/** More reads than this count as many. */
const MOST_READS = 32

/** Which results lie where in the memory of a store. All but copying is done while no other thread changes anything. */
export class StoreTable {
  readonly index: StoreIndex
  readonly pages: Pages
  readonly isShared: boolean

  constructor(memory: StoreMemory) {
    this.index = new StoreIndex(memory.index)
    this.pages = new Pages(memory.pages)
    this.isShared = memory.pages !== undefined
  }

  at(slot: number, number: number): number {
    return this.index.slots[slot * SLOT.size + number] ?? 0
  }

  set(slot: number, number: number, value: number): void {
    this.index.slots[slot * SLOT.size + number] = value
  }

  rectOf(slot: number): Rect {
    const [x, y, width, height] = [0, 1, 2, 3].map((i) => this.at(slot, SLOT.rect + i)) as [number, number, number, number]
    return { x, y, width, height }
  }

  /** The first slot of a key that fits. */
  find(key: string, fits: (slot: number) => boolean): number | undefined {
    const words = contentWords(key)
    for (let slot = (this.index.buckets[this.index.bucketOf(words[0])] ?? 0) - 1; slot >= 0; slot = this.at(slot, SLOT.next) - 1)
      if (words.every((word, i) => this.at(slot, SLOT.key + i) === (word | 0)) && fits(slot)) return slot
    return undefined
  }

  /** A claim of a thread; nothing if there is no slot left for it. */
  add(key: string, { x, y, width, height }: Rect, lane: number): void {
    const slot = this.freeSlot()
    if (slot === undefined) return
    const words = contentWords(key)
    const bucket = this.index.bucketOf(words[0])
    ;[...words, this.index.buckets[bucket] ?? 0, CLAIMED, lane, 0, 0, 0, x, y, width, height, 0, 0, 0].forEach((value, i) =>
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

  /** Gives a slot and its pages back. */
  remove(slot: number): void {
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

  /** Sets the state of a slot; whoever waits for that wakes up. */
  become(slot: number, state: number): void {
    const place = slot * SLOT.size + SLOT.state
    Atomics.store(this.index.slots, place, state)
    if (this.isShared) Atomics.notify(this.index.slots, place)
  }

  /** Notes that a slot was read. @param worth how many times its cost it is worth from now on */
  touch(slot: number, worth = 1): void {
    const { numbers } = this.index
    const reads = Math.min(MOST_READS, this.at(slot, SLOT.reads) + 1)
    this.set(slot, SLOT.reads, reads)
    numbers[1 + 2 * slot] = (numbers[0] ?? 0) + worth * reads * (numbers[2 + 2 * slot] ?? 0)
  }

  /** Takes pages for a slot, from others if need be. @returns whether there are enough */
  takePages(slot: number, count: number): boolean {
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
  evict(): boolean {
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

  /** Copies the planes of a value from the memory of kernels into the pages of a slot. */
  copyIn(slot: number, { rect, planes }: Value, memory: Uint8Array): void {
    const bytes = 4 * rect.width * rect.height
    planes.forEach((address, plane) => {
      this.eachPart(slot, plane * bytes, bytes, (part, done) => part.set(memory.subarray(address + done, address + done + part.length)))
    })
  }

  /** Copies a part of a plane of a slot, which covers `from`, into a plane of the memory of kernels that covers `to`. */
  copyOut(slot: number, plane: number, from: Rect, part: Rect, memory: Uint8Array, address: number, to: Rect): void {
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
