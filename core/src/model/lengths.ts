import type { z } from 'zod'
import type { Size } from '../planes/grid'
import { limitsOf } from './controls'
import { mapDocument } from './walk'

/** The size that starting values are written for: 6 megapixels. */
const REFERENCE_MEGAPIXELS = 6

/** Factor by which lengths grow from the reference to a photo: the square root of the ratio of megapixels. */
export function lengthFactor(photo: Size): number {
  return Math.sqrt((photo.width * photo.height) / (REFERENCE_MEGAPIXELS * 1e6))
}

/** How values in photo px change between two photos: lengths by the root of the megapixels, places with the sides of the frame. */
export interface Fit {
  readonly length: number
  readonly x: number
  readonly y: number
}

/** From a photo of one size to one of another. */
export function fitBetween(from: Size, to: Size): Fit {
  return { length: lengthFactor(to) / lengthFactor(from), x: to.width / from.width, y: to.height / from.height }
}

/** The fit that multiplies everything by one factor. */
export function evenFit(factor: number): Fit {
  return { length: factor, x: factor, y: factor }
}

/** `value` with every length and place in it fitted, kept inside its hard range; everything else as it was. */
export function fitLengths<T>(schema: z.ZodType<T>, value: T, fit: Fit): T {
  return mapDocument(schema, value, (found, { measures }, at) => {
    if (!measures) return found
    if (measures === 'stroke points') return fittedPoints(found as number[], fit, limitsOf((at as z.ZodArray).element as z.ZodType))
    const { least, most } = limitsOf(at)
    return Math.min(most, Math.max(least, (found as number) * fit[measures]))
  })
}

/** Points x, y, pressure, x, y, pressure … */
function fittedPoints(points: readonly number[], fit: Fit, { least, most }: ReturnType<typeof limitsOf>): number[] {
  const within = (place: number): number => Math.min(most, Math.max(least, place))
  return points.map((value, index) => (index % 3 === 0 ? within(value * fit.x) : index % 3 === 1 ? within(value * fit.y) : value))
}
