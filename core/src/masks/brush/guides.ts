import { hexFromRgb, type Rgb } from '../../colour/hex'
import { oklabOf } from '../../colour/oklab'
import type { BrushStroke } from './definition'

/** Of the diameter: so far apart lie the places along a stroke whose colours are looked at. */
const APART = 1 / 6
export const MOST_GUIDES = 400
/** Of a colour that is still the subject's, so much goes into the one that is followed. */
const FOLLOWS = 0.3

interface Place {
  readonly x: number
  readonly y: number
}

/** Places along a stroke whose colours decide where it stops, photo px. @param points x, y and pressure, again and again */
export function placesAlong(points: readonly number[], size: number): Place[] {
  const corners = Array.from({ length: Math.floor(points.length / 3) }, (_, i) => ({ x: points[3 * i] ?? 0, y: points[3 * i + 1] ?? 0 }))
  const sides = corners.slice(1).map((to, i) => Math.hypot(to.x - (corners[i]?.x ?? 0), to.y - (corners[i]?.y ?? 0)))
  const whole = sides.reduce((sum, side) => sum + side, 0)
  const apart = Math.max(size * APART, whole / (MOST_GUIDES - 2), 1)
  const [first] = corners
  const places: Place[] = first ? [first] : []
  let left = apart
  sides.forEach((side, i) => {
    const [from, to] = [corners[i], corners[i + 1]]
    if (!from || !to) return
    for (; left <= side; left += apart) {
      const t = left / side
      places.push({ x: from.x + t * (to.x - from.x), y: from.y + t * (to.y - from.y) })
    }
    left -= side
  })
  return places
}

/**
 * What a stroke that stops at edges keeps to: at each place the colour of what it began on, as that changes along the way. Where the hand has left it, the colour before counts, so
 * that a rough stroke does not take what is beside it.
 * @param colours of the places, sRGB-encoded
 * @param tolerance how far a colour may be off, OKLab
 */
export function guidesAlong(places: readonly Place[], colours: readonly Rgb[], tolerance: number): BrushStroke['guides'] {
  let followed = colours[0]
  return places.flatMap(({ x, y }, i) => {
    const found = colours[i]
    if (!found || !followed) return []
    if (offBetween(found, followed) <= tolerance) {
      const before = followed
      followed = found.map((channel, k) => (1 - FOLLOWS) * (before[k] ?? 0) + FOLLOWS * channel) as unknown as Rgb
    }
    return [{ x: tenth(x), y: tenth(y), colour: hexFromRgb(followed) }]
  })
}

function offBetween(a: Rgb, b: Rgb): number {
  const [p, q] = [oklabOf(a), oklabOf(b)]
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])
}

function tenth(value: number): number {
  return Math.round(10 * value) / 10
}
