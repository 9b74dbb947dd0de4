import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type HueParameters = {
  /** OKLCh hue, radians. */
  readonly hue: number
  /** Hues up to this far on either side are open, radians; π and more opens all. */
  readonly halfWidth: number
  readonly hueSoftness: number
  /** OKLCh chroma, 0-0.4 within sRGB. */
  readonly chromaFrom: number
  readonly chromaTo: number
  readonly chromaSoftness: number
}

/** Mask by hue and chroma in OKLCh (Ottosson 2020); both fall by 1 - t² (3 - 2 t). */
export const hueMask: Operation<HueParameters> = {
  name: 'hueMask',
  run(context, params, inputs, rect) {
    const { kernels } = context
    const tones = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const [l, a, b] = [0, 1, 2].map(() => context.scratch(count * 4)) as [number, number, number]
    kernels.oklabPlanes(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, l, a, b)
    const out = context.plane(count)
    const [cos, sin] = [kernels.cosine(params.hue), kernels.sine(params.hue)]
    const { halfWidth, hueSoftness, chromaFrom, chromaTo, chromaSoftness } = params
    kernels.hueChromaMask(a, b, count, cos, sin, halfWidth, hueSoftness, chromaFrom, chromaTo, chromaSoftness, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function hueMaskNode(tones: GraphNode, params: HueParameters): GraphNode {
  return graphNode('hueMask', params, [tones])
}
