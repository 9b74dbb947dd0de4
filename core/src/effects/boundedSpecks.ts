import type { Size } from '../planes/grid'

/** Specks of one layer: photo px. */
interface Specks {
  readonly spacing: number
  /** Standard deviation of a speck, and of the blur over it. */
  readonly sigma: number
  readonly blur: number
  /** Way that it is smeared along. */
  readonly length: number
}

/** Diagonals of the photo: longer and larger specks look the same. */
const LONGEST = 2
const LARGEST = 0.1
/** How often specks may cover the photo: far beyond what is white all over. */
const MOST_COVER = 120
/** How many of them a tile may have to look at. */
const MOST_SEEN = 3e6
/** Standard deviations from one side of a speck to the other. */
const WIDTH = 8

/**
 * Specks that a tile can draw within seconds whatever the numbers are: each number may be large, their product may not. Specks beyond are
 * shorter, smaller, or fewer; within what anybody sets nothing changes.
 */
export function boundedSpecks({ spacing, sigma, blur, length }: Specks, { width, height }: Size): Specks {
  const diagonal = Math.sqrt(width * width + height * height)
  const long = Math.min(length, LONGEST * diagonal)
  const [small, soft] = [Math.min(sigma, LARGEST * diagonal), Math.min(blur, LARGEST * diagonal)]
  const wide = WIDTH * Math.sqrt(small * small + soft * soft)
  const covered = Math.sqrt(((long + wide) * wide) / MOST_COVER)
  const seen = Math.sqrt(((width + 2 * (long + wide)) * (height + 2 * (long + wide))) / MOST_SEEN)
  return { spacing: Math.max(spacing, covered, seen), sigma: small, blur: soft, length: long }
}
