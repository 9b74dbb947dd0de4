import type { SmallPhoto } from './smallPhoto'

/** A horizon that was read: its height in the middle of the photo as a part of the photo's height, its slope, and how far one can rely on it, 0-1. */
export interface ReadHorizon {
  readonly y: number
  /** Degrees counter-clockwise. */
  readonly turn: number
  readonly sureness: number
}

const MOST_TURN = 8
const TURN_STEP = 0.5
/** Parts that the width is cut into; in so many of them the line has to be seen. */
const PARTS = 16
const LEAST_PARTS = 0.7
/** The same where the sky ends at the line for a third of the width: then something may stand before the rest. */
const LEAST_PARTS_UNDER_SKY = 0.5
const LEAST_SURENESS = 0.65
/** How far below the sky a horizon may lie, as a part of the height: hills stand between. */
const MOST_BELOW_SKY = 0.15

/**
 * The line between water or plain and what is behind it: long, straight, nearly level, and the same kind of step all the way (from the lighter to the darker, or back). Every height
 * and slope is tried; what counts is in how many parts of the width the step points the same way, how alike it is, and how much of the sky ends there. Nothing if no line is
 * sure enough. Common practice; no source.
 * @param sky where it is, if that is known
 */
export function readHorizon(photo: SmallPhoto, sky: Uint8Array | undefined): ReadHorizon | undefined {
  const { width, height } = photo
  const ends = sky && skyEnds(sky, width, height)
  const reach = Math.max(2, Math.round(height / 60))
  const changes = changesDown(photo, reach)
  let best: ReadHorizon | undefined
  for (let turn = -MOST_TURN; turn <= MOST_TURN; turn += TURN_STEP) {
    const slope = -Math.tan((turn * Math.PI) / 180)
    for (let y = Math.round(height * 0.06); y < height * 0.9; y++) {
      const steps = stepsAlong(changes, photo, y, slope, reach)
      if (!steps) continue
      const met = ends ? endsAt(ends, y, slope, width, height) : 0
      const sureness = alike(steps, met > 1 / 3 ? LEAST_PARTS_UNDER_SKY : LEAST_PARTS) + 0.25 * met - 0.004 * Math.abs(turn)
      if (sureness < LEAST_SURENESS || (best && sureness <= best.sureness)) continue
      const found = { y: y / height, turn, sureness }
      if (!ends || liesUnder(found, ends, photo)) best = found
    }
  }
  return best
}

/** How sure a line is by its steps alone, 0-1. */
function alike(steps: readonly (readonly number[])[], leastParts: number): number {
  const mean = [0, 1, 2].map((k) => steps.reduce((sum, step) => sum + (step[k] ?? 0), 0) / steps.length)
  const length = Math.hypot(...mean)
  if (length < 0.02) return 0
  const along = steps.map((step) => step.reduce((sum, value, k) => sum + (value * (mean[k] ?? 0)) / length, 0))
  const seen = along.filter((value) => value > 0.35 * length).length / along.length
  if (seen < leastParts) return 0
  const across = Math.sqrt(
    steps.reduce((sum, step, i) => sum + Math.max(0, Math.hypot(...step) ** 2 - (along[i] ?? 0) ** 2), 0) / steps.length,
  )
  const spread = Math.sqrt(along.reduce((sum, value) => sum + (value - length) ** 2, 0) / along.length)
  return (seen * Math.min(1, length / 0.08) ** 0.5) / (1 + (0.6 * (across + spread)) / length)
}

/** At every place how much lighter it is just above than just below, of each channel: means of some rows. */
function changesDown({ width, height, channels }: SmallPhoto, reach: number): readonly Float32Array[] {
  return channels.map((plane) => {
    const changes = new Float32Array(width * height)
    for (let y = reach; y <= height - reach; y++) {
      for (let x = 0; x < width; x++) {
        let sum = 0
        for (let d = 1; d <= reach; d++) sum += (plane[(y - d) * width + x] ?? 0) - (plane[(y + d - 1) * width + x] ?? 0)
        changes[y * width + x] = sum / reach
      }
    }
    return changes
  })
}

/** For each part of the width the mean change of colour across a line; nothing if the line leaves the photo. */
function stepsAlong(
  changes: readonly Float32Array[],
  { width, height }: SmallPhoto,
  y: number,
  slope: number,
  reach: number,
): number[][] | undefined {
  const ends = [y - (slope * width) / 2, y + (slope * width) / 2]
  if (Math.min(...ends) < reach + 1 || Math.max(...ends) > height - reach - 2) return undefined
  const part = width / PARTS
  return Array.from({ length: PARTS }, (_, p) => {
    const sums = [0, 0, 0]
    const [from, to] = [Math.floor(p * part), Math.floor((p + 1) * part)]
    for (let x = from; x < to; x++) {
      const at = Math.round(y + slope * (x + 0.5 - width / 2)) * width + x
      for (let k = 0; k < 3; k++) sums[k] = (sums[k] ?? 0) + (changes[k]?.[at] ?? 0)
    }
    return sums.map((sum) => sum / Math.max(1, to - from))
  })
}

/** For each column the row below the lowest sky that hangs together with the upper border; -1 where there is none. */
export function skyEnds(sky: Uint8Array, width: number, height: number): Int32Array {
  return Int32Array.from({ length: width }, (_, x) => {
    for (let y = height - 1; y >= 0; y--) if (sky[y * width + x]) return y + 1
    return -1
  })
}

/** For what part of the width the sky ends at a line. */
function endsAt(ends: Int32Array, y: number, slope: number, width: number, height: number): number {
  let count = 0
  ends.forEach((end, x) => {
    if (end >= 0 && Math.abs(end - y - slope * (x + 0.5 - width / 2)) < 0.012 * height + 0.5) count++
  })
  return count / width
}

/** No sky lies below a horizon, and it does not lie far below the sky. */
function liesUnder({ y, turn }: ReadHorizon, ends: Int32Array, { width, height }: SmallPhoto): boolean {
  const slope = -Math.tan((turn * Math.PI) / 180)
  const offs = [...ends].flatMap((end, x) => (end < 0 ? [] : [y * height + slope * (x + 0.5 - width / 2) - end])).sort((a, b) => a - b)
  if (offs.length === 0) return true
  const low = offs[Math.floor(0.15 * offs.length)] ?? 0
  return low > -0.03 * height && low < MOST_BELOW_SKY * height
}
