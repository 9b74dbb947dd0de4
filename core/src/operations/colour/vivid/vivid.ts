import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type VividParameters = {
  /** Degrees by which hues are turned, counter-clockwise in OKLab. */
  readonly turn: number
  /** Factor of chroma. */
  readonly saturation: number
  /** -1 to 1: how much more of it pale colours get. */
  readonly vibrance: number
  /** -1 to 1; black and white stay. */
  readonly lightness: number
}

/** Hue, saturation, vibrance and lightness of tones in OKLab (Ottosson 2020); what leaves sRGB is cut off. */
export const vivid: Operation<VividParameters> = {
  name: 'vivid',
  run(context, { turn, saturation, vibrance, lightness }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    kernels.oklabPlanes(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, ...out)
    const radians = (turn * Math.PI) / 180
    kernels.vividOklab(...out, count, kernels.cosine(radians), kernels.sine(radians), saturation, vibrance, lightness)
    kernels.encodedFromOklab(...out, count, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

/** `tones` livelier or calmer, or `tones` itself when nothing is changed. */
export function vividNode(tones: GraphNode, params: Partial<VividParameters>): GraphNode {
  const all = { turn: 0, saturation: 1, vibrance: 0, lightness: 0, ...params }
  const still = all.turn === 0 && all.saturation === 1 && all.vibrance === 0 && all.lightness === 0
  return still ? tones : graphNode('vivid', all, [tones])
}
