import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import type { OutlinePath } from '../../../masks/outline/definition'
import type { Rect } from '../../../planes/rect'
import { maskJoins } from '../combineMasks/combineMasks'
import { flattenPath, type Polygon } from './flattenPath'

type OutlineParameters = { readonly outlines: readonly Polygon[]; readonly holes: readonly Polygon[] }

/**
 * Open inside outlines and shut in their holes, by the non-zero winding rule: an outline that crosses itself is open in all that it
 * goes around. Edges are covered in steps of 1/4096 of a pixel.
 */
export const outlineMask: Operation<OutlineParameters> = {
  name: 'outlineMask',
  run(context, { outlines, holes }, _inputs, rect) {
    const out = fill(context, outlines, rect, context.plane(rect.width * rect.height))
    if (holes.length > 0) {
      const count = rect.width * rect.height
      const hole = fill(context, holes, rect, context.scratch(count * 4))
      context.kernels.combineMasks(out, hole, count, maskJoins.indexOf('subtract'), 1, out)
    }
    return { kind: 'mask', rect, planes: [out] }
  },
}

const nodes = new WeakMap<readonly OutlinePath[], GraphNode>()

export function outlineMaskNode(paths: readonly OutlinePath[]): GraphNode {
  const known = nodes.get(paths)
  if (known) return known
  const polygons = (hole: boolean): Polygon[] =>
    paths.filter((path) => path.hole === hole && path.corners.length > 2).map(({ corners }) => flattenPath(corners))
  const node = graphNode('outlineMask', { outlines: polygons(false), holes: polygons(true) })
  if (Object.isFrozen(paths)) nodes.set(paths, node)
  return node
}

function fill(context: RunContext, polygons: readonly Polygon[], rect: Rect, out: number): number {
  const { kernels, grid } = context
  const count = polygons.reduce((sum, polygon) => sum + polygon.length / 2, 0)
  const segments = context.scratch(count * 32 + 32)
  const values = new Float64Array(kernels.memory.buffer, segments, count * 4)
  let at = 0
  for (const polygon of polygons) {
    for (let i = 0; i < polygon.length; i += 2) {
      const j = (i + 2) % polygon.length
      const ends = [polygon[i], polygon[i + 1], polygon[j], polygon[j + 1]] as number[]
      values.set(
        ends.map((value, axis) => value / (axis % 2 === 0 ? grid.pitchX : grid.pitchY)),
        at,
      )
      at += 4
    }
  }
  const crossings = context.scratch(count * 8 + 8)
  const active = context.scratch(count * 4 + 4)
  const row = context.scratch((rect.width + 2) * 4)
  kernels.fillOutline(segments, count, rect.x, rect.y, rect.width, rect.height, crossings, active, row, out)
  return out
}
