import type { Kernels } from '../../graph/operation'
import { coarsePlanes } from '../../photo/coarsePlanes'
import type { PhotoData } from '../../photo/photoData'
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

const LARGEST_SIDE = 320
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

interface Samples {
  readonly basis: readonly (readonly number[])[]
  /** Roots of linear red, green and blue. */
  readonly values: readonly (readonly [number, number, number])[]
}

/**
 * The sky of a photo: a smooth surface fitted to each channel above the horizon, at one fixed reduction of the photo. What does not lie on it counts less
 * and less from round to round (iteratively reweighted least squares, Holland and Welsch 1977, with the weights of Geman and McClure 1985; from
 * memory).
 */
export function fitSky(kernels: Kernels, photo: PhotoData, horizon: Horizon): SkyModel {
  const samples = samplesAbove(kernels, photo, horizon)
  let weights = startWeights(samples)
  let model = fit(samples, weights)
  for (let round = 0, strictness = 0.14; round < ROUNDS; round++, strictness *= 0.7) {
    const scale = Math.max(0.02, strictness)
    weights = samples.values.map((value, i) => {
      const off = value.map((channel, c) => channel - dot(samples.basis[i] ?? [], model[c] ?? []))
      // What stands before a sky is nearly always darker than it.
      const r = Math.max(...off.map((d) => (d < 0 ? -1.6 * d : d))) / scale
      return 1 / (1 + r * r) ** 2
    })
    model = fit(samples, weights)
  }
  return model
}

function dot(a: readonly number[], b: readonly number[]): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += (a[i] ?? 0) * (b[i] ?? 0)
  return sum
}

function fit({ basis, values }: Samples, weights: readonly number[]): SkyModel {
  const matrix = Array.from({ length: PARTS }, () => new Array<number>(PARTS).fill(0))
  const sides = [0, 1, 2].map(() => new Array<number>(PARTS).fill(0))
  basis.forEach((row, i) => {
    const w = weights[i] ?? 0
    for (let a = 0; a < PARTS; a++) {
      const wa = w * (row[a] ?? 0)
      const line = matrix[a] ?? []
      for (let b = 0; b <= a; b++) line[b] = (line[b] ?? 0) + wa * (row[b] ?? 0)
      sides.forEach((side, c) => (side[a] = (side[a] ?? 0) + wa * (values[i]?.[c] ?? 0)))
    }
  })
  // A little of the identity, so that a sky with few places in it is defined too.
  for (let a = 0; a < PARTS; a++) {
    for (let b = a + 1; b < PARTS; b++) matrix[a]![b] = matrix[b]![a] ?? 0
    matrix[a]![a] = (matrix[a]![a] ?? 0) + 1e-3
  }
  return sides.map((side) => solve(matrix, side)) as unknown as SkyModel
}

function samplesAbove(kernels: Kernels, photo: PhotoData, horizon: Horizon): Samples {
  const level = coarsePlanes(kernels, photo, LARGEST_SIDE)
  const basis: number[][] = []
  const values: [number, number, number][] = []
  for (let y = 0; y < level.height; y++) {
    for (let x = 0; x < level.width; x++) {
      const [u, v] = skyPlace(((x + 0.5) * photo.width) / level.width, ((y + 0.5) * photo.height) / level.height, horizon, photo)
      if (v <= 0) continue
      const i = y * level.width + x
      basis.push(skyBasis(u, v))
      values.push(level.planes.map((plane) => Math.sqrt(Math.max(0, plane[i] ?? 0))) as [number, number, number])
    }
  }
  return { basis, values }
}

/** At first the brighter half of what lies equally high counts, if it is not much darker than what lies higher: a sky hardly ever darkens downwards. */
function startWeights({ basis, values }: Samples): number[] {
  const heightOf = (i: number): number => Math.min(49, Math.floor((basis[i]?.[3] ?? 0) * 50))
  const brightness = values.map((value) => value[0] + value[1] + value[2])
  const rows = Array.from({ length: 50 }, (): number[] => [])
  brightness.forEach((value, i) => rows[heightOf(i)]?.push(value))
  const middles = rows.map((row) => row.sort((a, b) => a - b)[Math.floor(row.length / 2)] ?? 0)
  const least = middles.map((middle, row) => Math.max(middle - 0.05, 0.8 * Math.max(...middles.slice(row))))
  return brightness.map((value, i) => (value >= (least[heightOf(i)] ?? 0) ? 1 : 0.02))
}
