import type { GraphNode } from '../graph/node'
import type { Operation } from '../graph/operation'
import { orderOf } from '../graph/plan'
import { gaussianBlur } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { guidedCoefficients } from '../operations/blurs/guidedFilter/guidedFilter'
import { morphology } from '../operations/blurs/morphology/morphology'
import { coarserGrid, type Grid } from '../planes/grid'

// The operations as a whole are with the threads; the interface knows these by their names only, and `spread.test.ts` sees to it that none is missing.

/** Operations that read as far around every pixel. */
export const readsAround = { gaussianBlur, guidedCoefficients, morphology } as unknown as Readonly<Record<string, Operation | undefined>>

/** Operations that may read anywhere. All others read of their inputs what lies at the pixel itself. */
export const readsAnywhere: ReadonlySet<string> = new Set(
  [
    'lensDrops refraction bursts sceneLight sceneBrightness tintInLight motionBlur radialBlur polarWrap strip nearTo',
    'towards bend lineAtHalf place takeNoise mendSpots mirror cloudMask',
  ].flatMap((names) => names.split(' ')),
)

/** Pixels of a coarser grid that an enlarged one reads around each of its own. */
const ENLARGED_FROM = 2

/**
 * How far around a place that changes in some nodes the picture may change, px of the grid: 0 where only the place itself does.
 * @param changes whether a node is one of these
 * @returns undefined if that may be anywhere
 */
export function spreadOf(root: GraphNode, changes: (node: GraphNode) => boolean, grid: Grid): number | undefined {
  const spreads = new Map<string, number>()
  for (const node of orderOf(root)) {
    const from = Math.max(...node.inputs.map(({ key }) => spreads.get(key) ?? -1), changes(node) ? 0 : -1)
    if (from < 0) continue
    const own = changes(node) ? 0 : ownSpread(node, grid)
    if (own === undefined) return undefined
    spreads.set(node.key, from + own)
  }
  return spreads.get(root.key) ?? 0
}

function ownSpread({ operation, params }: GraphNode, grid: Grid): number | undefined {
  if (readsAnywhere.has(operation)) return undefined
  const wide = readsAround[operation]
  if (!wide?.need) return 0
  const pitch = wide.pitch?.(params) ?? 0
  const coarse = pitch > 0 && pitch < Infinity ? coarserGrid(grid, pitch) : undefined
  // What these need does not depend on where it is, nor on the kernels.
  const { x } = wide.need(params, { x: 0, y: 0, width: 1, height: 1 }, coarse ?? grid, undefined as never, 0)
  return coarse ? Math.ceil(((ENLARGED_FROM - x) * coarse.pitchX) / grid.pitchX) : -x
}
