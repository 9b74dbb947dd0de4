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
