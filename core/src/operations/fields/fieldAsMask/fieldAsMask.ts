import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** A pattern as mask: its intensity, clamped to 0-1. */
export const fieldAsMask: Operation = {
  name: 'fieldAsMask',
  run(context, _params, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    // Levels from 0 to 1 without gamma are a clamp.
    context.kernels.levels(plane(inputAt(inputs, 0), 0), 0, count, 0, 1, 1, out, 0)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function fieldAsMaskNode(field: GraphNode): GraphNode {
  return graphNode('fieldAsMask', {}, [field])
}
