import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { pitchOf } from '../../../planes/grid'
import { plane } from '../../plane'
import { writeMask } from '../shapeMasks/fall'

export type CloudParameters = {
  /** Photo px from one large shape to the next. */
  readonly scale: number
  /** How many times longer shapes are along `turn` than across. */
  readonly stretch: number
  /** Degrees counter-clockwise. */
  readonly turn: number
  readonly offsetX: number
  readonly offsetY: number
  readonly octaves: number
  readonly seed: number
  /** The mask rises from 0 to 1 between these values of the noise, which lies around 0.5. */
  readonly low: number
  readonly high: number
  /** 0-1: where in its loop the noise is, while it drifts `drift` shapes along `turn`. */
  readonly phase?: number
  readonly drift?: number
}

/** Pixels of a coarse grid to a shape of the noise, from which on the kernel shows it in full, and to the rise of the mask where it is steepest. */
const PIXELS_OF_SHAPE = 4
const PIXELS_OF_RISE = 6

/** Fractal gradient noise (Perlin 1985, 2002) of the photo's own coordinates; octaves finer than the grid fade out. Input, if any: where it is needed. */
export const cloudMask: Operation<CloudParameters> = {
  name: 'cloudMask',
  pitch: ({ scale, stretch, octaves, low, high }) => {
    const shape = scale / Math.sqrt(Math.max(stretch, 1 / stretch))
    // The finest octave in full, and the rise from 0 to 1, which is the steeper the nearer its ends are.
    return Math.min(shape / 2 ** (octaves - 1) / PIXELS_OF_SHAPE, (shape * (high - low)) / (PIXELS_OF_RISE * Math.sqrt(octaves)))
  },
  run(context, params, [within], rect) {
    const { kernels, grid } = context
    const radians = (params.turn * Math.PI) / 180
    const [cos, sin] = [kernels.cosine(radians), kernels.sine(radians)]
    const root = Math.sqrt(params.stretch)
    const along = 1 / (params.scale * root)
    const across = root / params.scale
    // y points down, so a turn counter-clockwise has the minus in the first row.
    const matrix = [cos * along, -sin * along, 0, sin * across, cos * across, 0]
    const shift = (row: 0 | 3): number => -((matrix[row] ?? 0) * params.offsetX + (matrix[row + 1] ?? 0) * params.offsetY) + 1024.37
    const [a = 0, b = 0, , d = 0, e = 0] = matrix
    const unit = Math.max(along, across) * pitchOf(grid)
    const { octaves, seed, low, high, phase = 0, drift = 0 } = params
    const needed = within ? plane(within, 0) : 0
    return writeMask(context, rect, (out, ...at) =>
      kernels.cloudMask(out, needed, ...at, a, b, shift(0), d, e, shift(3), unit, octaves, seed | 0, low, high, phase, drift, 0),
    )
  },
}

/** @param within a field or mask: where it is 0 the noise is not needed, and not computed */
export function cloudMaskNode(params: CloudParameters, within?: GraphNode): GraphNode {
  return graphNode('cloudMask', params, within ? [within] : [])
}
