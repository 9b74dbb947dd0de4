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

/** Pixels from one kernel to the next: so many stay in the cache of the processor. */
const AT_ONCE = 4096

/** Hue, saturation, vibrance and lightness of tones in OKLab (Ottosson 2020); what leaves sRGB is cut off. */
export const vivid: Operation<VividParameters> = {
  name: 'vivid',
  run(context, { turn, saturation, vibrance, lightness }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const radians = (turn * Math.PI) / 180
    const [cosine, sine] = [kernels.cosine(radians), kernels.sine(radians)]
    for (let at = 0; at < count; at += AT_ONCE) {
      const part = Math.min(AT_ONCE, count - at)
      const [red, green, blue] = [0, 1, 2].map((channel) => plane(tones, channel) + 4 * at) as [number, number, number]
      const here = out.map((address) => address + 4 * at) as [number, number, number]
      kernels.oklabPlanes(red, green, blue, part, ...here)
      kernels.vividOklab(...here, part, cosine, sine, saturation, vibrance, lightness)
      kernels.encodedFromOklab(...here, part, ...here)
    }
    return { kind: 'tones', rect, planes: out }
  },
}

/** `tones` livelier or calmer, or `tones` itself when nothing is changed. */
export function vividNode(tones: GraphNode, params: Partial<VividParameters>): GraphNode {
  const all = { turn: 0, saturation: 1, vibrance: 0, lightness: 0, ...params }
  const still = all.turn === 0 && all.saturation === 1 && all.vibrance === 0 && all.lightness === 0
  return still ? tones : graphNode('vivid', all, [tones])
}
