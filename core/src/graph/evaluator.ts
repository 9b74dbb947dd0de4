import { operationNamed } from '../operations/registry'
import type { PhotoData } from '../photo/photoData'
import { enlargePlane, readToEnlarge } from '../planes/enlarge'
import { coarserGrid, finerGrid, gridBounds, type Grid } from '../planes/grid'
import { BLOCK, clampInto, intersect, sameRect, splitIntoTiles, tilesAround, type Rect } from '../planes/rect'
import { withScratch } from '../planes/scratch'
import type { Value } from '../planes/value'
import type { GraphNode } from './node'
import type { Kernels, Operation, RunContext } from './operation'
import { ValueCache } from './valueCache'

/**
 * Computes graph nodes on rectangles. Values are computed in blocks at fixed places of the grid, so that whatever rectangles are asked for, each block is
 * computed once; rectangles are put together from them. What an operation says is smooth is computed on a coarser grid and enlarged.
 */
export class Evaluator {
  private readonly cache: ValueCache
  private readonly photos = new Map<string, PhotoData>()
  private handedOut: Value[] = []
  /** Operations run since the start; a test reads it to see that nothing is computed twice. */
  runs = 0
  /** Called before an operation runs. */
  onRun: ((node: GraphNode) => void) | undefined

  constructor(
    readonly kernels: Kernels,
    cacheBytes: number,
  ) {
    this.cache = new ValueCache(cacheBytes, (address) => kernels.release(address))
  }

  addPhoto(photo: PhotoData): void {
    this.photos.set(photo.id, photo)
  }

  /** Forgets a photo, and gives back the memory of all results, its own among them. Call it between tiles. */
  dropPhoto(id: string): void {
    this.photos.delete(id)
    this.cache.trim(0)
  }

  hasPhoto(id: string): boolean {
    return this.photos.has(id)
  }

  /** The value of `node` on `rect`, which lies in the grid. It stays valid until the next `trim`. */
  evaluate(node: GraphNode, rect: Rect, grid: Grid): Value {
    const value = this.hold(node, rect, grid)
    this.handedOut.push(value)
    return value
  }

  /** Frees what goes over the budget; what `evaluate` gave is no longer valid. */
  trim(): void {
    this.handedOut.forEach((value) => this.cache.letGo(value))
    this.handedOut = []
    this.cache.trim()
  }

  /**
   * A value that stays until the cache lets it go.
   * @param finest on a grid that is coarser, photo px a pixel, it is computed on a finer one and reduced
   * @param precious whether it stands for much of the picture
   */
  private hold(node: GraphNode, rect: Rect, grid: Grid, finest = Infinity, precious = false): Value {
    const finer = finerGrid(grid, finest)
    // Parameters are in photo px: the same grid over another photo is another result.
    const place = `${rect.x} ${rect.y} ${rect.width} ${rect.height}`
    const key = `${node.key} ${grid.width} ${grid.height} ${grid.pitchX} ${grid.pitchY} ${finer ? finest : ''} ${place}`
    const known = this.cache.find(key, precious)
    if (known) return known
    const operation = operationNamed(node.operation)
    const coarse = finer ? undefined : operation.pitch && coarserGrid(grid, operation.pitch(node.params))
    const blocks = blocksOf(rect, grid, (!coarse && !finer && operation.block?.(node.params, grid)) || BLOCK)
    const [block] = blocks
    if (blocks.length > 1 || (block && !sameRect(block, rect))) {
      return this.cache.keep(undefined, this.putTogether(node, blocks, rect, grid, finest, precious))
    }
    if (finer) return this.cache.keep(key, this.reduced(node, rect, grid, finer, finest), precious)
    return this.cache.keep(key, coarse ? this.enlarged(node, rect, grid, coarse) : this.computed(operation, node, rect, grid), precious)
  }

  private computed(operation: Operation, node: GraphNode, rect: Rect, grid: Grid): Value {
    const inputs: Value[] = []
    for (const [index, input] of node.inputs.entries()) {
      const need = operation.need ? operation.need(node.params, rect, grid, this.kernels, index) : rect
      inputs.push(this.hold(input, clampInto(need, gridBounds(grid)), grid, operation.finest?.(node.params)))
    }
    this.onRun?.(node)
    const value = this.run(operation.run, node, inputs, rect, grid)
    this.runs++
    // What is read pixel by pixel is done with; what is read with its surroundings is read again for the next block.
    inputs.forEach((input) => this.cache.letGo(input, !operation.need))
    return value
  }

  /** The part of each block that lies in `rect`. */
  private putTogether(node: GraphNode, blocks: readonly Rect[], rect: Rect, grid: Grid, finest: number, precious: boolean): Value {
    const { kernels } = this
    let kind: Value['kind'] = 'parts'
    let planes: readonly number[] = []
    const all = blocks.every((block) => sameRect(intersect(block, rect), block))
    for (const block of blocks) {
      const value = this.hold(node, block, grid, finest, precious)
      if (planes.length === 0) planes = value.planes.map(() => kernels.allocate(rect.width * rect.height * 4))
      kind = value.kind
      const { x, y, width, height } = intersect(value.rect, rect)
      value.planes.forEach((plane, index) =>
        kernels.copyPart(plane, block.width, x - block.x, y - block.y, planes[index] ?? 0, rect.width, x - rect.x, y - rect.y, width, height),
      )
      this.cache.letGo(value, all)
    }
    return { kind, rect, planes }
  }

  /** A smooth value, enlarged from a coarser grid. What varies inside a pixel there is no part of it. */
  private enlarged(node: GraphNode, rect: Rect, grid: Grid, coarse: Grid): Value {
    const { kernels } = this
    const steps = { x: grid.pitchX / coarse.pitchX, y: grid.pitchY / coarse.pitchY }
    const value = this.hold(node, clampInto(readToEnlarge(rect, steps), gridBounds(coarse)), coarse, Infinity, true)
    const count = rect.width * rect.height
    const smooth = value.kind === 'field' ? value.planes.slice(0, 1) : value.planes
    const planes = smooth.map((plane) =>
      withScratch(kernels, (scratch) => {
        const out = kernels.allocate(count * 4)
        enlargePlane(kernels, scratch, plane, value.rect, rect, steps, out)
        // The cubic goes a little beyond the values around it.
        if (value.kind === 'field' || value.kind === 'mask') kernels.atLeastZero(out, count)
        return out
      }),
    )
    this.cache.letGo(value)
    return { kind: value.kind, rect, planes }
  }

  /** A value as means of the pixels of a finer grid. */
  private reduced(node: GraphNode, rect: Rect, grid: Grid, finer: Grid, finest: number): Value {
    const { kernels } = this
    const [stepX, stepY] = [grid.pitchX / finer.pitchX, grid.pitchY / finer.pitchY]
    const [x, y] = [Math.floor(rect.x * stepX), Math.floor(rect.y * stepY)]
    const [right, bottom] = [Math.ceil((rect.x + rect.width) * stepX), Math.ceil((rect.y + rect.height) * stepY)]
    const value = this.hold(node, clampInto({ x, y, width: right - x, height: bottom - y }, gridBounds(finer)), finer, finest)
    const { width, height } = value.rect
    const planes = value.planes.map((plane) =>
      withScratch(kernels, (scratch) => {
        const out = kernels.allocate(rect.width * rect.height * 4)
        const low = scratch(width * rect.height * 4)
        kernels.areaColumns(plane, width, height, value.rect.y, stepY, rect.y, low, rect.height)
        const table = scratch(rect.width * kernels.areaEntryBytes(stepX))
        kernels.areaRows(low, width, rect.height, value.rect.x, stepX, rect.x, out, rect.width, table)
        return out
      }),
    )
    this.cache.letGo(value)
    return { kind: value.kind, rect, planes }
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
      photo: (id) => {
        const photo = this.photos.get(id)
        if (!photo) throw new Error(`The photo ${id} is not loaded in this thread.`)
        return photo
      },
    }
    try {
      return run(context, node.params, inputs, rect)
    } finally {
      blocks.forEach((address) => this.kernels.release(address))
    }
  }
}

/** The blocks that a rectangle touches, as far as they lie in the grid. */
function blocksOf(rect: Rect, grid: Grid, side: number): Rect[] {
  return splitIntoTiles(intersect(tilesAround(rect, side), gridBounds(grid)), side)
}
