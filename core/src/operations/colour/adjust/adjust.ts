import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type AdjustParameters = {
  /** Factors in linear light. */
  readonly gain: Rgb
  /** -1 to 1: lower or lift what is dark, what is bright. */
  readonly shadows: number
  readonly highlights: number
  /** Factor about luma, sRGB-encoded. */
  readonly saturation: number
  /** Factor about the middle of the encoded range, and what is then added. */
  readonly contrast: number
  readonly brightness: number
}

const noAdjustment: AdjustParameters = { gain: [1, 1, 1], shadows: 0, highlights: 0, saturation: 1, contrast: 1, brightness: 0 }

/** Exposure, shadows, highlights, saturation and contrast of tones; not clamped. */
export const adjust: Operation<AdjustParameters> = {
  name: 'adjust',
  keepsSmooth: true,
  run(context, { gain, shadows, highlights, saturation, contrast, brightness }, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const planes = [plane(tones, 0), plane(tones, 1), plane(tones, 2)] as const
    context.kernels.adjustTones(...planes, count, ...gain, shadows, highlights, saturation, contrast, brightness, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

export function adjustNode(tones: GraphNode, params: Partial<AdjustParameters>): GraphNode {
  return graphNode('adjust', { ...noAdjustment, ...params }, [tones])
}
