import type { Kernels } from '../../../graph/operation'
import { coarsePlanes } from '../../../photo/coarsePlanes'
import type { PhotoData } from '../../../photo/photoData'
import { solve } from './solve'

/** A horizon: a place on it, photo px, and the unit vector up from it. */
export interface Horizon {
  readonly x: number
  readonly y: number
  readonly upX: number
  readonly upY: number
}

/** Twelve coefficients for each of red, green, blue: see `skyBasis`. */
export type SkyModel = readonly [readonly number[], readonly number[], readonly number[]]

const LARGEST_SIDE = 128
const ROUNDS = 9
const PARTS = 12

/**
 * What a clear or evenly clouded sky is made of: slow changes across (`u`, -1 to 1) and up (`v`, 0 at the horizon to 1), and a glow low down that falls
 * off quickly. The kernel that evaluates it has the same order.
 */
function skyBasis(u: number, v: number): number[] {
  const glow = 1 / (1 + 9 * v)
  return [1, u, u * u, v, v * v, v * v * v, u * v, u * u * v, u * v * v, glow, u * glow, u * u * glow]
}

/** How a place lies in the sky. */
function skyPlace(
  x: number,
  y: number,
  horizon: Horizon,
  photo: { readonly width: number; readonly height: number },
): [u: number, v: number] {
  const v = ((x - horizon.x) * horizon.upX + (y - horizon.y) * horizon.upY) / photo.height
  return [(2 * x) / photo.width - 1, v]
}

/** Places above the horizon, one behind the other: the parts of `skyBasis` there, and the roots of linear red, green and blue. */
interface Samples {
  readonly count: number
  readonly basis: Float64Array
  readonly values: Float64Array
}

/**
 * The sky of a photo: a smooth surface fitted to each channel above the horizon, at one fixed reduction of the photo. What does not lie on it counts less
 * and less from round to round (iteratively reweighted least squares, Holland and Welsch 1977, with the weights of Geman and McClure 1985; from
 * memory).
 */
export function fitSky(kernels: Kernels, photo: PhotoData, horizon: Horizon): SkyModel {
  const samples = samplesAbove(kernels, photo, horizon)
  const weights = startWeights(samples)
  let model = fit(samples, weights)
  for (let round = 0, strictness = 0.14; round < ROUNDS; round++, strictness *= 0.7) {
    reweigh(samples, model.flat(), Math.max(0.02, strictness), weights)
    model = fit(samples, weights)
  }
  return model
}

/** Weights from how far each place lies off the surfaces, as a part of `scale`. */
function reweigh({ count, basis, values }: Samples, model: readonly number[], scale: number, weights: Float64Array): void {
  for (let i = 0; i < count; i++) {
    let farthest = 0
    for (let channel = 0; channel < 3; channel++) {
      let off = values[3 * i + channel] ?? 0
      for (let k = 0; k < PARTS; k++) off -= (basis[PARTS * i + k] ?? 0) * (model[PARTS * channel + k] ?? 0)
      // What stands before a sky is nearly always darker than it.
      farthest = Math.max(farthest, off < 0 ? -1.6 * off : off)
    }
    const r = farthest / scale
    weights[i] = 1 / ((1 + r * r) * (1 + r * r))
  }
}

function fit({ count, basis, values }: Samples, weights: Float64Array): SkyModel {
  const matrix = new Float64Array(PARTS * PARTS)
  const sides = new Float64Array(3 * PARTS)
  for (let i = 0; i < count; i++) {
    const [row, own] = [PARTS * i, weights[i] ?? 0]
    for (let a = 0; a < PARTS; a++) {
      const weighted = own * (basis[row + a] ?? 0)
      for (let b = 0; b <= a; b++) matrix[PARTS * a + b] = (matrix[PARTS * a + b] ?? 0) + weighted * (basis[row + b] ?? 0)
      for (let channel = 0; channel < 3; channel++) {
        sides[PARTS * channel + a] = (sides[PARTS * channel + a] ?? 0) + weighted * (values[3 * i + channel] ?? 0)
      }
    }
  }
  const rows = Array.from({ length: PARTS }, (_, a) =>
    Array.from({ length: PARTS }, (__, b) => {
      const value = matrix[PARTS * Math.max(a, b) + Math.min(a, b)] ?? 0
      // A little of the identity, so that a sky with few places in it is defined too.
      return a === b ? value + 1e-3 : value
    }),
  )
  return [0, 1, 2].map((channel) => solve(rows, [...sides.subarray(PARTS * channel, PARTS * (channel + 1))])) as unknown as SkyModel
}

function samplesAbove(kernels: Kernels, photo: PhotoData, horizon: Horizon): Samples {
  const { width, height, planes } = coarsePlanes(kernels, photo, LARGEST_SIDE)
  const basis = new Float64Array(PARTS * width * height)
  const values = new Float64Array(3 * width * height)
  let count = 0
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [u, v] = skyPlace(((x + 0.5) * photo.width) / width, ((y + 0.5) * photo.height) / height, horizon, photo)
      if (v <= 0) continue
      basis.set(skyBasis(u, v), PARTS * count)
      planes.forEach((plane, channel) => (values[3 * count + channel] = Math.sqrt(Math.max(0, plane[y * width + x] ?? 0))))
      count++
    }
  }
  return { count, basis, values }
}

/** At first the brighter half of what lies equally high counts, if it is not much darker than what lies higher: a sky hardly ever darkens downwards. */
function startWeights({ count, basis, values }: Samples): Float64Array {
  const heightOf = (i: number): number => Math.min(49, Math.floor((basis[PARTS * i + 3] ?? 0) * 50))
  const brightness = Float64Array.from(
    { length: count },
    (_, i) => (values[3 * i] ?? 0) + (values[3 * i + 1] ?? 0) + (values[3 * i + 2] ?? 0),
  )
  const rows = Array.from({ length: 50 }, (): number[] => [])
  brightness.forEach((value, i) => rows[heightOf(i)]?.push(value))
  const middles = rows.map((row) => row.sort((a, b) => a - b)[Math.floor(row.length / 2)] ?? 0)
  const least = middles.map((middle, row) => Math.max(middle - 0.05, 0.8 * Math.max(...middles.slice(row))))
  return brightness.map((value, i) => (value >= (least[heightOf(i)] ?? 0) ? 1 : 0.02))
}
