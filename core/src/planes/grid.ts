import type { Rect } from './rect'

/**
 * The pixel grid of a whole picture at one scale. It always covers the photo exactly, so that a pixel is
 * `pitchX` by `pitchY` photo px; at scale 1 the pitch is 1.
 */
export interface Grid {
  readonly width: number
  readonly height: number
  readonly pitchX: number
  readonly pitchY: number
  /** For a first answer: nothing is computed finer than this grid, so that the picture may differ from the reduced export. */
  readonly draft?: true
}

export interface Size {
  readonly width: number
  readonly height: number
}

/**
 * Grid of a photo at `scale`.
 * @param photo size in px
 * @param scale above 0, at most 1
 * @throws RangeError on another scale
 */
export function gridAt(photo: Size, scale: number): Grid {
  if (!(scale > 0 && scale <= 1)) throw new RangeError(`A scale lies above 0 and is at most 1; ${scale} came.`)
  const width = Math.max(1, Math.round(photo.width * scale))
  const height = Math.max(1, Math.round(photo.height * scale))
  return { width, height, pitchX: photo.width / width, pitchY: photo.height / height }
}

/** The whole grid as a rectangle. */
export function gridBounds(grid: Grid): Rect {
  return { x: 0, y: 0, width: grid.width, height: grid.height }
}

/** The grid pixels that a region in photo px touches. */
export function regionOnGrid(region: Rect, grid: Grid): Rect {
  const x = Math.max(0, Math.floor(region.x / grid.pitchX + 1e-9))
  const y = Math.max(0, Math.floor(region.y / grid.pitchY + 1e-9))
  const right = Math.min(grid.width, Math.ceil((region.x + region.width) / grid.pitchX - 1e-9))
  const bottom = Math.min(grid.height, Math.ceil((region.y + region.height) / grid.pitchY - 1e-9))
  return { x, y, width: Math.max(0, right - x), height: Math.max(0, bottom - y) }
}

/** Photo px per grid px, the mean of both directions. */
export function pitchOf(grid: Grid): number {
  return Math.sqrt(grid.pitchX * grid.pitchY)
}

/** Pixels that the shorter side of a coarse grid has at least. */
const LEAST_SIDE = 16
const COARSEST = 64
/** A grid that is hardly coarser is not worth it. */
const LEAST_GAIN = 1.5
/** From here on a grid is small enough for everything to be computed on it. */
const SMALL_FROM_PITCH = 2.5

/**
 * The coarse grids of a photo, on which what is smooth is computed: 2, 4, 8 … photo px a pixel, the same ones whatever grid the picture is wanted on.
 * @param pitch 2, 4, 8 …
 */
function coarseGrid(photo: Size, pitch: number): Grid {
  return gridAt(photo, 1 / pitch)
}

/** The size of the photo that a grid covers, whole px. */
export function photoOf(grid: Grid): Size {
  return { width: Math.round(grid.width * grid.pitchX), height: Math.round(grid.height * grid.pitchY) }
}

/** Which coarse grid of its photo this is: 2, 4, 8 …; undefined for another grid. */
function coarseness(grid: Grid): number | undefined {
  const near = 2 ** Math.round(Math.log2(pitchOf(grid)))
  if (near < 2) return undefined
  const same = coarseGrid(photoOf(grid), near)
  return same.width === grid.width && same.height === grid.height ? near : undefined
}

/** The coarsest grid of the photo whose pixels are at most `pitch` photo px; undefined if it is not worth it beside `grid`, or that is small anyway. */
export function coarserGrid(grid: Grid, pitch: number): Grid | undefined {
  if (pitch < LEAST_GAIN * pitchOf(grid)) return undefined
  if (pitchOf(grid) > SMALL_FROM_PITCH && coarseness(grid) === undefined) return undefined
  const photo = photoOf(grid)
  for (let coarse = COARSEST; coarse >= 2 && coarse >= LEAST_GAIN * pitchOf(grid); coarse /= 2) {
    if (coarse <= pitch && Math.min(photo.width, photo.height) >= LEAST_SIDE * coarse) {
      const found = coarseGrid(photo, coarse)
      return grid.draft ? { ...found, draft: true } : found
    }
  }
  return undefined
}

/** The next finer of the coarse grids, if `grid` is one and has pixels of more than `pitch` photo px. */
export function finerGrid(grid: Grid, pitch: number): Grid | undefined {
  if (grid.draft) return undefined
  const coarse = coarseness(grid)
  return coarse === undefined || coarse <= Math.max(2, pitch) ? undefined : coarseGrid(photoOf(grid), coarse / 2)
}
