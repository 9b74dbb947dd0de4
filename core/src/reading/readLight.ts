import { boxMean, type SmallPhoto } from './smallPhoto'

/** A light is so much brighter than the middle of what is around it: more so where no sky is, since much else shines there. */
const BRIGHTER = { sky: 1.25, elsewhere: 1.8 }
const LEAST_LIGHT = { sky: 0.35, elsewhere: 0.7 }
/** A lamp, or a sun between things, is so much brighter than all of the sky; else the sky has the light. */
const OUTSHINES = 1.1
/** What is nearly as bright as it takes no more than this part of the photo: a white sky is no light. */
const MOST_PART = 0.12
const NEARLY = 0.9
/** Half the window over which brightness is meant, and how far around the brightest place the middle of a light is looked for, as parts of the width. */
const REACH = 0.02
const AROUND = 0.06

/** Of the height: what shines of itself is rather looked for above. */
const UPPER = 0.5
const UNEVEN = 1.05

/** As parts of width and height. */
export interface Place {
  readonly x: number
  readonly y: number
}

/**
 * The light that a photo is lit by, if one is seen: the brightest place, a little blurred, if it stands out and is not all of the sky. As parts of width and height.
 * Common practice; no source.
 * @param over the rows down to which the sky lies, by the column, where there is one
 */
export function readLight(photo: SmallPhoto, over: ((x: number) => number) | undefined): Place | undefined {
  const { width, height, light } = photo
  const mean = boxMean(light, width, height, blurOf(width))
  const isSky = (i: number): boolean => over !== undefined && Math.floor(i / width) < over(i % width)
  const all = [...mean.keys()]
  const sky = all.filter(isSky)
  const elsewhere = all.filter((i) => !isSky(i))
  const inSky = standsOut(mean, sky, sky, 'sky')
  const outside = standsOut(mean, elsewhere, all, 'elsewhere')
  const skyIs = sky.reduce((most, i) => Math.max(most, mean[i] ?? 0), 0)
  const first = outside !== undefined && (inSky === undefined || (mean[outside] ?? 0) > OUTSHINES * skyIs) ? outside : inSky
  return first === undefined ? undefined : middleOf(mean, width, height, first)
}

/** The brightest place of the upper part, a little blurred; nothing if that is as bright all over. As parts of width and height. */
export function brightestAbove({ width, height, light }: SmallPhoto): Place | undefined {
  const mean = boxMean(light, width, height, blurOf(width))
  const upper = mean.slice(0, width * Math.ceil(UPPER * height))
  const first = upper.indexOf(upper.reduce((most, value) => Math.max(most, value), 0))
  const middle = upper.sort()[Math.floor(upper.length / 2)] ?? 0
  return (mean[first] ?? 0) > UNEVEN * middle ? middleOf(mean, width, height, first) : undefined
}

function blurOf(width: number): number {
  return Math.max(1, Math.round(REACH * width))
}

/** The brightest of some places, if it stands out among what is around. */
function standsOut(
  mean: Float32Array,
  places: readonly number[],
  around: readonly number[],
  kind: keyof typeof BRIGHTER,
): number | undefined {
  const brightest = places.reduce<number | undefined>(
    (best, i) => ((mean[i] ?? 0) > (best === undefined ? 0 : (mean[best] ?? 0)) ? i : best),
    undefined,
  )
  if (brightest === undefined) return undefined
  const most = mean[brightest] ?? 0
  const tones = around.map((i) => mean[i] ?? 0).sort((a, b) => a - b)
  const near = around.filter((i) => (mean[i] ?? 0) > NEARLY * most)
  const isLight = most >= LEAST_LIGHT[kind] && most >= BRIGHTER[kind] * (tones[Math.floor(tones.length / 2)] ?? 0)
  return isLight && near.length <= MOST_PART * mean.length ? brightest : undefined
}

/** The middle of what is nearly as bright about a place. */
function middleOf(mean: Float32Array, width: number, height: number, place: number): Place {
  const reach = Math.round(AROUND * width)
  const [column, row] = [place % width, Math.floor(place / width)]
  const least = NEARLY * (mean[place] ?? 0)
  let [x, y, whole] = [0, 0, 0]
  for (let v = Math.max(0, row - reach); v <= Math.min(height - 1, row + reach); v++) {
    for (let u = Math.max(0, column - reach); u <= Math.min(width - 1, column + reach); u++) {
      const weight = Math.max(0, (mean[v * width + u] ?? 0) - least)
      x += weight * (u + 0.5)
      y += weight * (v + 0.5)
      whole += weight
    }
  }
  return { x: x / whole / width, y: y / whole / height }
}
