import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Where tones (input 1) are clipped and those before (input 0) are not: red for white, green for black. */
export const newlyClipped: Operation<Record<string, never>> = {
  name: 'newlyClipped',
  run(context, _params, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const [before, after] = [0, 1].map((index) => [0, 1, 2].map((channel) => plane(inputAt(inputs, index), channel))) as [Three, Three]
    const [white, black, none] = [0, 1, 2].map(() => context.plane(count)) as Three
    kernels.newlyClipped(...before, ...after, count, white, black)
    kernels.fill(none, count, 0)
    return { kind: 'tones', rect, planes: [white, black, none] }
  },
}

type Three = [number, number, number]

export function newlyClippedNode(before: GraphNode, after: GraphNode): GraphNode {
  return graphNode('newlyClipped', {}, [before, after])
}
