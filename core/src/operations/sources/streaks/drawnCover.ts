import type { StreakLayer } from './streaks'

/** Standard deviations from the middle of a soft end to where it is gone. */
const END = 3.3

/** What of a layer of streaks says how often they lie over one another. */
export type Streaks = Pick<StreakLayer, 'spacing' | 'sigma' | 'blur' | 'length' | 'lengthVariation' | 'taper'>

/** How often the streaks of a layer lie over each place, as far as they are drawn: with their soft ends, and with the pixels beside them that are looked at. @param pitch photo px a pixel */
export function drawnCover({ spacing, sigma, blur, length, lengthVariation, taper }: Streaks, pitch = 1): number {
  const longest = length * (1 + lengthVariation)
  const end = Math.sqrt(Math.max(sigma, taper * longest) ** 2 + blur * blur)
  const wide = 2 * END * Math.sqrt(sigma * sigma + blur * blur) + 3 * pitch
  return ((longest + 2 * END * end) * wide) / (spacing * spacing)
}
