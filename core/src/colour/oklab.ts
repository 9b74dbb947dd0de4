import { linearOf, type Rgb } from './hex'

/** OKLab of an sRGB-encoded colour: lightness, green to red, blue to yellow (Ottosson 2020). For showing and choosing; pictures use the kernels. */
export function oklabOf(colour: Rgb): readonly [number, number, number] {
  const [red, green, blue] = linearOf(colour)
  const l = Math.cbrt(0.4122214708 * red + 0.5363325363 * green + 0.0514459929 * blue)
  const m = Math.cbrt(0.2119034982 * red + 0.6806995451 * green + 0.1073969566 * blue)
  const s = Math.cbrt(0.0883024619 * red + 0.2817188376 * green + 0.6299787005 * blue)
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ]
}
