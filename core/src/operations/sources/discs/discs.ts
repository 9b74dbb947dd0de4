import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { loopNumbers, type Falling } from '../../falling'
import { plane } from '../../plane'

/** One layer of discs out of focus. Lengths in photo px, angles in degrees, parts 0-1. */
export type DiscParameters = Partial<Falling> & {
  readonly seed: number
  /** Side of the square that holds one point on average. */
  readonly spacing: number
  readonly radius: number
  readonly radiusVariation: number
  /** Part of the radius over which the rim falls. */
  readonly softness: number
  /** How much brighter the rim is than the middle. */
  readonly rim: number
  /** Length of the smear. */
  readonly length: number
  /** Counter-clockwise from the x axis. */
  readonly angle: number
  readonly brightness: number
  readonly brightnessVariation: number
  readonly shiftX: number
  readonly shiftY: number
  /** Radius of the circle that each disc goes round in a loop. */
  readonly sway?: number
}

/** Discs at the points of a Poisson process that is fixed to the photo, drawn with their coverage, so every tile and scale sees the same ones. Input as for streaks. */
export const discs: Operation<DiscParameters> = {
  name: 'discs',
  run(context, params, inputs, rect) {
    const { kernels, grid } = context
    const count = rect.width * rect.height
    const mean = context.plane(count)
    kernels.fill(mean, count, 0)
    const reduced = grid.pitchX > 1 || grid.pitchY > 1
    const spread = reduced ? context.plane(count) : 0
    if (reduced) kernels.fill(spread, count, 0)
    kernels.drawDiscs(
      ...([mean, spread, rect.width, rect.height, rect.x, rect.y, grid.pitchX, grid.pitchY] as const),
      ...([params.seed | 0, params.spacing, params.radius, params.radiusVariation, params.softness, params.rim] as const),
      ...([params.length, (params.angle * Math.PI) / 180] as const),
      ...([params.brightness, params.brightnessVariation, params.shiftX, params.shiftY] as const),
      ...loopNumbers(params),
      ...([params.sway ?? 0, inputs[0] ? plane(inputs[0], 0) : 0, params.near ?? 1, params.far ?? 1] as const),
    )
    return { kind: 'field', rect, planes: reduced ? [mean, spread] : [mean] }
  },
}

/** @param distance of the scene in metres; discs between `near` and `far` are hidden by what is nearer */
export function discsNode(params: DiscParameters, distance?: GraphNode): GraphNode {
  return graphNode('discs', params, distance ? [distance] : [])
}
