import { steady } from '../graph/steady'
import { drawnCover, type Streaks } from '../operations/sources/streaks/drawnCover'
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

/** A tile, and how far beyond it a blur that is no longer slight makes all be drawn. */
const [TILE, SLIGHT, BEYOND] = [512, 16, 4]

/** How much more there is to draw for a tile where all is blurred afterwards. @param blur standard deviation, px */
export function drawnForBlur(blur: number): number {
  return ((TILE + 2 * BEYOND * Math.max(0, blur - SLIGHT)) / TILE) ** 2
}

/** How often squares in which each pixel is looked at may cover the photo. */
const MOST_SQUARES = 8

/** Largest reach, px, of so many things that are drawn in a square about their places. None covers more than the photo. */
export function mostReach(count: number, photo: Size): number {
  if (count <= MOST_SQUARES) return 2 * diagonalOf(photo)
  return Math.max(1, 0.5 * Math.sqrt((MOST_SQUARES * photo.width * photo.height) / count))
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

/** How often all layers of an effect together may have each pixel looked at. */
const MOST_TOGETHER = 60
/** Layers of specks, each bounded by itself, spaced so that all of them together stay bounded too. */
export function boundedTogether<T extends Streaks>(layers: readonly T[]): readonly T[] {
  const cover = layers.reduce((sum, layer) => sum + drawnCover(layer), 0)
  if (cover <= MOST_TOGETHER) return layers
  const wider = Math.sqrt(cover / MOST_TOGETHER)
  return layers.map((layer) => ({ ...layer, spacing: steady(layer.spacing * wider) }))
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
