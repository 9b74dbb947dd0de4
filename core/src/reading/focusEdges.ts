import type { Kernels } from '../graph/operation'
import { planesOfSide, type CoarsePlanes } from '../photo/coarsePlanes'
import type { PhotoData } from '../photo/photoData'
import type { Size } from '../planes/grid'
import type { Steps } from './steps'

/** Edges are measured on a photo whose longer side is so long, px; in a smaller one there is less to be told from them. */
const SIDE = 1024
/** The blur that edges are compared with, px, and the least edges that count, roots of linear light for a pixel: noise is sharp. */
const SIGMA = 1.5
const LEAST_SHARP = 0.012
const LEAST_SOFT = 0.006
/** An edge is sharp up to this width, and out of focus from that on, px: the standard deviation of the Gaussian that would make it of a step. */
const SHARP = 1.3
const SOFT = 2.6

/** Edges in focus and edges out of it in each place, the sum of how strong they are. */
export interface FocusEdges {
  readonly sharp: Float32Array
  readonly soft: Float32Array
}

/**
 * Edges in and out of focus, on a grid of a given size: an edge that is blurred again loses the less of its slope the more blurred it was. Width of a step from the ratio of the slopes before and after
 * (Zhuo and Sim 2011, "Defocus map estimation from a single image", equation 5, from memory).
 */
export function* focusEdges(kernels: Kernels, photo: PhotoData, size: Size): Steps<FocusEdges> {
  const fine = planesOfSide(kernels, photo, SIDE)
  yield
  return yield* focusEdgesOf(fine, size)
}

/** @param fine the photo at the size at which edges are measured, linear */
export function* focusEdgesOf({ width, height, planes: [red, green, blue] }: CoarsePlanes, size: Size): Steps<FocusEdges> {
  const light = red.map((value, i) => Math.sqrt(Math.max(0, (value + (green[i] ?? 0) + (blue[i] ?? 0)) / 3)))
  yield
  const again = blurred(light, width, height)
  yield
  const [sharp, soft] = [new Float32Array(size.width * size.height), new Float32Array(size.width * size.height)]
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x
      const slope = slopeAt(again, width, i)
      if (slope < LEAST_SOFT || !isRidge(again, width, i, slope)) continue
      const ratio = slopeAt(light, width, i) / slope
      const spread = ratio > 1 ? SIGMA / Math.sqrt(ratio * ratio - 1) : Infinity
      const plane = spread >= SOFT ? soft : spread <= SHARP && slope >= LEAST_SHARP ? sharp : undefined
      if (!plane) continue
      const cell = Math.floor((y * size.height) / height) * size.width + Math.floor((x * size.width) / width)
      plane[cell] = (plane[cell] ?? 0) + slope
    }
  }
  return { sharp, soft }
}

function slopeAt(plane: Float32Array, width: number, i: number): number {
  const across = (plane[i + 1] as number) - (plane[i - 1] as number)
  const down = (plane[i + width] as number) - (plane[i - width] as number)
  return Math.sqrt(across * across + down * down) / 2
}

/** Whether a slope is the steepest across its edge: only there its width can be told. */
function isRidge(plane: Float32Array, width: number, i: number, slope: number): boolean {
  const across = Math.abs((plane[i + 1] ?? 0) - (plane[i - 1] ?? 0)) >= Math.abs((plane[i + width] ?? 0) - (plane[i - width] ?? 0))
  const step = across ? 1 : width
  return slope >= slopeAt(plane, width, i - step) && slope >= slopeAt(plane, width, i + step)
}

/** A Gaussian of `SIGMA`; the border repeats. */
function blurred(plane: Float32Array, width: number, height: number): Float32Array {
  const reach = Math.ceil(3 * SIGMA)
  const bell = Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-((k - reach) ** 2) / (2 * SIGMA * SIGMA)))
  const whole = bell.reduce((sum, value) => sum + value, 0)
  const [down, out] = [new Float32Array(plane.length), new Float32Array(plane.length)]
  // Tap by tap over whole rows, in the order in which they lie in memory.
  for (let y = 0; y < height; y++) {
    for (const [k, part] of bell.entries()) {
      const [to, from] = [y * width, Math.max(0, Math.min(height - 1, y + k - reach)) * width]
      for (let x = 0; x < width; x++) down[to + x] = (down[to + x] as number) + (part / whole) * (plane[from + x] as number)
    }
  }
  const line = new Float32Array(width + 2 * reach)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < line.length; x++) line[x] = down[y * width + Math.max(0, Math.min(width - 1, x - reach))] as number
    for (const [k, part] of bell.entries()) {
      for (let x = 0; x < width; x++) out[y * width + x] = (out[y * width + x] as number) + (part / whole) * (line[x + k] as number)
    }
  }
  return out
}
