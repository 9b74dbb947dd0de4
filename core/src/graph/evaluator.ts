import type { PhotoData } from '../photo/photoData'
import { finerGrid, gridBounds, type Grid } from '../planes/grid'
import { intersect, sameRect, splitIntoTiles, tilesAround, type Rect } from '../planes/rect'
import { readOfCoarser, readOfFiner, rescaled, stepsBetween } from '../planes/rescale'
import type { Value } from '../planes/value'
import { allocated, BlockReader, cut, type BlockSet } from './blockReader'
import type { GraphNode } from './node'
import type { Kernels, Operation, Operations, RunContext } from './operation'
import { Planner, type Step } from './plan'
import { ResultStore, type Lent } from './resultStore'
import { storeMemory } from './storeMemory'
import { ValueCache } from './valueCache'

/** Side of the blocks in which values on coarse grids are computed and kept. */
const COARSE_BLOCK = 512

/**
 * What is worth keeping of an evaluation: the picture up to each effect too, since the next change may begin there, and that of a key rather than others; the result alone; or nothing.
 */
export type Keep = 'stages' | { readonly rather: string } | 'result' | 'nothing'

/** What the next change will want is worth so many times what it cost. */
const RATHER = 32
/** What a thread keeps in the memory of its kernels between what it computes, bytes: other parts of a tile, or the next tile, may read it. */
const REST = 96e6

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
  /** What it shares with other threads. */
  readonly blocks: BlockReader
  private readonly photos = new Map<string, PhotoData>()
  private handedOut: Value[] = []
  private keeping: Keep = 'stages'
  /** Pixels that operations have computed since the start. */
  work = 0
  /** What that cost, as the operations state it. */
  private spent = 0
  /** Operations run since the start; a test reads it to see that nothing is computed twice. */
  runs = 0
  /** Called before an operation runs. What it throws ends the evaluation; what was computed until then is kept. */
  onRun: ((node: GraphNode, rect: Rect, grid: Grid) => void) | undefined

  constructor({ kernels, operations, store }: EvaluatorOptions) {
    this.kernels = kernels
    this.planner = new Planner(operations, kernels)
    const rest = typeof store === 'number' ? Math.min(REST, store / 4) : REST
    this.cache = new ValueCache(rest, (address) => kernels.release(address))
    const own = typeof store === 'number' ? new ResultStore(storeMemory(store - rest, false), 0) : store
    this.blocks = new BlockReader({ kernels, cache: this.cache, store: own, spent: () => this.spent })
  }

  /** @param rest what it keeps for itself, bytes */
  share(store: ResultStore, rest: number): void {
    this.blocks.store = store
    this.cache.budget = rest
  }

  addPhoto(photo: PhotoData): void {
    this.photos.set(photo.id, photo)
  }

  /** Forgets a photo, and gives back the memory of all results, its own among them. Call it between tiles. */
  dropPhoto(id: string): void {
    this.photos.delete(id)
    this.cache.trim(0)
    this.blocks.store.clear()
  }

  /** @throws Error if the photo has not been handed to this thread */
  photo(id: string): PhotoData {
    const photo = this.photos.get(id)
    if (!photo) throw new Error(`The photo ${id} is not loaded in this thread.`)
    return photo
  }

  /** Bytes of the results that are kept. */
  get bytesHeld(): number {
    return this.cache.size + this.blocks.store.size
  }

  /** The value of `node` on `rect`, which lies in the grid. It stays valid until the next `trim`. */
  evaluate(node: GraphNode, rect: Rect, grid: Grid, keep: Keep = 'stages'): Value {
    let whole: Value
    this.keeping = keep
    try {
      whole = this.hold(node, rect, grid, true)
    } catch (error) {
      this.handedOut = []
      this.cache.letAllGo()
      throw error
    } finally {
      this.blocks.ahead = undefined
    }
    const value = sameRect(whole.rect, rect) ? whole : this.cache.keep(undefined, cut(this.kernels, whole, rect))
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

  /** A value that covers a rectangle, and stays until it is let go. @param isWanted whether it is what was asked for, and not only read for that */
  private hold(node: GraphNode, rect: Rect, grid: Grid, isWanted = false): Value {
    const before = this.spent
    const { keeping } = this
    const keepsStages = keeping === 'stages' || typeof keeping === 'object'
    /** What pictures up to effects are mixed from: most of it stays the same when something beneath changes. Readers are asked for before what they read. */
    const mixed = new Set<string>()
    const isKept = (one: GraphNode): boolean => {
      if (this.planner.isStage(one)) one.inputs.forEach(({ key }) => mixed.add(key))
      else if (!mixed.has(one.key) || this.planner.coarserGridOf(one, grid)) return one === node
      return true
    }
    const keeps = (one: GraphNode): boolean =>
      one === node && !isWanted ? false : keepsStages ? isKept(one) : one === node && keeping === 'result'
    const mayBeThere = (one: GraphNode): boolean => keeps(one) || (keeping === 'result' && this.planner.isStage(one))
    const steps = this.planner.planFor(node, rect, grid, (one, part) => this.known(one, part, grid, mayBeThere(one)))
    const made = new Map<Step, { readonly value: Value; readers: number }>()
    for (const [index, step] of steps.entries()) {
      if (isWanted) this.blocks.ahead = () => this.readsInBlocks(steps.slice(index), grid)
      const value = step.known ?? this.made(step, grid, made)
      if (!step.known && keeps(step.node)) {
        const cost = this.worthOf(step.node) * (this.spent - before)
        this.blocks.store.keep(keyOf(step.node, grid), value, this.kernels.memory.buffer, cost)
      }
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

  /** How many times its cost a value is worth. */
  private worthOf({ key }: GraphNode): number {
    return typeof this.keeping === 'object' && this.keeping.rather === key ? RATHER : 1
  }

  /** A value that is there already. @param isStored whether it may lie in the store */
  private known(node: GraphNode, rect: Rect, grid: Grid, isStored: boolean): Value | undefined {
    const key = keyOf(node, grid)
    const own = this.cache.find(key, rect)
    if (own || !isStored) return own
    const { kernels } = this
    const lent = (lent: Lent): Value => {
      const planes = allocated(kernels, lent.planes, rect)
      planes.forEach((address, index) => lent.copy(index, rect, kernels.memory.buffer, address, rect))
      return { kind: lent.kind, rect, planes }
    }
    const value = this.blocks.store.lend(key, rect, lent, this.worthOf(node))
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
    if (step.reads.length === 0 && node.inputs.length > 0)
      return this.cache.keep(undefined, this.blocks.read(this.blocksOfNode(node, rect, grid), rect))
    const finest = operation.finest?.(node.params) ?? Infinity
    const inputs = step.reads.map(({ rect: part, step: input }, index) => {
      const whole = input && made.get(input)?.value
      if (whole) return sameRect(whole.rect, part) ? whole : this.cache.keep(undefined, cut(this.kernels, whole, part))
      const of = node.inputs[index] as GraphNode
      const isReduced = finerGrid(grid, finest) !== undefined
      const value = isReduced
        ? this.cache.keep(undefined, this.blocks.read(this.blocksReduced(of, part, grid, finest), part))
        : this.hold(of, part, grid)
      if (sameRect(value.rect, part)) return value
      const own = this.cache.keep(undefined, cut(this.kernels, value, part))
      this.cache.letGo(value)
      return own
    })
    this.onRun?.(node, rect, grid)
    const value = this.run(operation.run, node, inputs, rect, grid)
    this.runs++
    this.work += rect.width * rect.height
    this.spent += rect.width * rect.height * this.planner.operations.costPerPixel(node, rect, grid)
    step.reads.forEach(({ step: input }, index) => {
      const read = inputs[index]
      if (read && read !== (input && made.get(input)?.value)) this.cache.letGo(read)
    })
    return this.cache.keep(key, value)
  }

  /** What is in blocks of a node. @param rect what is wanted of it */
  private blocksOfNode(node: GraphNode, rect: Rect, grid: Grid): BlockSet {
    const side = this.planner.sideOf(node, grid) ?? COARSE_BLOCK
    return {
      key: keyOf(node, grid),
      blocks: blocksOf(rect, grid, side),
      compute: (block) => this.hold(node, block, grid),
      reads: (block) =>
        this.readsInBlocks(
          this.planner.planFor(node, block, grid, () => undefined),
          grid,
        ),
    }
  }

  /** The same on a coarse grid, computed on a finer one of at most `finest` photo px a pixel. */
  private blocksReduced(node: GraphNode, rect: Rect, grid: Grid, finest: number): BlockSet {
    const finer = finerGrid(grid, finest)
    if (!finer) return this.blocksOfNode(node, rect, grid)
    return {
      key: `${keyOf(node, grid)} ${finest}`,
      blocks: blocksOf(rect, grid, COARSE_BLOCK),
      compute: (block) => this.cache.keep(undefined, this.reduced(node, block, grid, finer, finest)),
      reads: (block) => [this.blocksReduced(node, readOfFiner(block, grid, finer), finer, finest)],
    }
  }

  /** What steps of a plan read that lies in blocks. */
  private readsInBlocks(steps: readonly Step[], grid: Grid): BlockSet[] {
    return steps.flatMap(({ node, operation, rect, known, reads }) => {
      if (known) return []
      const coarse = this.planner.coarserGridOf(node, grid)
      if (coarse) return [this.blocksOfNode(node, readOfCoarser(rect, grid, coarse), coarse)]
      if (reads.length === 0 && node.inputs.length > 0) return [this.blocksOfNode(node, rect, grid)]
      const finest = operation.finest?.(node.params) ?? Infinity
      return reads.flatMap(({ rect: part, step }, index) => {
        const input = node.inputs[index]
        return !step && input && finerGrid(grid, finest) ? [this.blocksReduced(input, part, grid, finest)] : []
      })
    })
  }

  /** A smooth value, from a coarser grid. */
  private enlarged(node: GraphNode, rect: Rect, grid: Grid, coarse: Grid): Value {
    const from = readOfCoarser(rect, grid, coarse)
    return rescaled(this.kernels, this.blocks.read(this.blocksOfNode(node, from, coarse), from), rect, stepsBetween(grid, coarse))
  }

  /** A value as means of the pixels of a finer grid. */
  private reduced(node: GraphNode, rect: Rect, grid: Grid, finer: Grid, finest: number): Value {
    const from = readOfFiner(rect, grid, finer)
    return rescaled(this.kernels, this.blocks.read(this.blocksReduced(node, from, finer, finest), from), rect, stepsBetween(grid, finer))
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
