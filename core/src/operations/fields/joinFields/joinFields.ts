import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

type JoinParameters = {
  /** `screen`: 1 - (1 - a) (1 - b), as veils one behind the other do; `product`: a b. */
  readonly how: 'screen' | 'product'
}

/** Several fields or masks as one field. */
export const joinFields: Operation<JoinParameters> = {
  name: 'joinFields',
  keepsSmooth: true,
  run(context, { how }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.scalePlane(plane(inputAt(inputs, 0), 0), count, 1, out)
    for (const input of inputs.slice(1)) context.kernels.joinFields(out, plane(input, 0), count, how === 'product', out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function joinFieldsNode(fields: readonly GraphNode[], how: JoinParameters['how']): GraphNode {
  return graphNode('joinFields', { how }, fields)
}

/** A field at a part of its strength. */
export const scaleField: Operation<{ readonly factor: number }> = {
  name: 'scaleField',
  keepsSmooth: true,
  run(context, { factor }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.scalePlane(plane(inputAt(inputs, 0), 0), count, factor, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function scaleFieldNode(field: GraphNode, factor: number): GraphNode {
  return graphNode('scaleField', { factor }, [field])
}
