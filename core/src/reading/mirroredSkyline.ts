import { heightOf, type ReadHorizon } from './readHorizon'
import { mirrorCorrelation } from './readWater'
import { at, type SmallPhoto } from './smallPhoto'

/** Slopes that are tried, degrees. */
const MOST_TURN = 6
const TURN_STEP = 0.5
/** Rows over and under a place whose light is compared. */
const REACH = 2
/** A place counts as an image of the skyline if it is lighter below by so much of the step of the skyline itself, and by so much at least, roots of linear light. */
const PART_OF_STEP = 0.2
const LEAST_STEP = 0.012
const LEAST_SKYLINE = 0.04
/** Of the skyline so much has to be seen again, and so much more of it than would be by chance. */
const LEAST_SEEN = 0.6
const LEAST_OVER_CHANCE = 0.35
/** An image is looked for of what stands over the line by more than so many rows; that has to be so much of the width, and go up and down by so much of the height. */
const LEAST_RISE = 3
const LEAST_WIDTH = 0.2
const LEAST_RELIEF = 0.005

/** How much surer a line is that mirrors all of the width, and how much less for each degree that it leans. */
const WIDTH_COUNTS = 0.2
const TURN_COUNTS = 0.01
/** Lines that are compared as a whole, and how alike the two have to be, alone and with what is seen of the skyline. */
const MOST_TRIED = 40
const LEAST_SKYLINE_SEEN = 0.65
const LEAST_IMAGE = 0.25
const LEAST_BOTH = 1.08

/**
 * The horizon as the line in which calm water mirrors the skyline: what is far stands as high over its horizon as its image lies below it, so it is found behind hills too, where nobody sees it.
 * The outline of the sky is reflected at every height and slope; what counts is on how much of it, beyond chance, the water turns from dark to light. Nothing if the outline is
 * too level to tell one line from another. The optics of a plane mirror; the method has no source.
 */
export function mirroredSkyline(photo: SmallPhoto, sky: Uint8Array): ReadHorizon | undefined {
  const line = skylineOf(photo, sky)
  const water = waterOf(photo)
  const found: Mirror[] = []
  for (let turn = -MOST_TURN; turn <= MOST_TURN; turn += TURN_STEP) {
    for (let y = Math.round(photo.height * 0.1); y < photo.height * 0.95; y++) {
      const mirror = mirroredIn({ y: y / photo.height, turn }, photo, line, water)
      if (mirror) found.push(mirror)
    }
  }
  return bestMirror(photo, found)
}

/** What a line mirrors of the skyline, if it is enough. */
function mirroredIn(level: Pick<ReadHorizon, 'y' | 'turn'>, photo: SmallPhoto, line: readonly Edge[], water: Water): Mirror | undefined {
  const { width, height } = photo
  const lineAt = heightOf(level, photo)
  const slope = -Math.tan((level.turn * Math.PI) / 180)
  const square = 1 + slope * slope
  const used: Edge[] = []
  let [seen, chance, highest] = [0, 0, 0]
  for (const edge of line) {
    const over = lineAt(edge.x) - edge.row
    if (over < LEAST_RISE) continue
    // Square to the line, as far below it.
    const [x, y] = [Math.round(edge.x - (2 * over * slope) / square), edge.row + (2 * over) / square]
    if (x < 0 || x >= width || y > height - 1 - REACH) continue
    const least = Math.max(LEAST_STEP, PART_OF_STEP * edge.step)
    used.push(edge)
    highest = Math.max(highest, over)
    if (water.lightens(x, y) >= least) seen++
    chance += water.often(x, least)
  }
  const part = seen / used.length
  const over = part - chance / used.length
  if (used.length < LEAST_WIDTH * width || part < LEAST_SEEN || over < LEAST_OVER_CHANCE) return undefined
  if (reliefOf(used) < LEAST_RELIEF * height) return undefined
  return { ...level, sureness: over + WIDTH_COUNTS * (used.length / width) - TURN_COUNTS * Math.abs(level.turn), highest }
}

interface Mirror extends ReadHorizon {
  /** How high the skyline is over it at the most, where its image is in the photo, px. */
  readonly highest: number
}

/** Of the lines that mirror the skyline best the one that mirrors all that stands over it best, if the two are enough. */
function bestMirror(photo: SmallPhoto, found: readonly Mirror[]): ReadHorizon | undefined {
  const [best] = found
    .toSorted((a, b) => b.sureness - a.sureness)
    .slice(0, MOST_TRIED)
    .map((line) => ({ ...line, image: mirrorCorrelation(photo, line, rowsFor(line, photo)) }))
    .toSorted((a, b) => b.sureness + b.image - a.sureness - a.image)
  return best && best.sureness >= LEAST_SKYLINE_SEEN && best.image >= LEAST_IMAGE && best.sureness + best.image >= LEAST_BOTH
    ? best
    : undefined
}

/** As many rows as the skyline is high, as far as the photo holds them on both sides of the line. */
function rowsFor(line: Mirror, photo: SmallPhoto): number {
  const lineAt = heightOf(line, photo)
  const ends = [lineAt(0), lineAt(photo.width - 1)]
  return Math.floor(Math.min(line.highest + REACH, photo.height - 1 - Math.max(...ends), Math.min(...ends) - 1))
}

interface Edge {
  readonly x: number
  /** The first row that is no sky. */
  readonly row: number
  /** How much darker it is there. */
  readonly step: number
}

/** Where the sky ends first from above, in each column that begins with sky. */
function skylineOf({ width, height, light }: SmallPhoto, sky: Uint8Array): readonly Edge[] {
  const edges: Edge[] = []
  for (let x = 0; x < width; x++) {
    let row = 0
    while (row < height && sky[row * width + x]) row++
    if (row < REACH || row >= height - REACH) continue
    const step = at(light, width, height, x, row - REACH) - at(light, width, height, x, row + REACH)
    if (step > LEAST_SKYLINE) edges.push({ x, row, step })
  }
  return edges
}

/** How much an outline goes up and down about the straight line that fits it best: standard deviation, px. */
function reliefOf(line: readonly Edge[]): number {
  let [sx, sy, sxx, sxy, syy] = [0, 0, 0, 0, 0]
  for (const { x, row } of line) {
    sx += x
    sy += row
    sxx += x * x
    sxy += x * row
    syy += row * row
  }
  const n = line.length
  const [xx, xy, yy] = [sxx - (sx * sx) / n, sxy - (sx * sy) / n, syy - (sy * sy) / n]
  return Math.sqrt(Math.max(0, yy - (xx > 0 ? (xy * xy) / xx : 0)) / n)
}

interface Water {
  /** How much lighter it is just below a place than just above, at the lighter of the two rows that it lies between. */
  lightens(x: number, y: number): number
  /** On what part of the lower half of a column it is lighter below by so much: how often chance alone would hit. */
  often(x: number, least: number): number
}

const STEPS = 64
/** No step of light that matters is greater, roots of linear light. */
const GREATEST_STEP = 0.5

function waterOf({ width, height, light }: SmallPhoto): Water {
  const changes = light.map((_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)]
    let sum = 0
    for (let d = 1; d <= REACH; d++) sum += at(light, width, height, x, y + d) - at(light, width, height, x, y - d)
    return sum / REACH
  })
  const lightens = (x: number, y: number): number =>
    Math.max(at(changes, width, height, x, Math.floor(y)), at(changes, width, height, x, Math.ceil(y)))
  const stepOf = (value: number): number => Math.max(0, Math.min(STEPS, Math.ceil((STEPS * value) / GREATEST_STEP)))
  const from = Math.floor(height / 2)
  // Of each column how many places lighten by a step or more.
  const counts = Array.from({ length: width }, (_, x) => {
    const count = new Float32Array(STEPS + 1)
    for (let y = from; y < height; y++) count[stepOf(lightens(x, y + 0.5))]!++
    for (let step = STEPS - 1; step >= 0; step--) count[step]! += count[step + 1]!
    return count
  })
  return { lightens, often: (x, least) => (counts[x]?.[stepOf(least)] ?? 0) / (height - from) }
}
