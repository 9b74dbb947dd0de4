import type { ReadHorizon } from './readHorizon'
import { at, boxMean, type SmallPhoto } from './smallPhoto'

/** A light is so bright, in roots of linear light, and so much brighter than what is around it, parts of the width away. */
const LEAST_LIGHT = 0.45
const BRIGHTER = 1.5
const AROUND = 0.08
/** Two lights are not nearer to one another than this, and none is looked for further down: parts of the width and of the height. */
const APART = 0.03
const LOWEST = 0.75
/** What is beside a streak, as parts of the width. */
const BESIDE = [0.03, 0.05] as const
/** Between a light and its streak it is not so much brighter than beside it, in the streak it is: against the light, and at least. */
const STREAK = 0.12
const LEAST_STREAK = 0.04
/** A streak is so long, as a part of the height, and so many times as long as it is wide. */
const LEAST_LENGTH = 0.06
const LONGER = 2
/** At least so many lights have one, a part of all, and the level is within this of the height for each. */
const LEAST_LIGHTS = 2
const LEAST_PART = 0.4
const SAME_LEVEL = 0.1

/**
 * Where ground begins that shows lights again: under a light a streak of light, dimmer, longer than wide, and apart from it, as wet stones and asphalt have it. It lies as far under the ground at the foot of the light as the light
 * is over it. Nothing unless two lights tell the same. Common practice; no source.
 */
export function wetGround(photo: SmallPhoto): Pick<ReadHorizon, 'y' | 'turn'> | undefined {
  const { width, height, light } = photo
  const bright = boxMean(light, width, height, 1)
  const lights = brightPlaces(bright, width, height)
  const levels = lights.flatMap((place) => levelOfStreak(bright, width, height, place) ?? []).sort((a, b) => a - b)
  const middle = levels[Math.floor(levels.length / 2)] ?? 0
  const agreeing = levels.filter((level) => Math.abs(level - middle) < SAME_LEVEL * height)
  if (agreeing.length < Math.max(LEAST_LIGHTS, LEAST_PART * lights.length)) return undefined
  return { y: middle / height, turn: 0 }
}

/** Places that are brightest of what is near and stand out from what is around, the brightest first. */
function brightPlaces(bright: Float32Array, width: number, height: number): readonly number[] {
  const around = boxMean(bright, width, height, Math.max(2, Math.round(AROUND * width)))
  const apart = Math.max(2, Math.round(APART * width))
  const candidates = Array.from(bright.keys())
    .filter((i) => (bright[i] ?? 0) >= LEAST_LIGHT && (bright[i] ?? 0) > BRIGHTER * (around[i] ?? 0) && i < LOWEST * height * width)
    .sort((a, b) => (bright[b] ?? 0) - (bright[a] ?? 0))
  const places: number[] = []
  for (const i of candidates) {
    const far = (other: number): boolean =>
      Math.hypot((i % width) - (other % width), Math.floor(i / width) - Math.floor(other / width)) >= apart
    if (places.every(far)) places.push(i)
  }
  return places
}

/** The row midway between a light and the brightest of a streak under it; nothing if there is none. */
function levelOfStreak(bright: Float32Array, width: number, height: number, place: number): number | undefined {
  const [x, y] = [place % width, Math.floor(place / width)]
  const [from, to] = BESIDE.map((part) => Math.max(2, Math.round(part * width))) as [number, number]
  const excess = (row: number, column = x): number => {
    let [beside, count] = [0, 0]
    for (let d = from; d <= to; d++) {
      beside += at(bright, width, height, x - d, row) + at(bright, width, height, x + d, row)
      count += 2
    }
    return at(bright, width, height, column, row) - beside / count
  }
  const own = excess(y)
  const least = Math.max(LEAST_STREAK, STREAK * own)
  const gap = rowAfter(y, height, (row) => excess(row) < least)
  const start = gap === undefined ? undefined : rowAfter(gap, height, (row) => excess(row) > least && excess(row + 1) > least)
  if (start === undefined) return undefined
  const end = rowAfter(start, height, (row) => excess(row) <= least && excess(row + 1) <= least) ?? height
  let brightest = start
  for (let row = start; row < end; row++) if (excess(row) > excess(brightest)) brightest = row
  const half = excess(brightest) / 2
  let wide = 1
  for (const side of [-1, 1]) for (let d = 1; d < from && excess(brightest, x + side * d) > half; d++) wide++
  const isStreak = end - start >= Math.max(4, LEAST_LENGTH * height) && end - start >= LONGER * wide && excess(brightest) < own
  return isStreak ? (y + brightest + 1) / 2 : undefined
}

function rowAfter(row: number, height: number, is: (row: number) => boolean): number | undefined {
  for (let next = row + 1; next < height; next++) if (is(next)) return next
  return undefined
}
