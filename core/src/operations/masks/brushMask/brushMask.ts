import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import type { BrushStroke } from '../../../masks/brush/definition'
import { pitchOf } from '../../../planes/grid'
import { intersect, type Rect } from '../../../planes/rect'
import { rgbFromHex } from '../../../colour/hex'
import { inputAt, plane } from '../../plane'
import { oklabOfColour, oklabPlanes } from '../similarMask/oklabPlanes'

type BrushParameters = { readonly strokes: readonly BrushStroke[] }

/** Strokes of one node; a further stroke recomputes at most so many. */
const STROKES_TOGETHER = 12

/**
 * Strokes laid over a mask (the input; black without one), in their order. A stroke is a disc moved along its points, of its full strength
 * wherever it passes, however often; it moves the mask towards its level by its flow. The eraser's level is 0. One that stops at edges keeps to the colours of its guides; then the first
 * input is the tones that they are compared with.
 */
export const brushMask: Operation<BrushParameters> = {
  name: 'brushMask',
  run(context, { strokes }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const out = context.plane(count)
    const guided = isGuided(strokes)
    const below = inputs[guided ? 1 : 0]
    if (below) kernels.copyExtended(plane(below, 0), rect.width, rect.height, 0, 0, out, rect.width, rect.height)
    else kernels.fill(out, count, 0)
    const cover = context.scratch(count * 4)
    const oklab = guided ? oklabPlanes(context, inputAt(inputs, 0)) : undefined
    for (const stroke of strokes) {
      if (!touches(context, stroke, rect)) continue
      kernels.fill(cover, count, 0)
      drawStroke(context, stroke, rect, cover)
      if (oklab && stroke.guides.length > 0) keepToGuides(context, stroke, oklab, rect, cover)
      kernels.layStroke(out, cover, count, stroke.erase ? 0 : stroke.level / 100, out)
    }
    return { kind: 'mask', rect, planes: [out] }
  },
}

/** Nodes of bundles by their last stroke: hashing thousands of points again and again would take longer than drawing them. */
const bundles = new WeakMap<BrushStroke, { readonly strokes: readonly BrushStroke[]; readonly below: string; readonly node: GraphNode }>()

/** Strokes in small bundles, each on top of the one before, so that a new stroke leaves the earlier ones as they are. */
/** @param tones what strokes that stop at edges are compared with */
export function brushMaskNode(strokes: readonly BrushStroke[], tones?: GraphNode): GraphNode {
  let node = strokes.length === 0 ? graphNode('brushMask', { strokes }) : undefined
  for (let i = 0; i < strokes.length; i += STROKES_TOGETHER) node = bundleNode(strokes.slice(i, i + STROKES_TOGETHER), node, tones)
  if (!node) throw new Error('A brush mask has no node.')
  return node
}

function bundleNode(strokes: readonly BrushStroke[], under: GraphNode | undefined, tones: GraphNode | undefined): GraphNode {
  const inputs = [...(tones && isGuided(strokes) ? [tones] : []), ...(under ? [under] : [])]
  const below = inputs.map(({ key }) => key).join(' ')
  const last = strokes.at(-1)
  const known = last && bundles.get(last)
  const same = known?.strokes.length === strokes.length && known.strokes.every((stroke, index) => stroke === strokes[index])
  if (known && same && known.below === below) return known.node
  const node = graphNode('brushMask', { strokes }, inputs)
  // Only frozen strokes, such as those of the history, are sure to stay as they are.
  if (last && strokes.every((stroke) => Object.isFrozen(stroke))) bundles.set(last, { strokes, below, node })
  return node
}

function isGuided(strokes: readonly BrushStroke[]): boolean {
  return strokes.some(({ guides }) => guides.length > 0)
}

interface Dab {
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly strength: number
}

function dabAt({ points, size, flow, pressure }: BrushStroke, index: number): Dab {
  const force = points[index + 2] ?? 1
  const sized = pressure === 'size' || pressure === 'both' ? force : 1
  const flowing = pressure === 'flow' || pressure === 'both' ? force : 1
  return { x: points[index] ?? 0, y: points[index + 1] ?? 0, radius: (size / 2) * sized, strength: (flow / 100) * flowing }
}

function drawStroke(context: RunContext, stroke: BrushStroke, rect: Rect, cover: number): void {
  const { kernels, grid } = context
  const at = [rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const
  const last = Math.max(3, stroke.points.length - 3)
  for (let i = 0; i < last; i += 3) {
    const a = dabAt(stroke, i)
    const b = i + 3 < stroke.points.length ? dabAt(stroke, i + 3) : a
    const ends = [a.x, a.y, b.x, b.y, a.radius, b.radius, a.strength, b.strength] as const
    kernels.strokeSegment(cover, ...at, ...ends, stroke.hardness / 100)
  }
}

/** Takes out of a stroke what has not the colour that it keeps to nearby. */
function keepToGuides(
  context: RunContext,
  { guides, size, tolerance }: BrushStroke,
  oklab: readonly [number, number, number],
  rect: Rect,
  cover: number,
): void {
  const { kernels, grid } = context
  const count = rect.width * rect.height
  const kept = context.scratch(count * 4)
  kernels.fill(kept, count, 0)
  const at = [rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const
  // Full as far as the stroke reaches.
  const reach = size + 2 * pitchOf(grid)
  for (const { x, y, colour } of guides) {
    if (!isNear(x / grid.pitchX, y / grid.pitchY, reach / pitchOf(grid), rect)) continue
    kernels.similarTo(
      ...oklab,
      ...at,
      x,
      y,
      ...oklabOfColour(context, rgbFromHex(colour)),
      reach,
      Math.max(0.005, (2 * tolerance) / 100),
      kept,
    )
  }
  kernels.multiplyPlanes(cover, kept, count, cover)
}

function isNear(x: number, y: number, reach: number, rect: Rect): boolean {
  return x > rect.x - reach && x < rect.x + rect.width + reach && y > rect.y - reach && y < rect.y + rect.height + reach
}

/** Whether a stroke may reach into a rectangle of the grid. */
function touches(context: RunContext, { points, size }: BrushStroke, rect: Rect): boolean {
  const { pitchX, pitchY } = context.grid
  const reach = size / 2 + 2 * pitchOf(context.grid)
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = 0; i + 2 < points.length; i += 3) {
    left = Math.min(left, points[i] ?? 0)
    right = Math.max(right, points[i] ?? 0)
    top = Math.min(top, points[i + 1] ?? 0)
    bottom = Math.max(bottom, points[i + 1] ?? 0)
  }
  const box = {
    x: (left - reach) / pitchX,
    y: (top - reach) / pitchY,
    width: (right - left + 2 * reach) / pitchX,
    height: (bottom - top + 2 * reach) / pitchY,
  }
  const shared = intersect(box, rect)
  return shared.width > 0 && shared.height > 0
}
