import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import { inputAt, plane } from '../../plane'

export type PolarParameters = {
  /** The place it is wrapped around, photo px. */
  readonly x: number
  readonly y: number
  /** Distance at which the strip ends, photo px. */
  readonly reach: number
  /** Where the strip begins, degrees counter-clockwise from the x axis. */
  readonly turn: number
  /** Part of the strip, 0-1, over which its end goes over into its beginning. */
  readonly overlap: number
}

/** Side of the blocks that the strip is computed and kept in, grid px: every tile of what it is wrapped into reads some of it. */
const STRIP_BLOCK = 512

/** A field as a strip wrapped around a place: what lies across it becomes the angle, what lies down it the distance. Nothing beyond `reach`. */
export const polarWrap: Operation<PolarParameters> = {
  name: 'polarWrap',
  need: (params, rect, grid) => {
    const { near, far, from, to } = seenFrom(params, rect, grid)
    const { width, height } = grid
    const perReach = height / reachOn(grid, params)
    const [top, bottom] = [Math.floor(near * perReach) - 2, Math.ceil(far * perReach) + 2]
    const rows = { y: top, height: bottom - top }
    const all = { x: 0, width, ...rows }
    // Where a pixel begins and ends that is averaged over the angle.
    const half = near > 0 ? 0.5 / (TURN * near) : Infinity
    const [first, last] = [from - half, to + half]
    if (!Number.isFinite(half) || Math.floor(first) !== Math.floor(last)) return all
    const period = width * (1 - params.overlap)
    const left = Math.floor((first - Math.floor(first)) * period) - 2
    const right = Math.ceil((last - Math.floor(last)) * period) + 2
    // What goes over into the beginning lies at the other end.
    return left < params.overlap * width + 1 ? all : { x: left, width: right - left, ...rows }
  },
  run(context, params, inputs, rect) {
    const { kernels, grid } = context
    const { x, y, turn, overlap } = params
    const strip = inputAt(inputs, 0)
    const out = context.plane(rect.width * rect.height)
    kernels.polarWrap(
      ...([plane(strip, 0), strip.rect.x, strip.rect.y, strip.rect.width, grid.width, grid.height, out] as const),
      ...([rect.x, rect.y, rect.width, rect.height, x / grid.pitchX, y / grid.pitchY] as const),
      ...([reachOn(grid, params), (turn * Math.PI) / 180, overlap] as const),
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

function reachOn(grid: Grid, { reach }: PolarParameters): number {
  return Math.max(1, reach) / pitchOf(grid)
}

/** How near and how far a rectangle lies to the place, grid px within the reach, and between which angles it is seen from there, in turns from where the strip begins. */
function seenFrom(params: PolarParameters, rect: Rect, grid: Grid): { near: number; far: number; from: number; to: number } {
  const [x, y] = [params.x / grid.pitchX, params.y / grid.pitchY]
  const [left, right] = [rect.x - x, rect.x + rect.width - x]
  const [top, bottom] = [rect.y - y, rect.y + rect.height - y]
  const reach = reachOn(grid, params)
  const middle = Math.atan2(-(top + bottom) / 2, (left + right) / 2)
  // Corners against the middle, so that none is a turn off.
  const angles = [left, right].flatMap((dx) => [top, bottom].map((dy) => halfTurn(Math.atan2(-dy, dx) - middle)))
  const turned = (angle: number): number => (middle + angle) / TURN - params.turn / 360
  return {
    near: Math.min(reach, Math.hypot(Math.max(left, -right, 0), Math.max(top, -bottom, 0))),
    far: Math.min(reach, Math.hypot(Math.max(-left, right), Math.max(-top, bottom))),
    from: turned(Math.min(...angles)),
    to: turned(Math.max(...angles)),
  }
}

/** An angle between minus and plus half a turn, radians. */
function halfTurn(angle: number): number {
  return angle - TURN * Math.round(angle / TURN)
}

const TURN = 2 * Math.PI

/** A strip as it is, computed and kept in blocks: other tiles of what it is wrapped into read the same. */
export const strip: Operation<Record<string, never>> = {
  name: 'strip',
  block: () => STRIP_BLOCK,
  run({ kernels, plane: newPlane }, _params, inputs, rect) {
    const { width, height } = rect
    const out = newPlane(width * height)
    kernels.copyPart(plane(inputAt(inputs, 0), 0), width, 0, 0, out, width, 0, 0, width, height)
    return { kind: 'field', rect, planes: [out] }
  },
}

/** Something of the strip is left where all of it would be overlap. */
const MOST_OVERLAP = 0.99

export function polarWrapNode(field: GraphNode, params: PolarParameters): GraphNode {
  return graphNode('polarWrap', { ...params, overlap: Math.min(MOST_OVERLAP, params.overlap) }, [graphNode('strip', {}, [field])])
}
