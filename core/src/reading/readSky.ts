import { skyEnds } from './readHorizon'
import { at, flood, type SmallPhoto } from './smallPhoto'
import type { Steps } from './steps'

/** Edges between which the one is looked for that parts the sky from what stands before it. */
const THRESHOLDS = [0.006, 0.009, 0.013, 0.018, 0.025, 0.034, 0.045, 0.06, 0.08]
/** An edge counts as no stronger than this. */
const STRONG = 0.15
/** How much it counts that a sky would hardly be another with the next edge, and that sky and rest are even, against a strong outline: powers. */
const STABLE = 8
const EVEN = 2
/** A sky that ends at narrow gaps is taken if it is so many times better: then it has leaked through them. */
const LEAKS = 1.5
/** A photo is sky all over if hardly anything is left with edges up to this, and it is blue and not dark. */
const ALL_SKY = { edge: 0.013, part: 0.97, blue: 1.15, light: 0.3 }
/** What stands on a horizon is darker than the sky, to this part. */
const STANDS_DARK = 0.72
/** A sky is at least so large, and at most, as parts of the photo. */
const LEAST_PART = 0.03
const MOST_PART = 0.93
/** What of the upper border belongs to it at least. */
const LEAST_OF_BORDER = 0.3
/** And what of the lower border at most: else it has run into the ground. */
const MOST_OF_GROUND = 0.3

/**
 * How far below a faint end of it a stronger edge is looked for, as a part of the height; how much stronger that has to be on the mean; how bright all between is, against the sky; and half the columns of
 * which the middle one counts.
 */
const MIST_HEIGHT = 0.1
const MIST_STRONGER = 1.6
const MIST_LIGHT = 0.85
const MIST_REACH = 8

/** It is not darker than this part of the light of the rest, or of what is so near to where it ends, as a part of the height. */
const NOT_DARKER = 0.95
const NEAR_ITS_END = 0.15

/**
 * The sky of a photo: 1 where it is, row by row; nothing if there is none to be seen. It is what can be reached from the upper border without crossing an edge. How strong
 * an edge has to be is chosen so that sky and rest are each as even as possible (energy of Shen and Wang 2013, "Sky region detection in a single image for
 * autonomous ground robot navigation", from memory; there along columns), that the edges along its outline are strong, and that it would hardly be another with
 * the next edge (the idea of maximally stable regions, Matas, Chum, Urban and Pajdla 2002). What it encloses and is as bright as it, is cloud.
 */
export function* readSky(photo: SmallPhoto): Steps<Uint8Array | undefined> {
  const reached: Candidate[][] = []
  for (const threshold of THRESHOLDS) {
    reached.push(reachedFromAbove(photo, threshold).map((sky) => scored(photo, withClouds(photo, sky))))
    yield
  }
  const [through = [], wide = []] = [0, 1].map((k) => reached.map((both) => both[k] as Candidate))
  const all = through.find(({ sky, part }, k) => (THRESHOLDS[k] ?? 1) <= ALL_SKY.edge && part >= ALL_SKY.part && isDay(photo, sky))
  if (all) return all.sky
  const [whole, tight] = [bestOf(through), bestOf(wide)]
  const best = tight.score > LEAKS * whole.score ? tight : whole
  return best.score > 0 ? withMist(photo, best.sky) : undefined
}

/**
 * A sky that ends at a faint edge, with a much stronger one a little below it and nothing darker between: glow and mist over the horizon belong to it. Looked for down each column, and evened out along
 * the width.
 */
function withMist(photo: SmallPhoto, sky: Uint8Array): Uint8Array {
  const { width, height, light, edges } = photo
  const ends = skyEnds(sky, width, height)
  let [best, strength] = [sky, MIST_STRONGER * outline(photo, sky)]
  for (const threshold of THRESHOLDS) {
    const below = Array.from(ends, (end, x) => {
      if (end < 2) return 0
      const least = MIST_LIGHT * at(light, width, height, x, end - 2)
      for (let y = end + 2; y < Math.min(height, end + MIST_HEIGHT * height); y++) {
        if ((edges[y * width + x] ?? 0) > threshold || (light[y * width + x] ?? 0) < least) return y - end
      }
      return 0
    })
    const all = sky.slice()
    ends.forEach((end, x) => {
      const near = below.slice(Math.max(0, x - MIST_REACH), x + MIST_REACH + 1).sort((a, b) => a - b)
      const depth = end < 0 ? 0 : (near[Math.floor(near.length / 2)] ?? 0)
      for (let y = end; y < end + depth; y++) all[y * width + x] = 1
    })
    const own = outline(photo, all)
    if (own > strength) [best, strength] = [all, own]
  }
  return best
}

interface Candidate {
  readonly sky: Uint8Array
  /** Of the photo. */
  readonly part: number
  /** Without how little the next edge changes it. */
  readonly score: number
}

function scored(photo: SmallPhoto, sky: Uint8Array): Candidate {
  const part = sky.reduce((sum, value) => sum + value, 0) / sky.length
  return { sky, part, score: isSky(photo, sky) ? evenness(photo, sky) ** EVEN * outline(photo, sky) : 0 }
}

/** The best of skies by rising edges, counting how stable each is. */
function bestOf(candidates: readonly Candidate[]): Candidate {
  const parts = candidates.map(({ part }) => part)
  return candidates
    .map((one, k) => ({ ...one, score: one.score * (1 - growth(parts, k)) ** STABLE }))
    .reduce((best, one) => (one.score > best.score ? one : best))
}

/** By what part of the larger a sky differs from that of the edge before or after it, whichever is more alike. */
function growth(parts: readonly number[], k: number): number {
  const part = parts[k] ?? 0
  const changes = [parts[k - 1], parts[k + 1]].flatMap((other) => (other ? [Math.abs(other - part) / Math.max(other, part)] : []))
  return Math.min(1, ...changes)
}

/** How strong the edges are along the outline of a sky, on the mean: low where it ends in the middle of something even. */
function outline({ width, height, edges }: SmallPhoto, sky: Uint8Array): number {
  let [sum, count] = [0, 0]
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      if (!sky[i] || (sky[i - 1] && sky[i + 1] && sky[i - width] && sky[i + width])) continue
      const beside = Math.max(edges[i - 1] ?? 0, edges[i + 1] ?? 0, edges[i - width] ?? 0, edges[i + width] ?? 0)
      sum += Math.min(STRONG, Math.max(edges[i] ?? 0, beside))
      count++
    }
  }
  return count > 0 ? sum / count : 0
}

/** Whether what is sky all over can be that: blue, by day. */
function isDay({ light, channels: [red, , blue] }: SmallPhoto, sky: Uint8Array): boolean {
  return meanWhere(light, sky, 1) > ALL_SKY.light && meanWhere(blue, sky, 1) > ALL_SKY.blue * meanWhere(red, sky, 1)
}

/**
 * The sky over a sure horizon: all that lies there, but for what stands on it and is darker.
 * @param above height of the horizon in each column, rows from the top
 */
export function skyOver({ width, height, light }: SmallPhoto, above: (x: number) => number): Uint8Array {
  const over = Uint8Array.from(light, (_, i) => (Math.floor(i / width) + 0.5 < above(i % width) ? 1 : 0))
  const tones = light.filter((_, i) => over[i]).sort()
  const dark = STANDS_DARK * (tones[Math.floor(tones.length / 2)] ?? 0)
  const border = Array.from({ length: width }, (_, x) =>
    [1, 2].map((d) => Math.max(0, Math.min(height - 1, Math.floor(above(x) - d))) * width + x),
  ).flat()
  for (const i of flood(width, new Uint8Array(over.length), border, (place) => over[place] === 1 && (light[place] ?? 1) <= dark))
    over[i] = 0
  return over
}

/**
 * What can be reached from the upper border without crossing an edge; and what of it can be reached without passing a gap of one or two pixels in one: there a sky
 * leaks into mountains that are as bright.
 */
function reachedFromAbove({ width, height, edges }: SmallPhoto, threshold: number): readonly [Uint8Array, Uint8Array] {
  const border = Array.from({ length: width }, (_, x) => x)
  const shut = Uint8Array.from(edges, (edge) => (edge > threshold ? 1 : 0))
  const reach = (closed: Uint8Array): Uint8Array => {
    const reached = new Uint8Array(width * height)
    flood(width, reached, border, (i) => closed[i] === 0)
    return widened(reached, width, height)
  }
  const all = reach(shut)
  const wide = widened(widened(reach(widened(shut, width, height)), width, height), width, height)
  return [all, all.map((value, i) => value & (wide[i] ?? 0))]
}

/** An edge is wide by a pixel on both sides of where it lies: one of them is given back. */
function widened(mask: Uint8Array, width: number, height: number): Uint8Array {
  return mask.map((value, i) => {
    const x = i % width
    return value ||
      (x > 0 && mask[i - 1]) ||
      (x < width - 1 && mask[i + 1]) ||
      (i >= width && mask[i - width]) ||
      (i < width * (height - 1) && mask[i + width])
      ? 1
      : 0
  })
}

/** Greater the more even sky and rest are in themselves. */
function evenness({ channels }: SmallPhoto, sky: Uint8Array): number {
  const [above, below] = [1, 0].map((which) => spreadOf(channels, sky, which)) as [number, number]
  return 1 / (2 * above + below)
}

/** Determinant and greatest eigenvalue of the covariance of the colours of a part, in codes of 255. */
function spreadOf([red, green, blue]: SmallPhoto['channels'], sky: Uint8Array, which: number): number {
  let [count, sr, sg, sb, srr, sgg, sbb, srg, srb, sgb] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0]
  for (let i = 0; i < sky.length; i++) {
    if (sky[i] !== which) continue
    const [r, g, b] = [255 * (red[i] ?? 0), 255 * (green[i] ?? 0), 255 * (blue[i] ?? 0)]
    count++
    sr += r
    sg += g
    sb += b
    srr += r * r
    sgg += g * g
    sbb += b * b
    srg += r * g
    srb += r * b
    sgb += g * b
  }
  if (count === 0) return Infinity
  const [mr, mg, mb] = [sr / count, sg / count, sb / count]
  const [a, b, c] = [srr / count - mr * mr, sgg / count - mg * mg, sbb / count - mb * mb]
  const [d, e, f] = [srg / count - mr * mg, srb / count - mr * mb, sgb / count - mg * mb]
  const determinant = a * (b * c - f * f) - d * (d * c - f * e) + e * (d * f - b * e)
  // The greatest eigenvalue by repeated multiplication.
  let [x, y, z] = [1, 1, 1]
  let length = 1
  for (let k = 0; k < 12; k++) {
    ;[x, y, z] = [a * x + d * y + e * z, d * x + b * y + f * z, e * x + f * y + c * z]
    length = Math.hypot(x, y, z) || 1
    ;[x, y, z] = [x / length, y / length, z / length]
  }
  return Math.max(0, determinant) ** (1 / 3) + length
}

/** What the sky encloses, or has between itself and the border, and is nearly as bright as the sky around it, belongs to it. */
function withClouds({ width, light, edges }: SmallPhoto, sky: Uint8Array): Uint8Array {
  const result = sky.slice()
  const seen = sky.slice()
  const mean = meanWhere(light, sky, 1)
  for (let start = 0; start < sky.length; start++) {
    if (seen[start]) continue
    const part = flood(width, seen, [start], () => true)
    const touchesBelow = part.some((i) => i >= sky.length - width)
    if (!touchesBelow && meanOf(light, part) > 0.8 * mean && meanOf(edges, part) < 0.12) for (const i of part) result[i] = 1
  }
  return result
}

function meanOf(plane: Float32Array, pixels: readonly number[]): number {
  return pixels.reduce((sum, i) => sum + (plane[i] ?? 0), 0) / Math.max(1, pixels.length)
}

/** Whether it can be a sky: it takes much of the upper border, is calmer than what is below it, and not darker; at night both are dark. */
function isSky({ width, light, edges, channels }: SmallPhoto, sky: Uint8Array): boolean {
  const part = sky.reduce((sum, value) => sum + value, 0) / sky.length
  const border = sky.subarray(0, width).reduce((sum, value) => sum + value, 0) / width
  const ground = sky.subarray(-width).reduce((sum, value) => sum + value, 0) / width
  if (part < LEAST_PART || part > MOST_PART || border < LEAST_OF_BORDER || ground > MOST_OF_GROUND) return false
  const [above, below] = [meanWhere(light, sky, 1), meanWhere(light, sky, 0)]
  const [calm, rough] = [meanWhere(edges, sky, 1), meanWhere(edges, sky, 0)]
  const [r, g, b] = channels.map((channel) => meanWhere(channel, sky, 1)) as [number, number, number]
  const green = g > 1.06 * Math.max(r, b)
  // A wall by lamplight is warm and dark; a sky that is warm is bright.
  const wall = r > 1.2 * b && above < 0.45
  return !green && !wall && (above > NOT_DARKER * below || isLitAtItsEnd(light, sky, width)) && calm < 0.6 * rough
}

/** Whether a sky is not darker than the ground where the two meet: at dusk it is dark overhead, and water shows only what is low of it. */
function isLitAtItsEnd(light: Float32Array, sky: Uint8Array, width: number): boolean {
  const height = light.length / width
  const reach = Math.ceil(NEAR_ITS_END * height)
  let [over, overCount, under, underCount] = [0, 0, 0, 0]
  skyEnds(sky, width, height).forEach((end, x) => {
    for (let d = 0; d < reach; d++) {
      const [above, below] = [end - 1 - d, end + d]
      if (above >= 0 && sky[above * width + x]) {
        over += light[above * width + x] ?? 0
        overCount++
      }
      if (end < 0 || below >= height) continue
      under += light[below * width + x] ?? 0
      underCount++
    }
  })
  return over * underCount > NOT_DARKER * under * overCount
}

function meanWhere(plane: ArrayLike<number>, mask: Uint8Array, which: number): number {
  let [sum, count] = [0, 0]
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] !== which) continue
    sum += plane[i] ?? 0
    count++
  }
  return count > 0 ? sum / count : 0
}
