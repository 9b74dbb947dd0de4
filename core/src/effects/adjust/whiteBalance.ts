import { chromaticityOf, linearRgbOf } from '../../colour/temperature'
import type { Rgb } from '../../colour/hex'
import { steady } from '../../graph/steady'

/** Reciprocal megakelvin of daylight that is taken for white, and by how many warmth 100 goes beyond it. */
const WHITE = 1e6 / 6504
const WARMEST = 80
/** Exponent of two by which tint 100 takes green away from red and blue. */
const TINT = 0.5

/**
 * Factors of linear red, green and blue that keep the luminance of grey (Rec. 709): warmth shifts daylight by so many mired (reciprocal megakelvin, in which equal
 * steps look equal), tint takes green out. Common practice, no source.
 * @param warmth -100 to 100, above 0 warmer
 * @param tint -100 to 100, above 0 more magenta
 */
export function whiteBalanceGain(warmth: number, tint: number): Rgb {
  if (warmth === 0 && tint === 0) return [1, 1, 1]
  const mired = WHITE + (WARMEST * warmth) / 100
  const [light, white] = [linearRgbOf(chromaticityOf(1e6 / mired)), linearRgbOf(chromaticityOf(1e6 / WHITE))]
  const green = Math.pow(2, (-TINT * tint) / 100)
  const gains = light.map((value, i) => (value / (white[i] ?? 1)) * (i === 1 ? green : 1)) as unknown as Rgb
  const luminance = 0.2126 * gains[0] + 0.7152 * gains[1] + 0.0722 * gains[2]
  return gains.map((value) => steady(value / luminance)) as unknown as Rgb
}

/**
 * Warmth and tint that make a colour grey, as near as they come.
 * @param colour linear red, green, blue
 */
export function balanceForGrey([red, green, blue]: Rgb): { readonly warmth: number; readonly tint: number } {
  const ratio = (warmth: number): number => {
    const [r, , b] = whiteBalanceGain(warmth, 0)
    return (r * red) / Math.max(1e-6, b * blue)
  }
  // Red over blue grows with warmth.
  let [low, high] = [-100, 100]
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (ratio(middle) < 1) low = middle
    else high = middle
  }
  const warmth = Math.round((low + high) / 2)
  const [r, g, b] = whiteBalanceGain(warmth, 0)
  const rest = (g * green) / Math.max(1e-6, Math.sqrt(r * red * b * blue))
  const tint = (100 * Math.log2(Math.max(1e-6, rest))) / TINT
  return { warmth, tint: Math.round(Math.min(100, Math.max(-100, tint))) }
}
