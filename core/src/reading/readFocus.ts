import type { Size } from '../planes/grid'
import { evenOut } from './evenOut'
import type { Segments } from './segments'
import { at, boxMean, type SmallPhoto } from './smallPhoto'

/** Of the width: from so far a part without edges of its own takes what is around it. */
const REACH = 0.05
/** A sharp edge where two parts meet may be that of either: it counts so much for the one that it lies in. */
const AT_A_BORDER = 0.15
/** So much of the mean of all edges has to be in a part that they are believed. */
const LITTLE = 0.1
/** A photo has a focus if so much of it is surely out of focus, and so much surely in it. */
const SURE = 0.7
const LEAST_OUT = 0.3
const LEAST_IN = 0.04
/** And if edges out of focus are seen in so much of it: shade is soft too, but has few. */
const LEAST_EDGES = 0.01
const EDGE = 0.02
/** How often what is found is evened out along rows and columns where the photo has no edge. */
const EVENED = 60

/**
 * How far each place is out of focus, from 0 to 1; nothing if the photo is sharp all over, or nowhere. What stands in one colour is so as a whole: by the edges inside of it, and where it has few by what is around it.
 * Common practice; no source.
 * @param sky where it is, which tells nothing: clouds are soft
 */
export function outOfFocus(photo: SmallPhoto, { labels, count }: Segments, sky: Uint8Array | undefined): Float32Array | undefined {
  const { width, height, focus } = photo
  if (!focus || focus.soft.filter((sum) => sum > EDGE).length < LEAST_EDGES * focus.soft.length) return undefined
  const parts = Array.from({ length: count }, () => ({ sharp: 0, soft: 0, area: 0 }))
  labels.forEach((label, i) => {
    const part = parts[label]
    if (!part || sky?.[i]) return
    part.area++
    part.soft += focus.soft[i] ?? 0
    part.sharp += (focus.sharp[i] ?? 0) * (isInside(labels, width, height, i) ? 1 : AT_A_BORDER)
  })
  const [area, edges] = parts.reduce(([area, edges], part) => [area + part.area, edges + part.sharp + part.soft], [0, 0])
  if (!(edges > 0)) return undefined
  const least = (LITTLE * edges) / area
  const believed = parts.map(({ sharp, soft, area }) => (sharp + soft) / (sharp + soft + least * area || 1))
  const out = parts.map(({ sharp, soft }) => soft / (sharp + soft || 1))
  const around = aroundParts(photo, labels, believed, out)
  const found = Float32Array.from(labels, (label, i) => {
    const belief = believed[label] ?? 0
    return belief * (out[label] ?? 0) + (1 - belief) * (around[i] ?? 0.5)
  })
  const [outside, inside] = [(value: number) => value > SURE, (value: number) => value < 1 - SURE].map(
    (is) => found.filter((value, i) => !sky?.[i] && is(value)).length,
  )
  if ((outside ?? 0) < LEAST_OUT * area || (inside ?? 0) < LEAST_IN * area) return undefined
  evenOut(photo, found, { times: EVENED, along: 'rows' })
  evenOut(photo, found, { times: EVENED, along: 'columns' })
  return found
}

function isInside(labels: Int32Array, width: number, height: number, i: number): boolean {
  const [x, y] = [i % width, Math.floor(i / width)]
  const label = labels[i]
  return [-1, 1].every((d) => at(labels, width, height, x + d, y) === label && at(labels, width, height, x, y + d) === label)
}

/** What is found around each place, of what is believed; a half where there is nothing. */
function aroundParts({ width, height }: Size, labels: Int32Array, believed: readonly number[], out: readonly number[]): Float32Array {
  const reach = Math.max(1, Math.round(REACH * width))
  const weights = boxMean(
    Float32Array.from(labels, (label) => believed[label] ?? 0),
    width,
    height,
    reach,
  )
  const sums = boxMean(
    Float32Array.from(labels, (label) => (believed[label] ?? 0) * (out[label] ?? 0)),
    width,
    height,
    reach,
  )
  return sums.map((sum, i) => (sum + 0.005) / ((weights[i] ?? 0) + 0.01))
}
