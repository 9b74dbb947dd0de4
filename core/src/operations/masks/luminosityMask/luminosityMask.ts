import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** What a luminosity mask can read, in the order of the kernel. */
export const toneChannels = ['encodedLuma', 'linearLuminance', 'lightness', 'red', 'green', 'blue', 'maximum', 'saturation'] as const
export type ToneChannel = (typeof toneChannels)[number]

/** Curves over the tones, in the order of the kernel: L, 1 - L, 4 L (1 - L), and a range between four handles. */
export const toneCurves = ['brights', 'darks', 'mids', 'range'] as const
export type ToneCurve = (typeof toneCurves)[number]

/** Start, full, still full, end: tones 0-1 in rising order. */
export type ToneHandles = readonly [number, number, number, number]

export type LuminosityParameters = {
  readonly channel: ToneChannel
  readonly curve: ToneCurve
  readonly handles: ToneHandles
  /** n >= 0: n more multiplications of the curve with itself; n < 0: of its complement. */
  readonly steepness: number
}

/** Mask read from the tones beneath or of the photo. Quick curves and self-multiplication: common practice, no source. */
export const luminosityMask: Operation<LuminosityParameters> = {
  name: 'luminosityMask',
  run(context, params, inputs, rect) {
    const { kernels } = context
    const tones = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const read = context.scratch(count * 4)
    const out = context.plane(count)
    const channel = toneChannels.indexOf(params.channel)
    kernels.tonePlane(channel, plane(tones, 0), plane(tones, 1), plane(tones, 2), count, read)
    const curve = toneCurves.indexOf(params.curve)
    kernels.maskCurve(read, count, curve, ...params.handles, params.steepness, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function luminosityMaskNode(tones: GraphNode, params: LuminosityParameters): GraphNode {
  return graphNode('luminosityMask', params, [tones])
}
