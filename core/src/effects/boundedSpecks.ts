import type { Size } from '../planes/grid'

// Each number of an effect may be large, their product may not: what is drawn in a tile has to end within seconds. Within what anybody sets nothing
// changes; beyond it there are fewer specks, and they are shorter or smaller.

/** Diagonals of the photo: longer and larger specks look the same. */
const LONGEST = 2
const LARGEST = 0.1
/** How often specks may cover the photo: far beyond what is white all over. */
const MOST_COVER = 60
/** How many of them a tile may have to look at. */
const MOST_SEEN = 3e6
/** Standard deviations from one side of a speck to the other. */
const WIDTH = 8

/** Least spacing of specks, px, so that they cover the photo no more often than that. @param long the way they are smeared along; @param wide across, px */
export function leastSpacing(long: number, wide: number, { width, height }: Size): number {
  const reach = 2 * (long + wide)
  return Math.max(Math.sqrt(((long + wide) * wide) / MOST_COVER), Math.sqrt(((width + reach) * (height + reach)) / MOST_SEEN))
}

/** Largest reach, px, of so many things that are drawn in a square about their places. */
export function mostReach(count: number, { width, height }: Size): number {
  return Math.max(1, 0.5 * Math.sqrt((5 * MOST_COVER * width * height) / Math.max(1, count)))
}

function diagonalOf({ width, height }: Size): number {
  return Math.sqrt(width * width + height * height)
}

/** Soft specks of one layer: photo px. */
interface Specks {
  readonly spacing: number
  /** Standard deviation of a speck, and of the blur over it. */
  readonly sigma: number
  readonly blur: number
  /** Way that it is smeared along. */
  readonly length: number
}

export function boundedSpecks({ spacing, sigma, blur, length }: Specks, photo: Size): Specks {
  const diagonal = diagonalOf(photo)
  const long = Math.min(length, LONGEST * diagonal)
  const [small, soft] = [Math.min(sigma, LARGEST * diagonal), Math.min(blur, LARGEST * diagonal)]
  const wide = WIDTH * Math.sqrt(small * small + soft * soft)
  return { spacing: Math.max(spacing, leastSpacing(long, wide, photo)), sigma: small, blur: soft, length: long }
}

/** Discs of one layer: photo px. */
interface Discs {
  readonly spacing: number
  readonly radius: number
  readonly length: number
}

export function boundedDiscs({ spacing, radius, length }: Discs, photo: Size): Discs {
  const diagonal = diagonalOf(photo)
  const [large, long] = [Math.min(radius, 2 * LARGEST * diagonal), Math.min(length, LONGEST * diagonal)]
  return { spacing: Math.max(spacing, leastSpacing(long, 3 * large, photo)), radius: large, length: long }
}
