import { operationNamed } from '../operations/registry'
import type { PhotoData } from '../photo/photoData'
import { gridBounds, type Grid } from '../planes/grid'
import { clampInto, sameRect, type Rect } from '../planes/rect'
import type { Value } from '../planes/value'
import type { GraphNode } from './node'
import type { Kernels, RunContext } from './operation'
import { ValueCache } from './valueCache'

/** Computes graph nodes on rectangles, each of them once: results are kept by what they depend on. */
export class Evaluator {
  private readonly cache: ValueCache
  private readonly photos = new Map<string, PhotoData>()
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

  /** The value of `node` on `rect`. It stays valid until the next `trim`. */
  evaluate(node: GraphNode, rect: Rect, grid: Grid): Value {
    // Parameters are in photo px: the same grid over another photo is another result.
    const place = `${rect.x} ${rect.y} ${rect.width} ${rect.height}`
    const key = `${node.key} ${grid.width} ${grid.height} ${grid.pitchX} ${grid.pitchY} ${place}`
    const known = this.cache.get(key)
    if (known) return known
    const operation = operationNamed(node.operation)
    const block = operation.block?.(node.params, rect, grid) ?? rect
    if (!sameRect(block, rect)) {
      const cut = this.cut(this.evaluate(node, block, grid), rect)
      this.cache.put(key, cut)
      return cut
    }
    const inputs = node.inputs.map((input, index) => {
      const need = operation.need ? operation.need(node.params, rect, grid, this.kernels, index) : rect
      return this.evaluate(input, clampInto(need, gridBounds(grid)), grid)
    })
    this.onRun?.(node)
    const value = this.run(operation.run, node, inputs, rect, grid)
    this.runs++
    this.cache.put(key, value)
    return value
  }

  private cut(whole: Value, rect: Rect): Value {
    const { kernels } = this
    const [x, y] = [rect.x - whole.rect.x, rect.y - whole.rect.y]
    const planes = whole.planes.map((plane) => {
      const out = kernels.allocate(rect.width * rect.height * 4)
      kernels.copyExtended(plane, whole.rect.width, whole.rect.height, x, y, out, rect.width, rect.height)
      return out
    })
    return { kind: whole.kind, rect, planes }
  }

  /** Frees what goes over the budget. Call it between tiles. */
  trim(): void {
    this.cache.trim()
  }

  private run(run: ReturnType<typeof operationNamed>['run'], node: GraphNode, inputs: readonly Value[], rect: Rect, grid: Grid): Value {
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
