import type { Rgb } from './hex'

/** OKLCh hue in degrees, 0-360, of an sRGB-encoded colour. Matrices: Ottosson 2020. For showing and choosing; pictures use the kernels. */
export function hueOf(colour: Rgb): number {
  const [red, green, blue] = colour.map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)) as [number, number, number]
  const l = Math.cbrt(0.4122214708 * red + 0.5363325363 * green + 0.0514459929 * blue)
  const m = Math.cbrt(0.2119034982 * red + 0.6806995451 * green + 0.1073969566 * blue)
  const s = Math.cbrt(0.0883024619 * red + 0.2817188376 * green + 0.6299787005 * blue)
  const a = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s
  const b = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s
  return ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
}
