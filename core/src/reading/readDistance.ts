import type { SmallCodes } from '../model/reading'
import { base64Of, FARTHEST, NEAREST } from '../model/readingMethod'
import { heightOf, skyEnds, type ReadHorizon } from './readHorizon'
import { evenOut } from './evenOut'
import { outOfFocus } from './readFocus'
import { segments, type Segments } from './segments'
import { at, type SmallPhoto } from './smallPhoto'

/** What is behind the horizon or the edge of the sky, and the end of a view that has neither. */
const BEHIND = 1500
const VIEW_END = 400
/** Haze lies so high over the ground, metres: through it one looks the farther the lower one looks. */
const HAZE_HEIGHT = 500
const EYE_HEIGHT = 1.7
/** How often distances are evened out down the columns where the photo has no edge. */
const EVENED = 100
const FOCAL_PART = 28 / 36

/** A distance as a code of 0-255, even in its logarithm. */
export function codeOf(metres: number): number {
  const part = Math.log(Math.max(NEAREST, metres) / NEAREST) / Math.log(FARTHEST / NEAREST)
  return Math.max(0, Math.min(255, Math.round(255 * part)))
}

/**
 * A distance for every place, as codes. Of the sky it is the way through the air that lies over the ground; ground lies under the horizon by perspective; what stands on it has the distance of its foot up to its own outline. Without a
 * horizon distances grow smoothly from the lower border to the edge of the sky or to the upper border: a line that nobody sees is not guessed; without a sky either, what is dark is nearer than
 * what is light beside it.
 * @param water whether water begins at the horizon, and may mirror what stands behind it
 */
export function readDistance(photo: SmallPhoto, sky: Uint8Array | undefined, horizon: ReadHorizon | undefined, water = false): Uint8Array {
  const { width, height } = photo
  const codes = new Float32Array(width * height)
  const parts = segments(photo)
  if (horizon) overGround(photo, parts, { sky, horizon, water }, codes)
  else {
    growing(photo, sky, codes)
    const out = outOfFocus(photo, parts, sky)
    if (out) behindTheFocus(photo, out, codes)
    else if (!sky) behindTheDark(photo, codes)
  }
  if (sky) throughAir(photo, sky, horizon, codes)
  // A sky that ends in mist goes over into what is below.
  evenOut(photo, codes, { times: EVENED, along: 'columns' })
  return Uint8Array.from(codes, (code) => Math.round(code))
}

/** Distances of a view of which nothing is known, as codes: they grow from below to above. */
export function growingCodes(): SmallCodes {
  const size = { width: 1, height: 64 }
  const codes = new Float32Array(size.height)
  growing(size, undefined, codes)
  return { ...size, codes: base64Of(Uint8Array.from(codes, Math.round)) }
}

function growing({ width, height }: Pick<SmallPhoto, 'width' | 'height'>, sky: Uint8Array | undefined, codes: Float32Array): void {
  const ends = sky && skyEnds(sky, width, height)
  const known = ends ? [...ends].filter((end) => end >= 0).sort((a, b) => a - b) : []
  // One height for the whole photo, so that nothing of the outline of the sky is seen in it.
  const top = known.length > width / 4 ? (known[Math.floor(0.5 * known.length)] ?? 0) : -0.1 * height
  const [near, far] = [codeOf(2), codeOf(known.length > width / 4 ? BEHIND : VIEW_END)]
  for (let y = 0; y < height; y++) {
    const t = Math.max(0, Math.min(1, (height - y) / Math.max(1, height - top)))
    codes.fill(near + (far - near) * t * t * (3 - 2 * t), y * width, (y + 1) * width)
  }
}

/** Air makes what is dark lighter, the more of it lies before that: so far the darkest of a place lowers its distance, and so many of the pixels of its rows are as light as air may make them. */
const DARK_LOWERS = 0.6
const AS_LIGHT_AS_AIR = 0.9
/** Half the rows that are compared, as a part of the height. */
const ROWS_ALIKE = 0.08

/**
 * Where neither sky nor horizon is seen, what is darker than the rest at its height is taken to be nearer: trunks before a clearing. The least of the three channels of a place (dark channel, He, Sun and
 * Tang 2009) against that of its rows.
 */
function behindTheDark({ width, height, channels }: SmallPhoto, codes: Float32Array): void {
  const darkest = channels[0].map((red, i) => Math.min(red, channels[1][i] ?? 0, channels[2][i] ?? 0))
  const nearest = codeOf(2)
  const reach = Math.max(1, Math.round(ROWS_ALIKE * height))
  for (let y = 0; y < height; y++) {
    const rows = darkest.slice(Math.max(0, y - reach) * width, Math.min(height, y + reach + 1) * width).sort()
    const light = Math.max(1e-3, rows[Math.floor(AS_LIGHT_AS_AIR * (rows.length - 1))] ?? 1)
    for (let i = y * width; i < (y + 1) * width; i++) {
      const x = i % width
      let sum = 0
      for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) sum += at(darkest, width, height, x + dx, y + dy)
      const part = Math.min(1, sum / 9 / light)
      codes[i] = nearest + ((codes[i] ?? 0) - nearest) * (1 - DARK_LOWERS * (1 - part))
    }
  }
}

/** What is out of focus is so far on the way from what is assumed to the end of a view. */
const BEHIND_THE_FOCUS = 0.8
/** Over so much of the height below the foot of what is in focus the one goes over into the other. */
const FOOT_HEIGHT = 0.15
/** Of the rows that are in focus this part lies above the foot of what stands there. */
const ABOVE_THE_FOOT = 0.95
const IN_FOCUS = 0.3

/**
 * Where a photo has a focus and no horizon, what is in focus stands at the distance of its foot, and what is out of it beside and above lies behind; below the foot it is the ground before it.
 * Common practice; no source.
 * @param out how far each place is out of focus, 0 to 1
 */
function behindTheFocus({ width, height }: SmallPhoto, out: Float32Array, codes: Float32Array): void {
  const rows = Array.from(out.keys()).flatMap((i) => ((out[i] ?? 1) < IN_FOCUS ? Math.floor(i / width) : []))
  const foot = rows[Math.floor(ABOVE_THE_FOOT * (rows.length - 1))] ?? height - 1
  const stands = codes[foot * width] ?? 0
  const end = codeOf(VIEW_END)
  out.forEach((value, i) => {
    const t = Math.max(0, Math.min(1, (foot - Math.floor(i / width)) / (FOOT_HEIGHT * height) + 0.5))
    const above = t * t * (3 - 2 * t)
    const assumed = codes[i] ?? 0
    const near = Math.min(assumed, stands)
    const far = assumed + BEHIND_THE_FOCUS * Math.max(0, end - assumed)
    codes[i] = assumed + above * (near + value * (far - near) - assumed)
  })
}

/** In the sky: the way through a layer of air, by how high one looks. */
function throughAir(photo: SmallPhoto, sky: Uint8Array, horizon: ReadHorizon | undefined, codes: Float32Array): void {
  const { width, height } = photo
  const ends = [...skyEnds(sky, width, height)].filter((end) => end >= 0).sort((a, b) => a - b)
  // What hides a horizon stands over it.
  const level = (ends[Math.floor(0.7 * ends.length)] ?? height) / height
  const lineAt = heightOf(horizon ?? { y: level, turn: 0 }, photo)
  sky.forEach((value, i) => {
    if (!value) return
    const over = Math.max(0, lineAt(i % width) - Math.floor(i / width) - 0.5)
    codes[i] = codeOf(Math.min(FARTHEST, HAZE_HEIGHT / Math.max(1e-3, Math.sin(Math.atan(over / (FOCAL_PART * width))))))
  })
}

/** A part of which nothing is known yet. */
const nothing = { above: 0, below: 0, foot: 0, footX: 0, top: Infinity, topX: 0 }
/** Over water, what is wider than this part of its height is a far shore with its image, not a thing that stands where the image ends. */
const NARROW = 0.6

function overGround(
  photo: SmallPhoto,
  { labels, count }: Segments,
  { sky, horizon, water }: { readonly sky: Uint8Array | undefined; readonly horizon: ReadHorizon; readonly water: boolean },
  codes: Float32Array,
): void {
  const { width, height } = photo
  const lineAt = heightOf(horizon, photo)
  const groundAt = (x: number, y: number): number => {
    const below = y + 0.5 - lineAt(x)
    return below <= 0 ? BEHIND : Math.min(BEHIND, (EYE_HEIGHT * FOCAL_PART * width) / below)
  }
  // Of each part: how much of it stands above the horizon, how much below, and where its foot is.
  const parts = Array.from({ length: count }, () => ({ ...nothing }))
  labels.forEach((label, i) => {
    const [x, y] = [i % width, Math.floor(i / width)]
    const part = parts[label]
    if (!part || sky?.[i]) return
    if (y < lineAt(x) - 0.01 * height) part.above++
    else part.below++
    if (y >= part.foot) Object.assign(part, { foot: y, footX: x })
    if (y < part.top) Object.assign(part, { top: y, topX: x })
  })
  labels.forEach((label, i) => {
    const [x, y] = [i % width, Math.floor(i / width)]
    const { above, below, foot, footX, top, topX } = parts[label] ?? nothing
    const high = lineAt(topX) - top
    const isShore = water && above > NARROW * high * high
    // It stands there if a good part of it is seen against the ground, down to a foot that is clearly nearer than the horizon.
    const stands = !isShore && above > 6 && above > 0.15 * (above + below) && below > 0.2 * above && foot > lineAt(footX) + 0.04 * height
    const metres = stands ? groundAt(footX, foot) : groundAt(x, y)
    codes[i] = codeOf(Math.max(2, metres))
  })
}
