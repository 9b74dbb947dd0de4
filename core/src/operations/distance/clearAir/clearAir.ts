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
}

/** Takes air out of tones: the inverse of laying it over them. Inputs: tones, the share of the air as a field, and perhaps a mask. */
export const clearAir: Operation<ClearParameters> = {
  name: 'clearAir',
  isStage: true,
  run(context, { colour, amount, linear }, inputs, rect) {
    const count = rect.width * rect.height
    const field = plane(inputAt(inputs, 1), 0)
    const mask = inputs[2] ? plane(inputs[2], 0) : 0
    const air = linear ? linearOf(colour) : colour
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(count)
      context.kernels.clearAir(plane(inputAt(inputs, 0), channel), field, mask, amount, air[channel] ?? 0, linear, count, out)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

export function clearAirNode(tones: GraphNode, air: GraphNode, mask: GraphNode | undefined, params: ClearParameters): GraphNode {
  return graphNode('clearAir', params, mask ? [tones, air, mask] : [tones, air])
}
