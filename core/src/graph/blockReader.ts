import { intersect, sameRect, type Rect } from '../planes/rect'
import type { Value } from '../planes/value'
import type { Kernels } from './operation'
import type { ResultStore } from './resultStore'
import type { ValueCache } from './valueCache'

/** What is computed and kept in blocks that all threads share, as far as somebody wants to read it. */
export interface BlockSet {
  readonly key: string
  /** Those that hold what is wanted. */
  readonly blocks: readonly Rect[]
  /** The value of a block, held in the cache. */
  compute(block: Rect): Value
  /** What computing a block reads that lies in blocks itself. */
  reads(block: Rect): readonly BlockSet[]
}

interface BlockReaderOptions {
  readonly kernels: Kernels
  readonly cache: ValueCache
  readonly store: ResultStore
  /** What has been computed since the start, as its cost is stated. */
  spent(): number
}

/**
 * Reads results that lie in blocks. What nobody has is computed; what another thread computes is waited for, but first this one computes what that needs, or what it will need itself. What a thread
 * takes up while others wait for it always comes before that in the graph, so that none waits for what waits for it.
 */
export class BlockReader {
  private readonly kernels: Kernels
  private readonly cache: ValueCache
  private readonly spent: () => number
  /** What it has claimed and computes, one for the other. */
  private readonly claims: { readonly key: string; readonly rect: Rect }[] = []
  store: ResultStore
  /** Called again and again while another thread computes what is needed. */
  onWait: (() => void) | undefined
  /** What will be needed; asked when there is nothing else to do. */
  ahead: (() => readonly BlockSet[]) | undefined

  constructor({ kernels, cache, store, spent }: BlockReaderOptions) {
    this.kernels = kernels
    this.cache = cache
    this.store = store
    this.spent = spent
  }

  /** Whether another thread waits for what this one computes. */
  get isAwaited(): boolean {
    return this.claims.some(({ key, rect }) => this.store.isAwaited(key, rect))
  }

  /** The value on a rectangle; nobody holds it. */
  read(set: BlockSet, rect: Rect): Value {
    const { kernels, store } = this
    let made: { readonly kind: Value['kind']; readonly planes: readonly number[] } | undefined
    const into = (kind: Value['kind'], count: number): readonly number[] => {
      made ??= { kind, planes: allocated(kernels, count, rect) }
      if (count !== made.planes.length) throw new Error(`A part has ${count} planes, and the others ${made.planes.length}.`)
      return made.planes
    }
    const isThere = (block: Rect): boolean =>
      store.lend(set.key, block, ({ kind, planes: count, copy }) => {
        into(kind, count).forEach((address, index) => copy(index, block, kernels.memory.buffer, address, rect))
        return true
      }) ?? false
    try {
      for (let missing = set.blocks; missing.length > 0;) {
        const taken = missing.filter((block) => {
          if (isThere(block)) return false
          if (store.claim(set.key, block) !== 'mine') return true
          const value = this.claimed(set, block)
          copyPart(kernels, value, block, rect, into(value.kind, value.planes.length))
          this.cache.letGo(value)
          return false
        })
        if (taken.length === missing.length) this.waitFor(set, taken)
        missing = taken
      }
    } catch (error) {
      made?.planes.forEach((plane) => kernels.release(plane))
      throw error
    }
    if (!made) throw new Error(`There are no blocks for ${set.key}.`)
    return { kind: made.kind, rect, planes: made.planes }
  }

  /** Does something else while other threads compute blocks; waits for a moment where there is nothing. */
  private waitFor(set: BlockSet, taken: readonly Rect[]): void {
    this.onWait?.()
    const seen = new Set<string>()
    if (taken.some((block) => this.help(set.reads(block), seen))) return
    // What is not needed for what others may wait for is begun only where nobody can wait for this thread.
    if (this.claims.length === 0 && this.help(this.ahead?.() ?? [], seen)) return
    const [first] = taken
    if (first) this.store.wait(set.key, first)
  }

  /** Computes one block of what others need, however deep it lies. @returns whether there was one */
  private help(sets: readonly BlockSet[], seen: Set<string>): boolean {
    return sets.some((set) =>
      set.blocks.some((block) => {
        const place = `${set.key} ${block.x} ${block.y}`
        if (seen.has(place)) return false
        seen.add(place)
        const claim = this.store.claim(set.key, block)
        if (claim === 'there') return false
        if (claim === 'taken') return this.help(set.reads(block), seen)
        this.cache.letGo(this.claimed(set, block))
        return true
      }),
    )
  }

  /** Computes a block that was claimed, and puts it into the store; if that fails another thread may compute it. */
  private claimed({ key, compute }: BlockSet, rect: Rect): Value {
    const before = this.spent()
    this.claims.push({ key, rect })
    let isPublished = false
    try {
      const value = compute(rect)
      const block = sameRect(value.rect, rect) ? value : this.cache.keep(undefined, cut(this.kernels, value, rect))
      if (block !== value) this.cache.letGo(value)
      isPublished = this.store.publish(key, block, this.kernels.memory.buffer, this.spent() - before)
      return block
    } finally {
      this.claims.pop()
      if (!isPublished) this.store.abandon(key, rect)
    }
  }
}

/** Planes of a rectangle: all of them, or none. */
export function allocated(kernels: Kernels, count: number, { width, height }: Rect): number[] {
  const planes: number[] = []
  try {
    for (let i = 0; i < count; i++) planes.push(kernels.allocate(width * height * 4))
    return planes
  } catch (error) {
    planes.forEach((plane) => kernels.release(plane))
    throw error
  }
}

/** The part of a value that lies in a rectangle. */
export function cut(kernels: Kernels, value: Value, rect: Rect): Value {
  const planes = allocated(kernels, value.planes.length, rect)
  copyPart(kernels, value, rect, rect, planes)
  return { kind: value.kind, rect, planes }
}

/** Copies what a value has of a part into planes of a rectangle. */
function copyPart(kernels: Kernels, { rect: from, planes }: Value, part: Rect, to: Rect, target: readonly number[]): void {
  const { x, y, width, height } = intersect(intersect(from, part), to)
  planes.forEach((plane, index) =>
    kernels.copyPart(plane, from.width, x - from.x, y - from.y, target[index] ?? 0, to.width, x - to.x, y - to.y, width, height),
  )
}
