import { skyEnds } from './readHorizon'
import type { Place } from './readLight'
import type { SmallPhoto } from './smallPhoto'

/** A row counts if it shows sky on so much of the width. */
const LEAST_OF_ROW = 0.4
/** So many rows have to, as a part of the height. */
const LEAST_ROWS = 0.08
/** The sky is so many times as bright at one border as at the other, and that explains so much of what changes along its rows. */
const LEAST_RATIO = 1.7
const LEAST_EXPLAINED = 0.55
/** How far beyond the border the light is taken to be, and how much of the width beside the border says how high: parts of the width. */
const BEYOND = 0.2
const BESIDE = 0.12

/**
 * A sun beyond the left or right border, if the sky brightens towards it all the way: the slope of the logarithm of its light along its rows, by least squares with a mean of its own
 * for each row, since every sky changes from above to below. How far beyond is not to be seen. As parts of width and height. Common practice; no source.
 */
export function lightBeyond(photo: SmallPhoto, sky: Uint8Array): Place | undefined {
  const { width, height } = photo
  const rows = Array.from({ length: height }, (_, y) => skyOfRow(photo, sky, y)).filter(({ length }) => length > LEAST_OF_ROW * width)
  if (rows.length < LEAST_ROWS * height) return undefined
  const { slope, explained } = slopeAlong(rows)
  if (Math.abs(slope) < Math.log(LEAST_RATIO) || explained < LEAST_EXPLAINED) return undefined
  const right = slope > 0
  return { x: right ? 1 + BEYOND : -BEYOND, y: brightestRow(photo, sky, right) / height }
}

/** Places along the width, -0.5 to 0.5, and the logarithm of light there. */
type Row = readonly (readonly [u: number, tone: number])[]

function skyOfRow({ width, light }: SmallPhoto, sky: Uint8Array, y: number): Row {
  const row: [number, number][] = []
  for (let x = 0; x < width; x++) {
    const i = y * width + x
    if (sky[i]) row.push([(x + 0.5) / width - 0.5, 2 * Math.log(Math.max(0.02, light[i] ?? 0))])
  }
  return row
}

function slopeAlong(rows: readonly Row[]): { readonly slope: number; readonly explained: number } {
  let [uu, uv, vv] = [0, 0, 0]
  for (const row of rows) {
    const u = row.reduce((sum, [place]) => sum + place, 0) / row.length
    const v = row.reduce((sum, [, tone]) => sum + tone, 0) / row.length
    for (const [place, tone] of row) {
      uu += (place - u) ** 2
      uv += (place - u) * (tone - v)
      vv += (tone - v) ** 2
    }
  }
  return { slope: uv / Math.max(1e-9, uu), explained: (uv * uv) / Math.max(1e-9, uu * vv) }
}

/** The row of the sky that is brightest beside a border; the lowest of the sky where none is. */
function brightestRow({ width, height, light }: SmallPhoto, sky: Uint8Array, right: boolean): number {
  const beside = Math.max(1, Math.round(BESIDE * width))
  const from = right ? width - beside : 0
  let [best, row] = [0, Math.max(0, ...skyEnds(sky, width, height))]
  for (let y = 0; y < height; y++) {
    let [sum, count] = [0, 0]
    for (let x = from; x < from + beside; x++) {
      const i = y * width + x
      if (!sky[i]) continue
      sum += light[i] ?? 0
      count++
    }
    if (count > beside / 2 && sum / count > best) [best, row] = [sum / count, y + 0.5]
  }
  return row
}
