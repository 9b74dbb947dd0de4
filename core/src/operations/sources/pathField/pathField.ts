import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { OutlineCorner } from '../../../model/corner'
import { flattenLine } from '../../masks/outlineMask/flattenPath'
import { withWidths, type WidePlace } from './pathWidths'

type PathParameters = {
  readonly lines: readonly (readonly WidePlace[])[]
  /** 0-1: how hard the edge is. */
  readonly hardness: number
}

/** Lines of light along paths, as a field: 1 along the middle. */
export const pathField: Operation<PathParameters> = {
  name: 'pathField',
  run({ kernels, grid, plane }, { lines, hardness }, _inputs, rect) {
    const count = rect.width * rect.height
    const out = plane(count)
    kernels.fill(out, count, 0)
    for (const line of lines) {
      line.forEach((place, index) => {
        const next = line[index + 1] ?? (line.length === 1 ? place : undefined)
        if (!next) return
        kernels.strokeSegment(
          ...([out, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const),
          ...([place.x, place.y, next.x, next.y, place.width / 2, next.width / 2, 1, 1, hardness] as const),
        )
      })
    }
    return { kind: 'field', rect, planes: [out] }
  },
}

/** Pieces of a side at least, so that it can grow thinner along the way. */
const PIECES = 16

interface LineStyle {
  /** Photo px. */
  readonly width: number
  /** 0-1: how much thinner the line is at its ends. */
  readonly taper: number
  readonly hardness: number
}

/** @param paths open Bézier paths; a path of one corner is a dot, one without is nothing */
export function pathFieldNode(paths: readonly (readonly OutlineCorner[])[], { width, taper, hardness }: LineStyle): GraphNode {
  const lines = paths.filter((corners) => corners.length > 0).map((corners) => withWidths(flattenLine(corners, PIECES), width, taper))
  return graphNode('pathField', { lines, hardness })
}
