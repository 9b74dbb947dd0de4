import { heightOf, type ReadHorizon } from './readHorizon'
import type { SmallPhoto } from './smallPhoto'

type Level = Pick<ReadHorizon, 'y' | 'turn'>

/** How high over and under a line its mirror image is looked for, parts of the height. */
const BANDS = [0.06, 0.12]
/** What is above is seen again below if it is so alike, and changes at all: roots of linear light. */
const ALIKE = 0.5
const LEAST_CHANGE = 0.008
/** Waves lie level: tones change so many times as much from row to row as along a row, and less than this on the mean. */
const LEVEL_WAVES = 1.35
const CALM = 0.06
/** Water is seen on at least so much of the height, and against its sky it is not greener or redder than it is blue by more than this. */
const LEAST_HEIGHT = 0.05
const MOST_COLOUR = 1.25
/** Parts of the height over and under the line whose colours are compared. */
const COLOUR_BAND = 0.2

/**
 * Whether what lies under a line is water: it mirrors what stands over the line, or its waves lie level and it is not the colour of ground. Common practice; no source.
 */
export function isWater(photo: SmallPhoto, level: Level): boolean {
  if (level.y > 1 - LEAST_HEIGHT || level.y < LEAST_HEIGHT) return false
  return mirrors(photo, level) || hasLevelWaves(photo, level)
}

/** Whether what is over a line is seen again, upside down, under it. Posts and walls are alike over and under any line, and so is what lies level: rows and columns are freed of their means first. */
function mirrors(photo: SmallPhoto, level: Level): boolean {
  return BANDS.some((part) => mirrorCorrelation(photo, level, Math.max(4, Math.round(part * photo.height))) > ALIKE)
}

/** How alike what is over a line and the image of it under the line are, from -1 to 1, up to so many rows from it; 0 if those leave the photo. */
export function mirrorCorrelation(photo: SmallPhoto, level: Level, rows: number): number {
  const [over, under] = [-1, 1].map((side) => residue(photo, level, side, rows)) as [readonly Float64Array[], readonly Float64Array[]]
  return over.length === rows && under.length === rows ? correlation(over, under) : 0
}

/** Light of the rows over (-1) or under (1) a line, outwards and square to it, without the means of its rows and columns; fewer rows where those leave the photo. */
function residue({ width, height, light }: SmallPhoto, level: Level, side: number, rows: number): readonly Float64Array[] {
  const lineAt = heightOf(level, { width, height })
  const lean = side * Math.tan((level.turn * Math.PI) / 180)
  const margin = Math.ceil(rows * Math.abs(lean))
  const taken: Float64Array[] = []
  for (let d = 1; d <= rows; d++) {
    const row = Float64Array.from({ length: Math.max(0, width - 2 * margin) }, (_, k) => {
      const x = margin + k
      return light[Math.floor(lineAt(x) + side * d) * width + Math.round(x + d * lean)] ?? NaN
    })
    if (row.length === 0 || row.some(Number.isNaN)) return taken
    const mean = row.reduce((sum, value) => sum + value, 0) / row.length
    taken.push(row.map((value) => value - mean))
  }
  const columns = Float64Array.from(taken[0] ?? [], (_, k) => taken.reduce((sum, row) => sum + (row[k] ?? 0), 0) / taken.length)
  return taken.map((row) => row.map((value, k) => value - (columns[k] ?? 0)))
}

/** Pearson's correlation of what has no mean; 0 where one of the two hardly changes. */
function correlation(a: readonly Float64Array[], b: readonly Float64Array[]): number {
  let [ab, aa, bb, count] = [0, 0, 0, 0]
  a.forEach((row, i) =>
    row.forEach((value, x) => {
      const other = b[i]?.[x] ?? 0
      ab += value * other
      aa += value * value
      bb += other * other
      count++
    }),
  )
  const least = LEAST_CHANGE ** 2 * count
  return aa < least || bb < least ? 0 : ab / Math.sqrt(aa * bb)
}

function hasLevelWaves(photo: SmallPhoto, level: Level): boolean {
  const { width, height, light } = photo
  const lineAt = heightOf(level, photo)
  let [across, down, count] = [0, 0, 0]
  for (let x = 1; x < width - 1; x++) {
    for (let y = Math.max(1, Math.ceil(lineAt(x) + 2)); y < height - 1; y++) {
      const i = y * width + x
      across += Math.abs((light[i + 1] ?? 0) - (light[i - 1] ?? 0))
      down += Math.abs((light[i + width] ?? 0) - (light[i - width] ?? 0))
      count++
    }
  }
  return count > 0 && down > LEVEL_WAVES * across && down / count / 2 < CALM && !isGround(photo, lineAt)
}

/** Whether what is under a line is clearly greener or redder than what is over it: water has the colour of the sky that is as low. */
function isGround({ width, height, channels }: SmallPhoto, lineAt: (x: number) => number): boolean {
  const mean = (plane: Float32Array, side: number): number => {
    let [sum, count] = [0, 0]
    plane.forEach((value, i) => {
      const off = side * (Math.floor(i / width) - lineAt(i % width))
      if (off < 2 || off > COLOUR_BAND * height) return
      sum += value
      count++
    })
    return sum / Math.max(1, count)
  }
  const [red, green, blue] = channels.map((plane) => mean(plane, 1) / Math.max(1e-3, mean(plane, -1))) as [number, number, number]
  return green > MOST_COLOUR * blue || red > MOST_COLOUR * blue
}
