import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'

/** The same intensity everywhere. */
export const constantField: Operation<{ readonly value: number }> = {
  name: 'constantField',
  keepsSmooth: true,
  run(context, { value }, _inputs, rect) {
    const out = context.plane(rect.width * rect.height)
    context.kernels.fill(out, rect.width * rect.height, value)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function constantFieldNode(value: number): GraphNode {
  return graphNode('constantField', { value })
}
