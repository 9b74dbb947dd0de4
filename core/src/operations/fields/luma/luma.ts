import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Luma of tones as a field: ITU-R BT.709 weights on encoded values, not clamped. */
export const luma: Operation<Record<string, never>> = {
  name: 'luma',
  run(context, _, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = context.plane(count)
    context.kernels.luminancePlane(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function lumaNode(tones: GraphNode): GraphNode {
  return graphNode('luma', {}, [tones])
}
