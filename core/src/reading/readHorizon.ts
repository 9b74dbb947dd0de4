import { at, type SmallPhoto } from './smallPhoto'

/** A horizon that was read: its height in the middle of the photo as a part of the photo's height, its slope, and how far one can rely on it, 0-1. */
export interface ReadHorizon {
  readonly y: number
  /** Degrees counter-clockwise. */
  readonly turn: number
  readonly sureness: number
}

const MOST_TURN = 8
const TURN_STEP = 0.5
/** How much less sure a line is for each degree that it leans. */
const TURN_COUNTS = 0.015
/** Parts that the width is cut into; in so many of them the line has to be seen. */
const PARTS = 16
const LEAST_PARTS = 0.7
/** The same where the sky ends at the line: then something may stand before the rest. */
const LEAST_PARTS_UNDER_SKY = 0.5
const LEAST_SURENESS = 0.65
/** How sure a line has to be by itself at which no sky ends. */
export const SURE_ALONE = 0.8
/** How much surer a line is at which all of the sky ends. */
const MET_COUNTS = 0.35
/** So far from a line a sky ends at it, px. */
const NEAR = 1.2
/** On what part of the width the sky ends at a horizon at least, and on what part it may reach below it. */
const LEAST_MET = 0.3
const MOST_OVER = 0.08
/** What is so high, as parts of the height, and under which so little of the step is left on so much of the width, is a bar before the rest. What is lower may be a far shore. */
const BAR_HEIGHTS = [0.022, 0.1]
const BAR_STEP = 0.03
const BAR_ENDS = 0.35
/** What is lower is one if next to nothing of the step is left under it. */
const THIN_BAR_ENDS = 0.12
const BAR_PART = 0.4
/** A step in fewer columns than this part of the width tells nothing. */
const FEW_COLUMNS = 0.12
/** Of what is as high all along: standard deviation, px. */
const BAR_SPREAD = 1.5
/** How far below the sky a horizon may lie, as a part of the height: hills stand between. */
const MOST_BELOW_SKY = 0.15

/** The height of a horizon in each column, rows from the top. */
export function heightOf(
  { y, turn }: Pick<ReadHorizon, 'y' | 'turn'>,
  { width, height }: Pick<SmallPhoto, 'width' | 'height'>,
): (x: number) => number {
  const slope = -Math.tan((turn * Math.PI) / 180)
  return (x) => y * height + slope * (x + 0.5 - width / 2)
}

/** A line across the photo that may be its horizon: how sure it is by itself, and in what part of the width it is seen. */
interface Line extends ReadHorizon {
  readonly seen: number
}

/**
 * Lines that may be the one between water or plain and what is behind it: long, straight, nearly level, and the same kind of step all the way (from the lighter to the darker, or
 * back). Every height and slope is tried; what counts is in how many parts of the width the step points the same way, and how alike it is. Common practice; no source.
 */
export function levelLines(photo: SmallPhoto): readonly Line[] {
  const { height } = photo
  const reach = Math.max(2, Math.round(height / 60))
  const changes = changesDown(photo, reach)
  const lines: Line[] = []
  for (let turn = -MOST_TURN; turn <= MOST_TURN; turn += TURN_STEP) {
    for (let y = Math.round(height * 0.06); y < height * 0.9; y++) {
      const steps = stepsAlong(changes, photo, heightOf({ y: y / height, turn }, photo), reach)
      const line = steps && { y: y / height, turn, ...alike(steps) }
      if (line && line.seen >= LEAST_PARTS_UNDER_SKY && line.sureness > LEAST_SURENESS - MET_COUNTS) lines.push(line)
    }
  }
  return lines
}

/**
 * The surest of the lines; nothing if none is sure enough. Where a sky is known it is surer the more of the sky ends at it, and lies under the sky.
 * @param sky where it is, if that is known
 */
export function surestOf(lines: readonly Line[], photo: SmallPhoto, sky: Uint8Array | undefined): ReadHorizon | undefined {
  const ends = sky && skyEnds(sky, photo.width, photo.height)
  let best: ReadHorizon | undefined
  for (const { y, turn, seen, sureness: own } of lines) {
    const { met, over } = ends ? endsAt(ends, heightOf({ y, turn }, photo)) : { met: 0, over: 0 }
    const underSky = met >= LEAST_MET && over <= MOST_OVER
    if (seen < (underSky ? LEAST_PARTS_UNDER_SKY : LEAST_PARTS) || (ends && !underSky && own < SURE_ALONE)) continue
    const sureness = own + (underSky ? MET_COUNTS * met : 0) - TURN_COUNTS * Math.abs(turn)
    if (sureness < LEAST_SURENESS || (best && sureness <= best.sureness)) continue
    const found = { y, turn, sureness }
    if ((!ends || liesUnder(found, ends, photo)) && !isBar(photo, heightOf(found, photo))) best = found
  }
  return best
}

/** How sure a line is by its steps alone, 0-1, and in what part of them it is seen. */
function alike(steps: readonly (readonly number[])[]): { readonly seen: number; readonly sureness: number } {
  const mean = [0, 1, 2].map((k) => steps.reduce((sum, step) => sum + (step[k] ?? 0), 0) / steps.length)
  const length = Math.hypot(...mean)
  if (length < 0.02) return { seen: 0, sureness: 0 }
  const along = steps.map((step) => step.reduce((sum, value, k) => sum + (value * (mean[k] ?? 0)) / length, 0))
  const seen = along.filter((value) => value > 0.35 * length).length / along.length
  const across = Math.sqrt(
    steps.reduce((sum, step, i) => sum + Math.max(0, Math.hypot(...step) ** 2 - (along[i] ?? 0) ** 2), 0) / steps.length,
  )
  const spread = Math.sqrt(along.reduce((sum, value) => sum + (value - length) ** 2, 0) / along.length)
  return { seen, sureness: (seen * Math.min(1, length / 0.08) ** 0.5) / (1 + (0.6 * (across + spread)) / length) }
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
  lineAt: (x: number) => number,
  reach: number,
): number[][] | undefined {
  const ends = [lineAt(0), lineAt(width - 1)]
  if (Math.min(...ends) < reach + 1 || Math.max(...ends) > height - reach - 2) return undefined
  const part = width / PARTS
  return Array.from({ length: PARTS }, (_, p) => {
    const sums = [0, 0, 0]
    const [from, to] = [Math.floor(p * part), Math.floor((p + 1) * part)]
    for (let x = from; x < to; x++) {
      const at = Math.round(lineAt(x)) * width + x
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

/** For what part of the width the sky ends at a line, and for what part it reaches below it. */
function endsAt(ends: Int32Array, lineAt: (x: number) => number): { readonly met: number; readonly over: number } {
  let [met, over] = [0, 0]
  ends.forEach((end, x) => {
    if (end < 0) return
    const below = end - lineAt(x)
    if (Math.abs(below) <= NEAR) met++
    else if (below > 2 * NEAR) over++
  })
  return { met: met / ends.length, over: over / ends.length }
}

/**
 * Whether a line is the upper edge of something narrow, behind which one sees on: a deck, a rail, a wall. Or the lower edge of one that is as high all along; under hills it would be the water's
 * edge.
 */
function isBar(photo: SmallPhoto, lineAt: (x: number) => number): boolean {
  // A line is not found to the pixel.
  return [-1, 0, 1].some((off) => {
    const [below, above] = [1, -1].map((side) => narrowness(photo, (x) => lineAt(x) + off, side)) as [Narrow, Narrow]
    return below.part > BAR_PART || (above.part > BAR_PART && above.spread < BAR_SPREAD)
  })
}

interface Narrow {
  /** Of the columns in which there is a step at the line: in how many it ends again near by. What is above it counts only if it is darker: else it is the sky itself. */
  readonly part: number
  /** Standard deviation of how far from the line that is, px. */
  readonly spread: number
}

/** Where what begins at a line, below (1) or above it (-1), ends again. */
function narrowness({ width, height, light }: SmallPhoto, lineAt: (x: number) => number, side: number): Narrow {
  const [first, last] = BAR_HEIGHTS.map((part) => Math.round(part * height)) as [number, number]
  const mean = (x: number, y: number, from: number, to: number): number => {
    let sum = 0
    for (let d = from; d <= to; d++) sum += at(light, width, height, x, y + side * d)
    return sum / (to - from + 1)
  }
  const ends: number[] = []
  let count = 0
  for (let x = 0; x < width; x++) {
    const y = Math.round(lineAt(x))
    const beyond = mean(x, y, -4, -2)
    const step = mean(x, y, 0, 1) - beyond
    if ((side < 0 ? -step : Math.abs(step)) < BAR_STEP) continue
    count++
    for (let d = 3; d <= last; d++) {
      const left = (mean(x, y, d, d + 2) - beyond) / step
      if (left > BAR_ENDS) continue
      if (d >= first || left < THIN_BAR_ENDS) ends.push(d)
      break
    }
  }
  const middle = ends.reduce((sum, end) => sum + end, 0) / Math.max(1, ends.length)
  return {
    part: ends.length / Math.max(count, FEW_COLUMNS * width),
    spread: Math.sqrt(ends.reduce((sum, end) => sum + (end - middle) ** 2, 0) / Math.max(1, ends.length)),
  }
}

/** No sky lies below a horizon, and it does not lie far below the sky. */
function liesUnder(horizon: ReadHorizon, ends: Int32Array, photo: SmallPhoto): boolean {
  const lineAt = heightOf(horizon, photo)
  const offs = [...ends].flatMap((end, x) => (end < 0 ? [] : [lineAt(x) - end])).sort((a, b) => a - b)
  if (offs.length === 0) return true
  const low = offs[Math.floor(0.15 * offs.length)] ?? 0
  return low > -0.03 * photo.height && low < MOST_BELOW_SKY * photo.height
}
