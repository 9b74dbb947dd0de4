import type { Kernels } from '../graph/operation'
import { planesOfSide } from '../photo/coarsePlanes'
import type { PhotoData } from '../photo/photoData'
import { focusEdges, type FocusEdges } from './focusEdges'
import type { Steps } from './steps'

/** A photo as it is read: small, in roots of linear light, which are nearly as even to the eye as codes are. */
export interface SmallPhoto {
  readonly width: number
  readonly height: number
  /** Red, green, blue, 0-1, row by row. */
  readonly channels: readonly [Float32Array, Float32Array, Float32Array]
  /** Their mean. */
  readonly light: Float32Array
  /** Strongest change of a channel from pixel to pixel. */
  readonly edges: Float32Array
  /** Edges in focus and out of it; nothing if they were not looked for. */
  readonly focus?: FocusEdges
}

/** Longer side, px: always the same, since what counts as an edge depends on it. Smaller photos stay as they are. */
const SIDE = 256

/** The photo at one fixed size. */
export function* smallPhoto(kernels: Kernels, photo: PhotoData): Steps<SmallPhoto> {
  const { width, height, planes } = planesOfSide(kernels, photo, SIDE)
  const roots = planes.map((plane) => plane.map((value) => Math.sqrt(Math.max(0, value))))
  yield
  const focus = yield* focusEdges(kernels, photo, { width, height })
  yield
  return { ...smallPhotoOf(width, height, roots as unknown as SmallPhoto['channels']), focus }
}

/** @param channels roots of linear red, green and blue */
export function smallPhotoOf(width: number, height: number, channels: SmallPhoto['channels']): SmallPhoto {
  const [red, green, blue] = channels
  const light = red.map((value, i) => (value + (green[i] ?? 0) + (blue[i] ?? 0)) / 3)
  const edges = new Float32Array(width * height)
  for (const channel of channels.map((plane) => softened(plane, width, height))) {
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const across = at(channel, width, height, x + 1, y) - at(channel, width, height, x - 1, y)
        const down = at(channel, width, height, x, y + 1) - at(channel, width, height, x, y - 1)
        const i = y * width + x
        edges[i] = Math.max(edges[i] ?? 0, Math.sqrt(across * across + down * down) / 2)
      }
    }
  }
  return { width, height, channels, light, edges }
}

/** A value of a plane; the border repeats. */
export function at(plane: ArrayLike<number>, width: number, height: number, x: number, y: number): number {
  return plane[Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x))] ?? 0
}

/** Mean of a pixel and its neighbours, twice as much of the pixel itself. */
function softened(plane: Float32Array, width: number, height: number): Float32Array {
  return Float32Array.from(plane, (value, i) => {
    const [x, y] = [i % width, Math.floor(i / width)]
    const around = at(plane, width, height, x - 1, y) + at(plane, width, height, x + 1, y)
    return (2 * value + around + at(plane, width, height, x, y - 1) + at(plane, width, height, x, y + 1)) / 6
  })
}

/**
 * The pixels that hang together with `from` through pixels for which `open` holds, those of `from` for which it does among them; left, right, above and below.
 * @param reached 1 for each that was reached; those that are 1 already are left alone
 */
export function flood(width: number, reached: Uint8Array, from: Iterable<number>, open: (i: number) => boolean): readonly number[] {
  const pixels: number[] = []
  const visit = (i: number): void => {
    if (reached[i] || !open(i)) return
    reached[i] = 1
    pixels.push(i)
  }
  for (const i of from) visit(i)
  for (let at = 0; at < pixels.length; at++) {
    const i = pixels[at] as number
    const x = i % width
    if (x > 0) visit(i - 1)
    if (x < width - 1) visit(i + 1)
    if (i >= width) visit(i - width)
    if (i + width < reached.length) visit(i + width)
  }
  return pixels
}

/** Mean over a square about each pixel; the border repeats. */
export function boxMean(plane: Float32Array, width: number, height: number, reach: number): Float32Array {
  const along = (from: Float32Array, length: number, step: number, lines: number, lineStep: number): Float32Array => {
    const out = new Float32Array(from.length)
    for (let k = 0; k < lines; k++) {
      const valueAt = (i: number): number => from[k * lineStep + Math.max(0, Math.min(length - 1, i)) * step] as number
      let sum = 0
      for (let i = -reach; i < reach; i++) sum += valueAt(i)
      for (let i = 0; i < length; i++) {
        sum += valueAt(i + reach)
        out[k * lineStep + i * step] = sum / (2 * reach + 1)
        sum -= valueAt(i - reach)
      }
    }
    return out
  }
  return along(along(plane, width, 1, height, width), height, width, width, 1)
}
