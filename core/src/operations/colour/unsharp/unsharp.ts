import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { gaussianBlurNode } from '../../blurs/gaussianBlur/gaussianBlur'
import { lumaNode } from '../../fields/luma/luma'
import { inputAt, plane } from '../../plane'

export type UnsharpParameters = {
  /** Factor of what is added; below 0 contrast is taken out. */
  readonly amount: number
  /** Differences of luma up to this stay as they are. */
  readonly threshold: number
}

/** Unsharp masking by luma: tones (input 0) and their luma blurred (input 1), which is the luma of the blurred tones. */
export const unsharp: Operation<UnsharpParameters> = {
  name: 'unsharp',
  run(context, { amount, threshold }, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    context.kernels.unsharpTones(plane(tones, 0), plane(tones, 1), plane(tones, 2), plane(inputs[1], 0), count, amount, threshold, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

/** @param radius sigma of the blur, photo px */
export function unsharpNode(tones: GraphNode, radius: number, amount: number, threshold = 0): GraphNode {
  return amount === 0 || radius === 0
    ? tones
    : graphNode('unsharp', { amount, threshold }, [tones, gaussianBlurNode(lumaNode(tones), radius)])
}
