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
 * A sun above the photo, or beyond its left or right border, if the sky brightens towards it all the way: the slope of the logarithm of its light along its rows, by least squares with a mean of its own
 * for each row, since every sky changes from above to below. How far beyond is not to be seen. As parts of width and height. Common practice; no source.
 */
export function lightBeyond(photo: SmallPhoto, sky: Uint8Array): Place | undefined {
  const { width, height } = photo
  const all = Array.from({ length: height }, (_, y) => skyOfRow(photo, sky, y))
  const rows = all.filter(({ length }) => length > LEAST_OF_ROW * width)
  if (rows.length < LEAST_ROWS * height) return undefined
  const { slope, explained } = slopeAlong(rows)
  if (Math.abs(slope) < Math.log(LEAST_RATIO) || explained < LEAST_EXPLAINED) return lightAbove(photo, all)
  const right = slope > 0
  return { x: right ? 1 + BEYOND : -BEYOND, y: brightestRow(photo, sky, right) / height }
}

/** Above, the sky has to fall off to both sides of a middle: so many times at least over half of the width; and downwards, over its height there. */
const LEAST_ASIDE = 1.25
const LEAST_DOWN = 1.5
/** How far from the border the middle may lie, and how far above the photo the light is taken to be: parts of width and height. */
const MOST_ASIDE = 0.4
const ABOVE = 0.15

/**
 * A sun above the photo, if the sky is brightest at the upper border, about one place there, and falls off to both sides of it and downwards. A grey sky is brighter above as well (three times
 * in the zenith, by the standard overcast sky of the CIE), but alike to all sides. The middle is that of a parabola fitted to the logarithm of light along the upper border by least
 * squares. As parts of width and height. Common practice; no source.
 * @param rows the sky of each row, from the top
 */
function lightAbove({ width, height }: SmallPhoto, rows: readonly Row[]): Place | undefined {
  const strip = Math.ceil(LEAST_ROWS * height)
  const upper = rows.slice(0, strip)
  if (upper.some(({ length }) => length < 0.9 * width)) return undefined
  const { middle, bend } = parabola(upper.flat())
  // Over half of the width from the middle it falls by a quarter of the bend.
  if (bend > -4 * Math.log(LEAST_ASIDE) || Math.abs(middle) > MOST_ASIDE) return undefined
  const down = rows
    .map((row) => row.filter(([u]) => Math.abs(u - middle) < BESIDE).map(([, tone]) => tone))
    .filter(({ length }) => length > 0)
  const tones = Array.from({ length: Math.floor(down.length / strip) }, (_, k) => meanOf(down.slice(k * strip, (k + 1) * strip).flat()))
  const falls = tones.every((tone, k) => k === 0 || tone <= (tones[k - 1] ?? tone) + 0.02)
  return falls && (tones[0] ?? 0) - (tones.at(-1) ?? 0) > Math.log(LEAST_DOWN) ? { x: 0.5 + middle, y: -ABOVE } : undefined
}

/** The parabola that fits best through places about 0: where its middle is, and how strongly it bends, negative downwards. */
function parabola(places: Row): { readonly middle: number; readonly bend: number } {
  const mean = (of: (place: readonly [u: number, tone: number]) => number): number => meanOf(places.map(of))
  const [u1, u2, u3, u4] = [1, 2, 3, 4].map((power) => mean(([u]) => u ** power)) as [number, number, number, number]
  const [t0, t1, t2] = [0, 1, 2].map((power) => mean(([u, tone]) => tone * u ** power)) as [number, number, number]
  // Normal equations, without the constant.
  const [a, b, c] = [u2 - u1 * u1, u3 - u1 * u2, u4 - u2 * u2]
  const [d, e] = [t1 - u1 * t0, t2 - u2 * t0]
  const determinant = a * c - b * b || 1
  const [line, bend] = [(d * c - e * b) / determinant, (a * e - b * d) / determinant]
  return { middle: bend === 0 ? Infinity : -line / (2 * bend), bend }
}

function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length
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
