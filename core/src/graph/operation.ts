import type * as KernelModule from '@welkinar/kernels'
import type { PhotoData } from '../photo/photoData'
import type { Grid } from '../planes/grid'
import type { Rect } from '../planes/rect'
import type { Value } from '../planes/value'
import type { GraphNode, Parameters } from './node'

/** The kernels of one thread, with their own memory. */
export type Kernels = Awaited<ReturnType<typeof KernelModule.instantiate>>

/** What an operation may use while it runs. */
export interface RunContext {
  readonly kernels: Kernels
  readonly grid: Grid
  /** A new plane of floats that belongs to the result. */
  plane(count: number): number
  /** A block of bytes that is given back when the operation has run. */
  scratch(bytes: number): number
  /** @throws Error if the photo has not been handed to this thread */
  photo(id: string): PhotoData
}

/**
 * A definition of one operation of the graph. Everything else is generic: evaluation, caching and tiling
 * know only this shape.
 */
export interface Operation<P extends Parameters = Parameters> {
  readonly name: string
  /** Whether its result is the picture up to an effect: what is above it changes more often than what is beneath, so it is kept for longer. */
  readonly isStage?: boolean
  /** The rectangle of input `index` that is needed for `rect`; the evaluator cuts it to the picture. Default: `rect` itself. */
  need?(params: P, rect: Rect, grid: Grid, kernels: Kernels, index: number): Rect
  /** Side of the blocks that it is computed and kept in, grid px; as long as the grid for the whole picture at once. Default: it is computed where it is wanted. */
  block?(params: P, grid: Grid): number | undefined
  /**
   * For what is smooth: the coarsest pitch, photo px, at which a grid holds all there is in the result. On a finer grid it is computed at that pitch and
   * enlarged. It follows from the parameters alone, never from the tile. Default: every grid is computed by itself.
   */
  pitch?(params: P): number
  /** Whether its result holds nothing finer than its inputs do, pixel by pixel: where all of these are smooth, it is computed at the pitch of the finest of them. */
  readonly keepsSmooth?: boolean
  /** With `pitch`: the coarsest pitch at which its inputs are computed; on a coarser grid they are reduced to it. Default: that of the grid. */
  finest?(params: P): number
  /** Computes `rect`. Inputs cover what `need` asked for, cut to the picture. */
  run(context: RunContext, params: P, inputs: readonly Value[], rect: Rect): Value
}

/** All that a graph may be made of. */
export interface Operations {
  /** The operation of a name. @throws Error if there is none */
  named(name: string): Operation
  /** What a node costs for a pixel of a rectangle, as its operation states it: nanoseconds of one core of the machine that costs were measured on. */
  costPerPixel(node: GraphNode, rect: Rect, grid: Grid): number
}
