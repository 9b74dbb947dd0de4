import type { Rgb } from './hex'
import { oklabOf } from './oklab'

/** OKLCh hue in degrees, 0-360, of an sRGB-encoded colour. */
export function hueOf(colour: Rgb): number {
  const [, a, b] = oklabOf(colour)
  return ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
}
