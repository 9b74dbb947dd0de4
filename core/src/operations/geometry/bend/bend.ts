import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { pitchOf } from '../../../planes/grid'
import { inputAt, plane } from '../../plane'

export type BendParameters = {
  /** Photo px that a place is moved at most, to either side. */
  readonly reach: number
  /** The way along which it is moved, degrees counter-clockwise from the x axis. */
  readonly angle: number
}

/** The field is moved along one way, by as much as a second field (0-1) is above or below a half: a straight line becomes as jagged as that. */
export const bend: Operation<BendParameters> = {
  name: 'bend',
  need({ reach, angle }, rect, grid, kernels, index) {
    if (index > 0) return rect
    const [acrossX, acrossY] = wayOf(angle, kernels)
    const [x, y] = [Math.ceil(Math.abs(reach * acrossX) / grid.pitchX) + 1, Math.ceil(Math.abs(reach * acrossY) / grid.pitchY) + 1]
    return { x: rect.x - x, y: rect.y - y, width: rect.width + 2 * x, height: rect.height + 2 * y }
  },
  block: ({ reach }, grid) => (Math.abs(reach) / pitchOf(grid) > WIDE_REACH ? BLOCK : undefined),
  run(context, { reach, angle }, inputs, rect) {
    const { kernels, grid } = context
    const [field, by] = [inputAt(inputs, 0), inputAt(inputs, 1)]
    const [acrossX, acrossY] = wayOf(angle, kernels)
    const { x, y, width, height } = field.rect
    const out = context.plane(rect.width * rect.height)
    kernels.bendPlane(
      ...([plane(field, 0), width, height, rect.x - x, rect.y - y, plane(by, 0)] as const),
      ...([(reach * acrossX) / grid.pitchX, (reach * acrossY) / grid.pitchY, out, rect.width, rect.height] as const),
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

/** What reaches farther than this works on blocks, grid px: of a small one it would read far more than it gives. */
const WIDE_REACH = 128
const BLOCK = 1024

function wayOf(
  angle: number,
  { cosine, sine }: { cosine(radians: number): number; sine(radians: number): number },
): [x: number, y: number] {
  const radians = (angle * Math.PI) / 180
  return [cosine(radians), -sine(radians)]
}

/** `field` bent by another field, or `field` itself when nothing moves. */
export function bendNode(field: GraphNode, by: GraphNode, params: BendParameters): GraphNode {
  return params.reach === 0 ? field : graphNode('bend', params, [field, by])
}
