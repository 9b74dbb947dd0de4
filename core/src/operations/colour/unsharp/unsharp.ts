import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { gaussianBlurNode } from '../../blurs/gaussianBlur/gaussianBlur'
import { inputAt, plane } from '../../plane'

export type UnsharpParameters = {
  /** Factor of what is added; below 0 contrast is taken out. */
  readonly amount: number
  /** Differences of luma up to this stay as they are. */
  readonly threshold: number
}

/** Unsharp masking by luma: tones (input 0) and the same blurred (input 1). */
export const unsharp: Operation<UnsharpParameters> = {
  name: 'unsharp',
  run(context, { amount, threshold }, inputs, rect) {
    const count = rect.width * rect.height
    const planes = inputs.flatMap((input) => [0, 1, 2].map((channel) => plane(input, channel))) as Six
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    context.kernels.unsharpTones(...planes, count, amount, threshold, ...out)
    return { kind: 'tones', rect: inputAt(inputs, 0).rect, planes: out }
  },
}

type Six = [number, number, number, number, number, number]

/** @param radius sigma of the blur, photo px */
export function unsharpNode(tones: GraphNode, radius: number, amount: number, threshold = 0): GraphNode {
  return amount === 0 || radius === 0 ? tones : graphNode('unsharp', { amount, threshold }, [tones, gaussianBlurNode(tones, radius)])
}
