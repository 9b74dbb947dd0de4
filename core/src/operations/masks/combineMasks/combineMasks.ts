import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** How a mask joins the ones above it, in the order of the kernel. */
export const maskJoins = ['keep', 'add', 'subtract'] as const
export type MaskJoin = (typeof maskJoins)[number]

export type CombineParameters = {
  readonly join: MaskJoin
  /** 0-1: how much of the change is made. */
  readonly strength: number
}

/**
 * Two inputs: the mask so far and the one that joins it. With a single input the mask so far is white,
 * or black if the one that joins is added.
 */
export const combineMasks: Operation<CombineParameters> = {
  name: 'combineMasks',
  run(context, params, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const joining = inputAt(inputs, inputs.length - 1)
    let above = inputs.length > 1 ? plane(inputAt(inputs, 0), 0) : 0
    if (inputs.length === 1) {
      above = context.scratch(count * 4)
      kernels.fill(above, count, params.join === 'add' ? 0 : 1)
    }
    const out = context.plane(count)
    kernels.combineMasks(above, plane(joining, 0), count, maskJoins.indexOf(params.join), params.strength, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function combineMasksNode(above: GraphNode | undefined, mask: GraphNode, params: CombineParameters): GraphNode {
  return graphNode('combineMasks', params, above ? [above, mask] : [mask])
}

/** Open where a mask is shut, and shut where it is open. */
export function invertedNode(mask: GraphNode): GraphNode {
  return combineMasksNode(undefined, mask, { join: 'subtract', strength: 1 })
}
