/** sRGB-encoded red, green, blue, each 0-1. */
export type Rgb = readonly [number, number, number]

/** Colour from `#rrggbb`. @throws RangeError on another text */
export function rgbFromHex(hex: string): Rgb {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex)
  if (!match) throw new RangeError(`A colour is written #rrggbb; “${hex}” came.`)
  const [red = 0, green = 0, blue = 0] = match.slice(1).map((digits) => parseInt(digits, 16) / 255)
  return [red, green, blue]
}

/** `#rrggbb`, each channel rounded to 8 bits. */
export function hexFromRgb(colour: Rgb): string {
  const digits = colour.map((value) =>
    Math.round(Math.min(1, Math.max(0, value)) * 255)
      .toString(16)
      .padStart(2, '0'),
  )
  return `#${digits.join('')}`
}

/** A colour with each channel replaced by what `change` gives for it. */
export function mapRgb(colour: Rgb, change: (channel: number, index: 0 | 1 | 2) => number): Rgb {
  return [change(colour[0], 0), change(colour[1], 1), change(colour[2], 2)]
}

/** An sRGB-encoded tone of linear light (IEC 61966-2-1), rounded to seven digits. */
export function encodedOf(linear: number): number {
  return Number((linear <= 0.0031308 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055).toPrecision(7))
}

/** Linear light of an sRGB-encoded colour (IEC 61966-2-1), rounded to seven digits, so that every machine has the same. */
export function linearOf(colour: Rgb): Rgb {
  return mapRgb(colour, (v) => Number((v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4)).toPrecision(7)))
}
