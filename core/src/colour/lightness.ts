import type { Rgb } from './hex'

/** Where the cube root of CIE lightness gives way to a line. */
const KNEE = 216 / 24389
const SLOPE = 24389 / 27

/** CIE 1976 lightness L*, 0-100, of linear sRGB (CIE 15; luminance by the weights of IEC 61966-2-1). */
export function lightnessOf([red, green, blue]: Rgb): number {
  const luminance = 0.2126 * red + 0.7152 * green + 0.0722 * blue
  return luminance > KNEE ? 116 * Math.cbrt(luminance) - 16 : SLOPE * luminance
}
