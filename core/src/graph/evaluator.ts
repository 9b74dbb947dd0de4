import { operationNamed } from '../operations/registry'
import type { PhotoData } from '../photo/photoData'
import { enlargePlane, readToEnlarge } from '../planes/enlarge'
import { finerGrid, gridBounds, type Grid } from '../planes/grid'
import { clampInto, intersect, sameRect, splitIntoTiles, tilesAround, type Rect } from '../planes/rect'
import { reducePlane } from '../planes/reduce'
import { withScratch } from '../planes/scratch'
import type { Value } from '../planes/value'
import { isStage, LastChange } from './lastChange'
import type { GraphNode } from './node'
import type { Kernels, Operation, RunContext } from './operation'
import { coarserGridOf, planFor, type Step } from './plan'
import { ValueCache, worth, type MemoryBudget, type Worth } from './valueCache'

/** Side of the blocks in which values on coarse grids are computed and kept. */
const COARSE_BLOCK = 512

/** What is worth keeping of an evaluation: the picture up to each effect too, since the next change may begin there; the result alone; or nothing. */
export type Keep = 'stages' | 'result' | 'nothing'

/**
 * Computes graph nodes on rectangles: each node of a tile once, on all that its readers need of it, and each value no longer than it is read, or than there is
 * room for it. What is smooth is computed on a coarser grid, in blocks at fixed places that all tiles read, and enlarged.
 */
export class Evaluator {
  private readonly cache: ValueCache
  private readonly photos = new Map<string, PhotoData>()
  private readonly lastChange = new LastChange()
  private handedOut: Value[] = []
  private keeping: Keep = 'stages'
  /** How many blocks are being computed, one for the other. */
  private depth = 0
  /** Pixels that operations have computed since the start. */
  private work = 0
  /** Operations run since the start; a test reads it to see that nothing is computed twice. */
  runs = 0
  /** Called before an operation runs. What it throws ends the evaluation; what was computed until then is kept. */
  onRun: ((node: GraphNode, rect: Rect, grid: Grid) => void) | undefined

  constructor(
    readonly kernels: Kernels,
    budget: MemoryBudget | number,
  ) {
    this.cache = new ValueCache(typeof budget === 'number' ? { usual: budget, most: budget } : budget, (address) =>
      kernels.release(address),
    )
  }

  addPhoto(photo: PhotoData): void {
    this.photos.set(photo.id, photo)
    this.cache.fitTo(Math.max(...[...this.photos.values()].map(({ width, height }) => width * height)))
  }

  /** Forgets a photo, and gives back the memory of all results, its own among them. Call it between tiles. */
  dropPhoto(id: string): void {
    this.photos.delete(id)
    this.cache.clear()
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
    return this.cache.size
  }

  /** The value of `node` on `rect`, which lies in the grid. It stays valid until the next `trim`. */
  evaluate(node: GraphNode, rect: Rect, grid: Grid, keep: Keep = 'stages'): Value {
    let whole: Value
    this.keeping = keep
    if (keep === 'stages') {
      this.lastChange.look(node)
      this.cache.beginPicture(node.key, keyOfGrid(grid))
    }
    try {
      whole = this.hold(node, rect, grid, keep === 'nothing' ? worth.step : worth.picture)
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

  /** A value that covers a rectangle, and stays until it is let go. */
  private hold(node: GraphNode, rect: Rect, grid: Grid, own: Worth = worth.step): Value {
    const key = keyOf(node, grid)
    const before = this.work
    const steps = planFor(node, rect, grid, this.kernels, (one, part) =>
      this.cache.find(keyOf(one, grid), part, one === node ? own : this.worthOf(one)),
    )
    const made = new Map<Step, { readonly value: Value; readers: number }>()
    for (const step of steps) {
      const value = step.known ?? this.made(step, grid, made, step.node === node ? own : undefined, before)
      made.set(step, { value, readers: step.readers })
      for (const { step: input } of step.reads) {
        const read = input && made.get(input)
        if (read && --read.readers === 0) this.cache.letGo(read.value)
      }
    }
    const last = steps.at(-1)
    const value = last && made.get(last)?.value
    if (!value) throw new Error(`There is no plan for ${key}.`)
    return value
  }

  /** @param before the work that had been done when what the step is for was asked for */
  private made(step: Step, grid: Grid, made: ReadonlyMap<Step, { readonly value: Value }>, own: Worth | undefined, before: number): Value {
    const { node, operation, rect } = step
    const key = keyOf(node, grid)
    // Another node of the same key may have come before.
    const known = this.cache.find(key, rect)
    if (known) return known
    const coarse = coarserGridOf(node, grid)
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
    return this.cache.keep(key, value, own ?? this.worthOf(node), this.work - before)
  }

  private worthOf(node: GraphNode): Worth {
    if (this.keeping !== 'stages' || !isStage(node)) return worth.step
    return this.lastChange.isBeneath(node) ? worth.picture : worth.stage
  }

  /** A block that readers share. */
  private block(node: GraphNode, rect: Rect, grid: Grid): Value {
    const own = this.worthOfBlock
    return this.deeper(() => this.hold(node, rect, grid, own))
  }

  /** What tiles read themselves is worth more than what only leads to it. */
  private get worthOfBlock(): Worth {
    return this.depth === 0 ? worth.manyTiles : worth.block
  }

  private deeper(compute: () => Value): Value {
    this.depth++
    try {
      return compute()
    } finally {
      this.depth--
    }
  }

  private cut(value: Value, rect: Rect): Value {
    return this.putTogether(rect, [rect], () => this.cache.again(value))
  }

  /** A value from the blocks that it is computed in. */
  private fromBlocks(node: GraphNode, rect: Rect, grid: Grid): Value {
    const side = operationNamed(node.operation).block?.(node.params, grid) ?? COARSE_BLOCK
    return this.putTogether(rect, blocksOf(rect, grid, side), (block) => this.block(node, block, grid))
  }

  /** A value on a coarse grid from blocks that are computed on a finer one, of at most `finest` photo px a pixel. */
  private reducedFromBlocks(node: GraphNode, rect: Rect, grid: Grid, finest: number): Value {
    const finer = finerGrid(grid, finest)
    if (!finer) return this.fromBlocks(node, rect, grid)
    const key = `${keyOf(node, grid)} ${finest}`
    return this.putTogether(rect, blocksOf(rect, grid, COARSE_BLOCK), (block) => {
      const own = this.worthOfBlock
      const known = this.cache.find(key, block, own)
      if (known) return known
      const before = this.work
      const value = this.deeper(() => this.reduced(node, block, grid, finer, finest))
      return this.cache.keep(key, value, own, this.work - before)
    })
  }

  /** The parts of values that lie in `rect`. @param hold the value of a part, which may cover more */
  private putTogether(rect: Rect, parts: readonly Rect[], hold: (part: Rect) => Value): Value {
    const { kernels } = this
    let kind: Value['kind'] = 'parts'
    let planes: readonly number[] = []
    const held = (part: Rect): Value => {
      try {
        return hold(part)
      } catch (error) {
        planes.forEach((plane) => kernels.release(plane))
        throw error
      }
    }
    for (const part of parts) {
      const value = held(part)
      if (planes.length === 0) planes = value.planes.map(() => kernels.allocate(rect.width * rect.height * 4))
      if (value.planes.length !== planes.length)
        throw new Error(`A part has ${value.planes.length} planes, and the others ${planes.length}.`)
      kind = value.kind
      const from = value.rect
      const { x, y, width, height } = intersect(intersect(from, part), rect)
      value.planes.forEach((plane, index) =>
        kernels.copyPart(plane, from.width, x - from.x, y - from.y, planes[index] ?? 0, rect.width, x - rect.x, y - rect.y, width, height),
      )
      this.cache.letGo(value)
    }
    return { kind, rect, planes }
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
