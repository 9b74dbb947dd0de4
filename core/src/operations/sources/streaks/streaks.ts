import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { Grid } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import { loopNumbers, type Falling } from '../../falling'
import { plane } from '../../plane'

/** One layer of specks or streaks. Lengths in photo px, angles in degrees, parts 0-1. */
export type StreakParameters = Partial<Falling> & {
  readonly seed: number
  /** Side of the square that holds one point on average. */
  readonly spacing: number
  /** Standard deviation of the round speck. */
  readonly sigma: number
  /** Standard deviation of a Gaussian blur of the whole layer. */
  readonly blur: number
  /** Length of the smear; 0 leaves specks. */
  readonly length: number
  readonly lengthVariation: number
  /** Softness of the two ends, as part of the length. */
  readonly taper: number
  /** Counter-clockwise from the x axis. */
  readonly angle: number
  /** Greatest deviation from `angle`. */
  readonly bend: number
  /** Distance over which gusts change. */
  readonly gustScale: number
  readonly brightness: number
  readonly brightnessVariation: number
  readonly shiftX: number
  readonly shiftY: number
  /** Turns the layer counter-clockwise about its centre, the streaks with it. */
  readonly turn: number
  readonly centreX: number
  readonly centreY: number
  /** Only between these heights, photo px, is it looked at: elsewhere nothing is drawn. */
  readonly rows?: { readonly from: number; readonly to: number }
}

const RADIANS = Math.PI / 180

/**
 * Specks of a seeded lattice (a Poisson process, one cell one hash), each smeared along a line, blurred and placed. The
 * lattice is fixed to the photo, so every tile and every scale sees the same drops. Doing that to each speck is the same
 * as doing it to their picture, and exact at every scale. Input, perhaps: the distance of the scene in metres, which hides what is behind.
 */
export const streaks: Operation<StreakParameters> = {
  name: 'streaks',
  run(context, params, inputs, rect) {
    const { kernels, grid } = context
    const count = rect.width * rect.height
    const mean = context.plane(count)
    kernels.fill(mean, count, 0)
    // At full size a pixel is the finest there is: no variance inside it.
    const reduced = grid.pitchX > 1 || grid.pitchY > 1
    const spread = reduced ? context.plane(count) : 0
    if (reduced) kernels.fill(spread, count, 0)
    const { skipped, height } = rowsOf(params, rect, grid)
    const behind = 4 * skipped * rect.width
    kernels.drawStreaks(
      ...([mean + behind, spread && spread + behind, rect.width, height] as const),
      ...([rect.x, rect.y + skipped, grid.pitchX, grid.pitchY] as const),
      ...([params.seed | 0, params.spacing, params.sigma, params.blur, params.length, params.lengthVariation, params.taper] as const),
      ...([params.angle * RADIANS, params.bend * RADIANS, params.gustScale] as const),
      ...([params.brightness, params.brightnessVariation, params.shiftX, params.shiftY] as const),
      ...([params.turn * RADIANS, params.centreX, params.centreY] as const),
      ...loopNumbers(params),
      ...([inputs[0] ? plane(inputs[0], 0) + behind : 0, params.near ?? 1, params.far ?? 1] as const),
    )
    return { kind: 'field', rect, planes: reduced ? [mean, spread] : [mean] }
  },
}

/** How many rows of a rectangle lie above those that are looked at, and how many of these there are. */
function rowsOf({ rows }: StreakParameters, rect: Rect, grid: Grid): { readonly skipped: number; readonly height: number } {
  if (!rows) return { skipped: 0, height: rect.height }
  const first = Math.max(rect.y, Math.floor(rows.from / grid.pitchY) - 1)
  const last = Math.min(rect.y + rect.height, Math.ceil(rows.to / grid.pitchY) + 1)
  return { skipped: Math.min(rect.height, first - rect.y), height: Math.max(0, last - first) }
}

/** @param distance of the scene in metres; drops between `near` and `far` are hidden by what is nearer */
export function streaksNode(params: StreakParameters, distance?: GraphNode): GraphNode {
  return graphNode('streaks', params, distance ? [distance] : [])
}
