import { linearOf, type Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

type ClearParameters = {
  /** sRGB-encoded colour of the air. */
  readonly colour: Rgb
  /** 0-1, more when it is exaggerated. */
  readonly amount: number
  readonly linear: boolean
  /** 0-1: part of the darkest channel of each pixel that stays air; 0.05 in the source (He, Sun and Tang 2009), where skies turn gaudy. At 0 nothing bounds it. */
  readonly kept: number
}

const NO_BOUND = -1

/** Takes air out of tones: the inverse of laying it over them. Inputs: tones, the share of the air as a field, and perhaps a mask. */
export const clearAir: Operation<ClearParameters> = {
  name: 'clearAir',
  isStage: true,
  run(context, { colour, amount, linear, kept }, inputs, rect) {
    const count = rect.width * rect.height
    const field = plane(inputAt(inputs, 1), 0)
    const mask = inputs[2] ? plane(inputs[2], 0) : 0
    const air = linear ? linearOf(colour) : colour
    const tones = inputAt(inputs, 0)
    const [red, green, blue] = [plane(tones, 0), plane(tones, 1), plane(tones, 2)]
    const planes = [context.plane(count), context.plane(count), context.plane(count)] as const
    context.kernels.clearAir(red, green, blue, field, mask, amount, ...air, kept > 0 ? 1 - kept : NO_BOUND, linear, count, ...planes)
    return { kind: 'tones', rect, planes }
  },
}

export function clearAirNode(tones: GraphNode, air: GraphNode, mask: GraphNode | undefined, params: ClearParameters): GraphNode {
  return graphNode('clearAir', params, mask ? [tones, air, mask] : [tones, air])
}
