import type { Evaluator, Keep } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { plane } from '../operations/plane'
import type { Grid } from '../planes/grid'
import type { Rect } from '../planes/rect'
import { withScratch } from '../planes/scratch'

/** Strength of the dither in codes: below half a code, so that a value that is a code stays that code. */
const DITHER = 0.96

/** Bits of a channel. */
export type BitDepth = 8 | 16

/** Interleaved RGBA of one rectangle of the grid: of 8 bits with dither, or of 16, the lower byte first. */
export function renderTile(
  evaluator: Evaluator,
  node: GraphNode,
  grid: Grid,
  rect: Rect,
  keep?: Keep,
  depth: BitDepth = 8,
): Uint8ClampedArray<ArrayBuffer> {
  const { kernels } = evaluator
  const tones = evaluator.evaluate(node, rect, grid, keep)
  const count = rect.width * rect.height
  const bytes = (count * depth) / 2
  const pixels = withScratch(kernels, (scratch) => {
    const out = scratch(bytes)
    const [red, green, blue] = [plane(tones, 0), plane(tones, 1), plane(tones, 2)]
    if (depth === 8) kernels.rgba8FromPlanes(red, green, blue, rect.width, rect.height, rect.x, rect.y, DITHER, out)
    else kernels.rgba16FromPlanes(red, green, blue, count, out)
    return new Uint8ClampedArray(kernels.memory.buffer.slice(out, out + bytes) as ArrayBuffer)
  })
  evaluator.trim()
  return pixels
}
