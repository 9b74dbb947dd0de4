import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type ForkParameters = {
  /** How far from a half the arm lies where it ends, 0-1 of the field; negative to the other side. */
  readonly aside: number
  /** How wide the arm is where it begins, against the line that it leaves. */
  readonly width: number
}

/**
 * A field (input 0) with a second place where it is a half: an arm that leaves the line of a half where a mask (input 1) begins to close, goes aside as the mask closes, and is ever
 * thinner until it is shut. Each place has the value of the line or of the arm, whichever is nearer to a half.
 */
export const fork: Operation<ForkParameters> = {
  name: 'fork',
  run(context, { aside, width }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.forkField(plane(inputAt(inputs, 0), 0), plane(inputAt(inputs, 1), 0), count, aside, width, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function forkNode(field: GraphNode, open: GraphNode, params: ForkParameters): GraphNode {
  return params.width > 0 ? graphNode('fork', params, [field, open]) : field
}
