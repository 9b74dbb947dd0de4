import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { Rgb } from '../../../colour/hex'

type ConstantParameters = { readonly colour: Rgb }

/** One colour everywhere, as background for looking at a pattern alone. */
export const constantTones: Operation<ConstantParameters> = {
  name: 'constantTones',
  keepsSmooth: true,
  run(context, params, _inputs, rect) {
    const count = rect.width * rect.height
    const planes = params.colour.map((value) => {
      const plane = context.plane(count)
      context.kernels.fill(plane, count, value)
      return plane
    })
    return { kind: 'tones', rect, planes }
  },
}

export function constantTonesNode(colour: Rgb): GraphNode {
  return graphNode('constantTones', { colour })
}
