import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** A mask as grey picture: open is white. */
export const maskAsTones: Operation = {
  name: 'maskAsTones',
  run(context, _params, inputs, rect) {
    const mask = plane(inputAt(inputs, 0), 0)
    const planes = [0, 1, 2].map(() => {
      const out = context.plane(rect.width * rect.height)
      context.kernels.copyExtended(mask, rect.width, rect.height, 0, 0, out, rect.width, rect.height)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

export function maskAsTonesNode(mask: GraphNode): GraphNode {
  return graphNode('maskAsTones', {}, [mask])
}
