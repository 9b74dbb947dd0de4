import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type LevelParameters = {
  /** Intensity that becomes 0. */
  readonly black: number
  /** Intensity that becomes 1; above `black`. */
  readonly white: number
  /** Above 1 lifts the middle. */
  readonly gamma: number
}

/** Levels of a field: ((v - black) / (white - black)) clamped to 0-1, to the power of 1 / gamma. */
export const levels: Operation<LevelParameters> = {
  name: 'levels',
  run(context, params, inputs, rect) {
    const input = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const mean = context.plane(count)
    const spread = input.planes.length > 1 ? context.plane(count) : 0
    const inputSpread = spread ? plane(input, 1) : 0
    const white = Math.max(params.white, params.black + 1e-4)
    const { kernels } = context
    kernels.levels(plane(input, 0), inputSpread, count, params.black, white, params.gamma, mean, spread)
    return { kind: 'field', rect, planes: spread ? [mean, spread] : [mean] }
  },
}

/** `input` with levels applied, or `input` itself when they change nothing below 1. */
export function levelsNode(input: GraphNode, params: LevelParameters): GraphNode {
  return graphNode('levels', params, [input])
}
