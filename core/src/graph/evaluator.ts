import type { PhotoData } from '../photo/photoData'
import { enlargePlane, readToEnlarge } from '../planes/enlarge'
import { finerGrid, gridBounds, type Grid } from '../planes/grid'
import { clampInto, intersect, sameRect, splitIntoTiles, tilesAround, type Rect } from '../planes/rect'
import { reducePlane } from '../planes/reduce'
import { withScratch } from '../planes/scratch'
import type { Value } from '../planes/value'
import type { GraphNode } from './node'
import type { Kernels, Operation, Operations, RunContext } from './operation'
import { Planner, type Step } from './plan'
import { ResultStore } from './resultStore'
import { storeMemory } from './storeMemory'
import { ValueCache } from './valueCache'

/** Side of the blocks in which values on coarse grids are computed and kept. */
const COARSE_BLOCK = 512

/** What is worth keeping of an evaluation: the picture up to each effect too, since the next change may begin there; the result alone; or nothing. */
export type Keep = 'stages' | 'result' | 'nothing'

/** What a thread keeps in the memory of its kernels between what it computes, bytes: a tile may read it twice. */
const REST = 48e6

interface EvaluatorOptions {
  readonly kernels: Kernels
  readonly operations: Operations
  /** What it shares with other threads; or bytes that results may take where it is alone. */
  readonly store: ResultStore | number
}

/**
 * Computes graph nodes on rectangles: each node of a tile once, on all that its readers need of it, and each value no longer than it is read. What is smooth is computed on a coarser grid, in blocks
 * at fixed places that all tiles of all threads read, and enlarged.
 */
export class Evaluator {
  readonly kernels: Kernels
  private readonly planner: Planner
  private readonly cache: ValueCache
  private store: ResultStore
  private readonly photos = new Map<string, PhotoData>()
  private handedOut: Value[] = []
  private keeping: Keep = 'stages'
  /** What it has claimed and computes, one for the other. */
  private readonly claims: { readonly key: string; readonly rect: Rect }[] = []
  /** Pixels that operations have computed since the start. */
  work = 0
  /** Operations run since the start; a test reads it to see that nothing is computed twice. */
  runs = 0
  /** Called before an operation runs. What it throws ends the evaluation; what was computed until then is kept. */
  onRun: ((node: GraphNode, rect: Rect, grid: Grid) => void) | undefined
  /** Called again and again while another thread computes what is needed. */
  onWait: (() => void) | undefined

  constructor({ kernels, operations, store }: EvaluatorOptions) {
    this.kernels = kernels
    this.planner = new Planner(operations, kernels)
    const rest = typeof store === 'number' ? Math.min(REST, store / 4) : REST
    this.cache = new ValueCache(rest, (address) => kernels.release(address))
    this.store = typeof store === 'number' ? new ResultStore(storeMemory(store - rest, false), 0) : store
  }

  /** Shares results with the threads that use the same store. */
  useStore(store: ResultStore): void {
    this.store = store
  }

  addPhoto(photo: PhotoData): void {
    this.photos.set(photo.id, photo)
  }

  /** Forgets a photo, and gives back the memory of all results, its own among them. Call it between tiles. */
  dropPhoto(id: string): void {
    this.photos.delete(id)
    this.cache.trim(0)
    this.store.clear()
  }

  /** @throws Error if the photo has not been handed to this thread */
  photo(id: string): PhotoData {
    const photo = this.photos.get(id)
    if (!photo) throw new Error(`The photo ${id} is not loaded in this thread.`)
    return photo
  }

  hasPhoto(id: string): boolean {
    return this.photos.has(id)
  }

  /** Bytes of the results that are kept. */
  get bytesHeld(): number {
    return this.cache.size + this.store.size
  }

  /** Whether another thread waits for what this one computes. */
  get isAwaited(): boolean {
    return this.claims.some(({ key, rect }) => this.store.isAwaited(key, rect))
  }

  /** The value of `node` on `rect`, which lies in the grid. It stays valid until the next `trim`. */
  evaluate(node: GraphNode, rect: Rect, grid: Grid, keep: Keep = 'stages'): Value {
    let whole: Value
    this.keeping = keep
    try {
      whole = this.hold(node, rect, grid, keep !== 'nothing')
    } catch (error) {
      this.handedOut = []
      this.cache.letAllGo()
      throw error
    }
    const value = sameRect(whole.rect, rect) ? whole : this.cache.keep(undefined, this.cut(whole, rect))
    if (value !== whole) this.cache.letGo(whole)
    this.handedOut.push(value)
    return value
  }

  /** Frees what goes over the budget; what `evaluate` gave is no longer valid. */
  trim(): void {
    this.handedOut.forEach((value) => this.cache.letGo(value))
    this.handedOut = []
    this.cache.trim()
  }

  /** A value that covers a rectangle, and stays until it is let go. @param isKept whether it is put into the store */
  private hold(node: GraphNode, rect: Rect, grid: Grid, isKept = false): Value {
    const before = this.work
    const keeps = (one: GraphNode): boolean => (one === node ? isKept : this.keeping === 'stages' && this.planner.isStage(one))
    const mayBeThere = (one: GraphNode): boolean => keeps(one) || (this.keeping === 'result' && this.planner.isStage(one))
    const steps = this.planner.planFor(node, rect, grid, (one, part) => this.known(keyOf(one, grid), part, mayBeThere(one)))
    const made = new Map<Step, { readonly value: Value; readers: number }>()
    for (const step of steps) {
      const value = step.known ?? this.made(step, grid, made)
      if (!step.known && keeps(step.node)) this.store.keep(keyOf(step.node, grid), value, this.kernels.memory.buffer, this.work - before)
      made.set(step, { value, readers: step.readers })
      for (const { step: input } of step.reads) {
        const read = input && made.get(input)
        if (read && --read.readers === 0) this.cache.letGo(read.value)
      }
    }
    const last = steps.at(-1)
    const value = last && made.get(last)?.value
    if (!value) throw new Error(`There is no plan for ${keyOf(node, grid)}.`)
    return value
  }

  /** A value that is there already. @param isStored whether it may lie in the store */
  private known(key: string, rect: Rect, isStored: boolean): Value | undefined {
    const own = this.cache.find(key, rect)
    if (own || !isStored) return own
    const { kernels } = this
    const value = this.store.lend(key, rect, ({ kind, planes: count, copy }) => {
      const planes = this.allocated(count, rect)
      planes.forEach((address, index) => copy(index, rect, kernels.memory.buffer, address, rect))
      return { kind, rect, planes }
    })
    return value && this.cache.keep(key, value)
  }

  private made(step: Step, grid: Grid, made: ReadonlyMap<Step, { readonly value: Value }>): Value {
    const { node, operation, rect } = step
    const key = keyOf(node, grid)
    // Another node of the same key may have come before.
    const known = this.cache.find(key, rect)
    if (known) return known
    const coarse = this.planner.coarserGridOf(node, grid)
    if (coarse) return this.cache.keep(key, this.enlarged(node, rect, grid, coarse))
    if (step.reads.length === 0 && node.inputs.length > 0) return this.cache.keep(undefined, this.fromBlocks(node, rect, grid))
    const finest = operation.finest?.(node.params) ?? Infinity
    const finer = finerGrid(grid, finest)
    const inputs = step.reads.map(({ rect: part, step: input }, index) => {
      const whole = input && made.get(input)?.value
      if (whole) return sameRect(whole.rect, part) ? whole : this.cache.keep(undefined, this.cut(whole, part))
      const of = node.inputs[index] as GraphNode
      const value = finer ? this.cache.keep(undefined, this.reducedFromBlocks(of, part, grid, finest)) : this.hold(of, part, grid)
      if (sameRect(value.rect, part)) return value
      const cut = this.cache.keep(undefined, this.cut(value, part))
      this.cache.letGo(value)
      return cut
    })
    this.onRun?.(node, rect, grid)
    const value = this.run(operation.run, node, inputs, rect, grid)
    this.runs++
    this.work += rect.width * rect.height
    step.reads.forEach(({ step: input }, index) => {
      const read = inputs[index]
      if (read && read !== (input && made.get(input)?.value)) this.cache.letGo(read)
    })
    return this.cache.keep(key, value)
  }

  private allocated(count: number, { width, height }: Rect): number[] {
    const planes: number[] = []
    try {
      for (let i = 0; i < count; i++) planes.push(this.kernels.allocate(width * height * 4))
      return planes
    } catch (error) {
      planes.forEach((plane) => this.kernels.release(plane))
      throw error
    }
  }

  /** The part of a value that lies in a rectangle. */
  private cut(value: Value, rect: Rect): Value {
    const planes = this.allocated(value.planes.length, rect)
    this.copyPart(value, rect, rect, planes)
    return { kind: value.kind, rect, planes }
  }

  /** Copies what a value has of a part into planes of a rectangle. */
  private copyPart({ rect: from, planes }: Value, part: Rect, to: Rect, target: readonly number[]): void {
    const { x, y, width, height } = intersect(intersect(from, part), to)
    planes.forEach((plane, index) =>
      this.kernels.copyPart(plane, from.width, x - from.x, y - from.y, target[index] ?? 0, to.width, x - to.x, y - to.y, width, height),
    )
  }

  /** A value from the blocks that it is computed in. */
  private fromBlocks(node: GraphNode, rect: Rect, grid: Grid): Value {
    const side = this.planner.sideOf(node, grid) ?? COARSE_BLOCK
    return this.putTogether(keyOf(node, grid), rect, blocksOf(rect, grid, side), (block) => this.hold(node, block, grid))
  }

  /** A value on a coarse grid from blocks that are computed on a finer one, of at most `finest` photo px a pixel. */
  private reducedFromBlocks(node: GraphNode, rect: Rect, grid: Grid, finest: number): Value {
    const finer = finerGrid(grid, finest)
    if (!finer) return this.fromBlocks(node, rect, grid)
    return this.putTogether(`${keyOf(node, grid)} ${finest}`, rect, blocksOf(rect, grid, COARSE_BLOCK), (block) =>
      this.cache.keep(undefined, this.reduced(node, block, grid, finer, finest)),
    )
  }

  /**
   * A value on a rectangle from blocks that all threads share. What nobody has is computed; meanwhile others compute what they have begun.
   * @param compute the value of a block, held
   */
  private putTogether(key: string, rect: Rect, blocks: readonly Rect[], compute: (block: Rect) => Value): Value {
    const { kernels, store } = this
    let made: { readonly kind: Value['kind']; readonly planes: readonly number[] } | undefined
    const into = (kind: Value['kind'], count: number): readonly number[] => {
      made ??= { kind, planes: this.allocated(count, rect) }
      if (count !== made.planes.length) throw new Error(`A part has ${count} planes, and the others ${made.planes.length}.`)
      return made.planes
    }
    const isThere = (block: Rect): boolean =>
      store.lend(key, block, ({ kind, planes: count, copy }) => {
        into(kind, count).forEach((address, index) => copy(index, block, kernels.memory.buffer, address, rect))
        return true
      }) ?? false
    try {
      for (let missing = blocks; missing.length > 0;) {
        const taken = missing.filter((block) => {
          if (isThere(block)) return false
          const claim = store.claim(key, block)
          if (claim !== 'mine') return true
          const value = this.claimed(key, block, compute)
          this.copyPart(value, block, rect, into(value.kind, value.planes.length))
          this.cache.letGo(value)
          return false
        })
        if (taken.length === missing.length) {
          this.onWait?.()
          store.wait(key, taken[0] as Rect)
        }
        missing = taken
      }
    } catch (error) {
      made?.planes.forEach((plane) => kernels.release(plane))
      throw error
    }
    if (!made) throw new Error(`There are no blocks for ${key}.`)
    return { kind: made.kind, rect, planes: made.planes }
  }

  /** Computes a block that was claimed, and puts it into the store; if that fails another thread may compute it. */
  private claimed(key: string, rect: Rect, compute: (block: Rect) => Value): Value {
    const before = this.work
    this.claims.push({ key, rect })
    let isPublished = false
    try {
      const value = compute(rect)
      const block = sameRect(value.rect, rect) ? value : this.cache.keep(undefined, this.cut(value, rect))
      if (block !== value) this.cache.letGo(value)
      isPublished = this.store.publish(key, block, this.kernels.memory.buffer, this.work - before)
      return block
    } finally {
      this.claims.pop()
      if (!isPublished) this.store.abandon(key, rect)
    }
  }

  /** A smooth value, enlarged from a coarser grid. What varies inside a pixel there is no part of it. */
  private enlarged(node: GraphNode, rect: Rect, grid: Grid, coarse: Grid): Value {
    const { kernels } = this
    const steps = { x: grid.pitchX / coarse.pitchX, y: grid.pitchY / coarse.pitchY }
    const { kind, planes: all, rect: from } = this.fromBlocks(node, clampInto(readToEnlarge(rect, steps), gridBounds(coarse)), coarse)
    const count = rect.width * rect.height
    const smooth = kind === 'field' ? all.slice(0, 1) : all
    const planes = smooth.map((plane) =>
      withScratch(kernels, (scratch) => {
        const out = kernels.allocate(count * 4)
        enlargePlane(kernels, scratch, plane, from, rect, steps, out)
        // The cubic goes a little beyond the values around it.
        if (kind === 'field' || kind === 'mask') kernels.atLeastZero(out, count)
        return out
      }),
    )
    all.forEach((plane) => kernels.release(plane))
    return { kind, rect, planes }
  }

  /** A value as means of the pixels of a finer grid. */
  private reduced(node: GraphNode, rect: Rect, grid: Grid, finer: Grid, finest: number): Value {
    const { kernels } = this
    const [stepX, stepY] = [grid.pitchX / finer.pitchX, grid.pitchY / finer.pitchY]
    const [x, y] = [Math.floor(rect.x * stepX), Math.floor(rect.y * stepY)]
    const [right, bottom] = [Math.ceil((rect.x + rect.width) * stepX), Math.ceil((rect.y + rect.height) * stepY)]
    const from = clampInto({ x, y, width: right - x, height: bottom - y }, gridBounds(finer))
    const { kind, planes: fine } = this.reducedFromBlocks(node, from, finer, finest)
    const planes = fine.map((plane) =>
      withScratch(kernels, (scratch) => {
        const out = kernels.allocate(rect.width * rect.height * 4)
        reducePlane(kernels, scratch, plane, from, rect, { x: stepX, y: stepY }, out)
        return out
      }),
    )
    fine.forEach((plane) => kernels.release(plane))
    return { kind, rect, planes }
  }

  private run(run: Operation['run'], node: GraphNode, inputs: readonly Value[], rect: Rect, grid: Grid): Value {
    const blocks: number[] = []
    const context: RunContext = {
      kernels: this.kernels,
      grid,
      plane: (count) => this.kernels.allocate(count * 4),
      scratch: (bytes) => {
        const address = this.kernels.allocate(bytes)
        blocks.push(address)
        return address
      },
      photo: (id) => this.photo(id),
    }
    try {
      return run(context, node.params, inputs, rect)
    } finally {
      blocks.forEach((address) => this.kernels.release(address))
    }
  }
}

function keyOf(node: GraphNode, grid: Grid): string {
  return `${node.key} ${keyOfGrid(grid)}`
}

/** Parameters are in photo px: the same grid over another photo is another one. */
function keyOfGrid({ width, height, pitchX, pitchY, draft }: Grid): string {
  return `${width} ${height} ${pitchX} ${pitchY}${draft ? ' draft' : ''}`
}

/** The blocks that a rectangle touches, as far as they lie in the grid. */
function blocksOf(rect: Rect, grid: Grid, side: number): Rect[] {
  return splitIntoTiles(intersect(tilesAround(rect, side), gridBounds(grid)), side)
}
