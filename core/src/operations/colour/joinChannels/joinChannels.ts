import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Red of one picture, green of a second, blue of a third. */
export const joinChannels: Operation<Record<never, never>> = {
  name: 'joinChannels',
  run(context, _params, inputs, rect) {
    const { width, height } = rect
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(width * height)
      context.kernels.copyPart(plane(inputAt(inputs, channel), channel), width, 0, 0, out, width, 0, 0, width, height)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

export function joinChannelsNode(red: GraphNode, green: GraphNode, blue: GraphNode): GraphNode {
  return graphNode('joinChannels', {}, [red, green, blue])
}
