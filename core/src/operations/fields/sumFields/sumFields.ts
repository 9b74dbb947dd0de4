import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { plane } from '../../plane'

/** Intensities of independent fields added up; their variances inside a pixel add up too. */
export const sumFields: Operation = {
  name: 'sumFields',
  keepsSmooth: true,
  run(context, _params, inputs, rect) {
    const count = rect.width * rect.height
    const planeCount = Math.max(1, ...inputs.map((input) => input.planes.length))
    const planes = Array.from({ length: planeCount }, (_, index) => {
      const sum = context.plane(count)
      context.kernels.fill(sum, count, 0)
      for (const input of inputs) {
        if (index < input.planes.length) context.kernels.addPlanes(sum, plane(input, index), count, sum)
      }
      return sum
    })
    return { kind: 'field', rect, planes }
  },
}

export function sumFieldsNode(fields: readonly GraphNode[]): GraphNode {
  const [only] = fields
  return fields.length === 1 && only ? only : graphNode('sumFields', {}, fields)
}
