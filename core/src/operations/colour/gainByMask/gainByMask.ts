import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type GainParameters = {
  /** Factors of linear red, green and blue where the mask is shut, and where it is open; between them in between. */
  readonly outside: Rgb
  readonly inside: Rgb
}

/** Tones (input 0) times a gain that a field or mask (input 1) decides, in linear light; not clamped. */
export const gainByMask: Operation<GainParameters> = {
  name: 'gainByMask',
  run(context, { outside, inside }, inputs, rect) {
    const count = rect.width * rect.height
    const mask = plane(inputAt(inputs, 1), 0)
    const planes = ([0, 1, 2] as const).map((channel) => {
      const out = context.plane(count)
      context.kernels.gainByMask(plane(inputAt(inputs, 0), channel), mask, count, outside[channel], inside[channel], out)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

/** `tones` with more or less light, or `tones` itself when nothing is changed. */
export function gainByMaskNode(tones: GraphNode, mask: GraphNode, params: GainParameters): GraphNode {
  const changes = [...params.outside, ...params.inside].some((factor) => factor !== 1)
  return changes ? graphNode('gainByMask', params, [tones, mask]) : tones
}
