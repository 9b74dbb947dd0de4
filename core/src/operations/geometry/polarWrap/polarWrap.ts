import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { gridBounds, pitchOf } from '../../../planes/grid'
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

/** A field as a strip wrapped around a place: what lies across it becomes the angle, what lies down it the distance. Nothing beyond `reach`. */
export const polarWrap: Operation<PolarParameters> = {
  name: 'polarWrap',
  need: (_params, _rect, grid) => gridBounds(grid),
  run(context, { x, y, reach, turn, overlap }, inputs, rect) {
    const { kernels, grid } = context
    const strip = inputAt(inputs, 0)
    const { width, height } = strip.rect
    const out = context.plane(rect.width * rect.height)
    kernels.polarWrap(
      ...([plane(strip, 0), width, height, out, rect.x, rect.y, rect.width, rect.height] as const),
      ...([x / grid.pitchX, y / grid.pitchY, Math.max(1, reach) / pitchOf(grid), (turn * Math.PI) / 180, overlap] as const),
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

/** A strip as it is, computed as one piece: every tile of what it is wrapped into reads all of it. */
export const wholeStrip: Operation<Record<string, never>> = {
  name: 'wholeStrip',
  block: (_params, { width, height }) => Math.max(width, height),
  run({ kernels, plane: newPlane }, _params, inputs, rect) {
    const strip = inputAt(inputs, 0)
    const { width, height } = rect
    const out = newPlane(width * height)
    kernels.copyPart(plane(strip, 0), width, 0, 0, out, width, 0, 0, width, height)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function polarWrapNode(strip: GraphNode, params: PolarParameters): GraphNode {
  return graphNode('polarWrap', params, [graphNode('wholeStrip', {}, [strip])])
}
