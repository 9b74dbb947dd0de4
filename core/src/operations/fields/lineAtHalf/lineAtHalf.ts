import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { expand } from '../../../planes/rect'
import { inputAt, plane } from '../../plane'

type LineParameters = {
  /** How far from a half the field is where the line ends, 0-1 of the field. */
  readonly reach: number
}

/** The line along which a field is a half: 1 there, falling evenly to 0. A pixel takes the mean of what it covers of it, by how steep the field is there, so that a line thinner than a pixel is a faint one. */
export const lineAtHalf: Operation<LineParameters> = {
  name: 'lineAtHalf',
  need: (_params, rect) => expand(rect, 1),
  run(context, { reach }, inputs, rect) {
    const { kernels } = context
    const field = inputAt(inputs, 0)
    const [width, height] = [rect.width + 2, rect.height + 2]
    const around = context.scratch(width * height * 4)
    const { x, y } = field.rect
    kernels.copyExtended(plane(field, 0), field.rect.width, field.rect.height, rect.x - 1 - x, rect.y - 1 - y, around, width, height)
    const out = context.plane(rect.width * rect.height)
    kernels.lineAtHalf(around, rect.width, rect.height, reach, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function lineAtHalfNode(field: GraphNode, reach: number): GraphNode {
  return graphNode('lineAtHalf', { reach }, [field])
}
