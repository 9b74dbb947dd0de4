import type { Rect } from './rect'

/**
 * Result of an operation on a rectangle of the grid: addresses of 32-bit float planes in kernel memory.
 * - `tones`: red, green, blue, sRGB-encoded, 0-1 but not clamped
 * - `field`: intensity 0-1, and at a reduced scale perhaps the variance inside each pixel
 * - `mask`: 0 shut - 1 open
 * - `layer`: red, green, blue, alpha; colours not multiplied by alpha
 * - `parts`: planes that only the operations beside the one that made them know how to read
 */
export interface Value {
  readonly kind: 'tones' | 'field' | 'mask' | 'layer' | 'parts'
  readonly rect: Rect
  readonly planes: readonly number[]
}

function pixelCount(rect: Rect): number {
  return rect.width * rect.height
}

/** Bytes that a value occupies. */
export function byteSize(value: Value): number {
  return value.planes.length * pixelCount(value.rect) * 4
}
