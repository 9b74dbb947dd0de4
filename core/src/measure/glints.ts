import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { plane } from '../operations/plane'
import { gridAt, gridBounds, type Size } from '../planes/grid'
import { withScratch } from '../planes/scratch'

/** The brightest small spot of a picture: its middle in photo px, and how strongly it stands out, 1 for the strongest. */
export interface FoundGlint {
  readonly x: number
  readonly y: number
  readonly strength: number
}

interface GlintSearch {
  readonly most: number
  /** Least distance between two of them, photo px. */
  readonly apart: number
}

const SEARCHED_SIDE = 1500
/** A spot is small against this, px of the searched picture. */
const AROUND = 9
/** It stands out from its surroundings by at least this linear luminance. */
const LEAST = 0.02

/** The brightest small spots of a picture, strongest first: maxima of luminance over its surroundings, no two nearer to each other than `apart`. Taken at one fixed scale. */
export function findGlints(evaluator: Evaluator, tones: GraphNode, photo: Size, { most, apart }: GlintSearch): FoundGlint[] {
  const grid = gridAt(photo, Math.min(1, SEARCHED_SIDE / Math.max(photo.width, photo.height)))
  const bounds = gridBounds(grid)
  const luminanceOf = (node: GraphNode): Float32Array =>
    withScratch(evaluator.kernels, (scratch) => {
      const value = evaluator.evaluate(node, bounds, grid)
      const count = bounds.width * bounds.height
      const [red = 0, green = 0, blue = 0] = [0, 1, 2].map((channel) => {
        const linear = scratch(count * 4)
        evaluator.kernels.decodePlane(plane(value, channel), linear, count)
        return linear
      })
      evaluator.kernels.luminancePlane(red, green, blue, count, red)
      return new Float32Array(evaluator.kernels.memory.buffer, red, count).slice()
    })
  const sharp = luminanceOf(tones)
  const around = luminanceOf(gaussianBlurNode(tones, AROUND * grid.pitchX))
  const contrast = sharp.map((value, i) => value - (around[i] ?? 0))
  const taken: { x: number; y: number; strength: number }[] = []
  for (const { x, y, value } of maximaOf(contrast, bounds.width, bounds.height)) {
    const place = { x: (x + 0.5) * grid.pitchX, y: (y + 0.5) * grid.pitchY, strength: value }
    if (taken.every((other) => (other.x - place.x) ** 2 + (other.y - place.y) ** 2 >= apart * apart)) taken.push(place)
    if (taken.length >= most) break
  }
  const strongest = taken[0]?.strength ?? 1
  return taken.map(({ x, y, strength }) => ({ x, y, strength: strength / strongest }))
}

/** Pixels that none of their neighbours exceeds, strongest first. */
function maximaOf(values: Float32Array, width: number, height: number): { x: number; y: number; value: number }[] {
  const found: { x: number; y: number; value: number }[] = []
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const value = values[i] ?? 0
      if (value < LEAST) continue
      const higher = [-width - 1, -width, -width + 1, -1].some((step) => (values[i + step] ?? 0) >= value)
      const atLeast = [1, width - 1, width, width + 1].some((step) => (values[i + step] ?? 0) > value)
      if (!higher && !atLeast) found.push({ x, y, value })
    }
  }
  return found.sort((a, b) => b.value - a.value)
}
