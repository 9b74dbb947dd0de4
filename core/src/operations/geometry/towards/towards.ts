import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { pitchOf } from '../../../planes/grid'
import { expand } from '../../../planes/rect'
import { inputAt, plane } from '../../plane'

type TowardsParameters = {
  readonly x: number
  readonly y: number
  /** Photo px. */
  readonly step: number
}

/** A field or mask read a step nearer to a place, photo px. */
export const towards: Operation<TowardsParameters> = {
  name: 'towards',
  need: ({ step }, rect, grid) => expand(rect, Math.ceil(step / Math.min(grid.pitchX, grid.pitchY)) + 1),
  run(context, { x, y, step }, inputs, rect) {
    const { kernels, grid } = context
    const input = inputAt(inputs, 0)
    const from = input.rect
    const picture = context.scratch(from.width * from.height * 16)
    kernels.interleave(plane(input, 0), 0, 0, 0, from.width * from.height, picture)
    const out = context.plane(rect.width * rect.height)
    kernels.towards(
      ...([picture, from.x, from.y, from.width, from.height, out, rect.x, rect.y, rect.width, rect.height] as const),
      ...([x / grid.pitchX, y / grid.pitchY, step / pitchOf(grid)] as const),
    )
    return { kind: input.kind, rect, planes: [out] }
  },
}

export function towardsNode(input: GraphNode, params: TowardsParameters): GraphNode {
  return graphNode('towards', params, [input])
}
