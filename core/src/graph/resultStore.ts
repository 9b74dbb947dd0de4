import { contains, sameRect, type Rect } from '../planes/rect'
import { byteSize, type Value } from '../planes/value'
import { HEAD, MOST_LANES, PAGE, SLOT, type StoreMemory } from './storeMemory'
import { CLAIMED, READY, StoreTable } from './storeTable'

/** The lock of a thread that died while it held it: nothing in there can be trusted. */
const BROKEN = -1
/** As what the pool itself takes part. */
export const POOL_LANE = MOST_LANES - 1
const kinds: readonly Value['kind'][] = ['tones', 'field', 'mask', 'layer', 'parts']
/** Nobody who lives holds the lock for so long, ms. */
const LONGEST_LOCK = 200
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
  private readonly table: StoreTable

  /** @param lane number of the thread, which no other has */
  constructor(
    memory: StoreMemory,
    private readonly lane: number,
  ) {
    this.table = new StoreTable(memory)
  }

  /** Bytes that results take. */
  get size(): number {
    return (this.table.index.head[HEAD.used] ?? 0) * PAGE
  }

  /**
   * Lends a result that covers a rectangle, as long as `use` runs; undefined without calling it if there is none.
   * @param worth how many times its cost it is worth from now on
   */
  lend<T>(key: string, rect: Rect, use: (lent: Lent) => T, worth = 1): T | undefined {
    const slot = this.locked(() => {
      const found = this.table.find(key, (one) => this.table.at(one, SLOT.state) === READY && contains(this.table.rectOf(one), rect))
      if (found === undefined) return undefined
      this.table.touch(found, worth)
      this.table.index.lanes[this.lane] = found + 1
      return found
    })
    if (slot === undefined) return undefined
    try {
      const from = this.table.rectOf(slot)
      return use({
        kind: kinds[this.table.at(slot, SLOT.kind)] ?? 'parts',
        planes: this.table.at(slot, SLOT.planes),
        copy: (plane, part, memory, address, to) => this.table.copyOut(slot, plane, from, part, new Uint8Array(memory), address, to),
      })
    } finally {
      Atomics.store(this.table.index.lanes, this.lane, 0)
    }
  }

  /** Asks to compute a result. What is `mine` must be published, or abandoned. */
  claim(key: string, rect: Rect): Claim {
    return (
      this.locked((): Claim => {
        const found = this.table.find(key, (one) =>
          this.table.at(one, SLOT.state) === READY ? contains(this.table.rectOf(one), rect) : sameRect(this.table.rectOf(one), rect),
        )
        if (found !== undefined) return this.table.at(found, SLOT.state) === READY ? 'there' : 'taken'
        this.table.add(key, rect, this.lane)
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
      if (this.table.takePages(own, Math.ceil(byteSize(value) / PAGE))) return own
      this.table.remove(own)
      return undefined
    })
    if (slot === undefined) return false
    try {
      this.table.copyIn(slot, value, new Uint8Array(memory))
    } catch (error) {
      this.abandon(key, value.rect)
      throw error
    }
    this.locked(() => {
      this.table.index.numbers[2 + 2 * slot] = cost / Math.max(1, this.table.at(slot, SLOT.pages))
      this.table.set(slot, SLOT.planes, value.planes.length)
      this.table.set(slot, SLOT.kind, kinds.indexOf(value.kind))
      this.table.touch(slot)
      this.table.become(slot, READY)
    })
    return true
  }

  /** Gives a claim back: another thread may compute it. */
  abandon(key: string, rect: Rect): void {
    this.locked(() => {
      const own = this.ownClaim(key, rect)
      if (own !== undefined) this.table.remove(own)
    })
  }

  /** Puts a result in that nobody claimed, unless it is there. */
  keep(key: string, value: Value, memory: ArrayBufferLike, cost: number): void {
    if (this.claim(key, value.rect) === 'mine') this.publish(key, value, memory, cost)
  }

  /** Waits a moment for a result that another thread computes. */
  wait(key: string, rect: Rect): void {
    const slot = this.locked(() => {
      const found = this.table.find(key, (one) => this.table.at(one, SLOT.state) === CLAIMED && sameRect(this.table.rectOf(one), rect))
      if (found !== undefined) this.table.set(found, SLOT.waiters, this.table.at(found, SLOT.waiters) + 1)
      return found
    })
    if (slot !== undefined) Atomics.wait(this.table.index.slots, slot * SLOT.size + SLOT.state, CLAIMED, WAIT)
  }

  /** Whether another thread waits, or has waited, for a result that this one has claimed. */
  isAwaited(key: string, rect: Rect): boolean {
    const own = this.locked(() => this.ownClaim(key, rect))
    return own !== undefined && this.table.at(own, SLOT.waiters) > 0
  }

  /** Bytes that results may take from now on, as far as there is memory. @returns false if the store is in disorder: a new one is needed */
  limitTo(bytes: number): boolean {
    const done = this.locked(() => {
      this.table.index.head[HEAD.limit] = Math.min(this.table.index.most, Math.max(1, Math.floor(bytes / PAGE)))
      while ((this.table.index.head[HEAD.used] ?? 0) > (this.table.index.head[HEAD.limit] ?? 0) && this.table.evict());
      return true
    })
    return done ?? false
  }

  /** Forgets all results that are there. */
  clear(): void {
    this.locked(() => {
      while (this.table.evict());
      if (this.table.index.head[HEAD.used] === 0) this.table.pages.letGo()
    })
  }

  /** Gives back what a thread that has ended had claimed or was reading. @returns false if it left the store in disorder: the others need a new one */
  forgetLane(lane: number): boolean {
    const { head, lanes } = this.table.index
    if (Atomics.compareExchange(head, HEAD.lock, lane + 1, BROKEN) === lane + 1) return false
    const done = this.locked(() => {
      lanes[lane] = 0
      for (let slot = 0; slot < (head[HEAD.slots] ?? 0); slot++)
        if (this.table.at(slot, SLOT.state) === CLAIMED && this.table.at(slot, SLOT.owner) === lane) this.table.remove(slot)
      return true
    })
    return done ?? false
  }

  /** Runs `work` while no other thread changes anything; undefined without running it if the store is broken. */
  private locked<T>(work: () => T): T | undefined {
    const { head } = this.table.index
    const began = performance.now()
    for (;;) {
      const holder = Atomics.compareExchange(head, HEAD.lock, 0, this.lane + 1)
      if (holder === 0) break
      if (holder === BROKEN) return undefined
      if (this.lane !== POOL_LANE) Atomics.wait(head, HEAD.lock, holder, WAIT)
      // A page may not wait, so the pool looks again and again; what one that died holds is never given back.
      else if (performance.now() - began > LONGEST_LOCK) Atomics.compareExchange(head, HEAD.lock, holder, BROKEN)
    }
    try {
      return work()
    } finally {
      Atomics.compareExchange(head, HEAD.lock, this.lane + 1, 0)
      if (this.table.isShared) Atomics.notify(head, HEAD.lock, 1)
    }
  }

  private ownClaim(key: string, rect: Rect): number | undefined {
    return this.table.find(
      key,
      (one) =>
        this.table.at(one, SLOT.state) === CLAIMED &&
        this.table.at(one, SLOT.owner) === this.lane &&
        sameRect(this.table.rectOf(one), rect),
    )
  }
}
