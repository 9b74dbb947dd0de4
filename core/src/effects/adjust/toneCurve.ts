import { steady } from '../../graph/steady'
import type { CurvePoint } from '../../operations/fields/curve/curveTable'

export interface ToneNumbers {
  readonly blacks: number
  readonly midtones: number
  readonly whites: number
  readonly contrast: number
}

/** By how much 100 moves its part of the curve. */
const END = 0.12
const MIDDLE = 0.15
const CONTRAST = 0.12
const STEPS = 16

/**
 * The curve of blacks, midtones, whites and contrast (each -100 to 100) over encoded tones x: x + 0.12 b (1 - x)³ + 0.15 m · 4 x (1 - x) + 0.12 w x³ + 0.12 c · 6.75 x (1 - x) (2 x - 1), never
 * falling. Common practice, no source.
 */
export function toneCurve({ blacks, midtones, whites, contrast }: ToneNumbers): CurvePoint[] {
  let highest = 0
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const x = i / STEPS
    const rest = 1 - x
    const ends = END * ((blacks / 100) * rest ** 3 + (whites / 100) * x ** 3)
    const middle = ((MIDDLE * midtones) / 100) * 4 * x * rest
    const steeper = ((CONTRAST * contrast) / 100) * 6.75 * x * rest * (2 * x - 1)
    highest = Math.max(highest, Math.min(1, Math.max(0, x + ends + middle + steeper)))
    return { x, y: steady(highest) }
  })
}
