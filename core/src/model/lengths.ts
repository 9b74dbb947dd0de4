import { z } from 'zod'
import type { Size } from '../planes/grid'
import { controlOf, hardRange } from './controls'

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
  return fitted(schema, value, fit) as T
}

/** Meta of a list x, y, pressure, x, y, pressure … */
export const STROKE_POINTS = { control: { measures: 'stroke points' } }

function fitted(schema: unknown, value: unknown, fit: Fit): unknown {
  if (schema instanceof z.ZodDefault) return fitted(schema.unwrap(), value, fit)
  if (schema instanceof z.ZodNumber) {
    const measures = controlOf(schema)?.measures
    if (!measures) return value
    const [least, most] = hardRange(schema)
    return Math.min(most, Math.max(least, (value as number) * fit[measures]))
  }
  if (schema instanceof z.ZodArray) {
    if (schema.meta()?.['control'] === STROKE_POINTS.control) return fittedPoints(value as number[], fit)
    return (value as unknown[]).map((item) => fitted(schema.element, item, fit))
  }
  if (schema instanceof z.ZodNullable) return value === null ? null : fitted(schema.unwrap(), value, fit)
  if (schema instanceof z.ZodDiscriminatedUnion) return fitted(optionFor(schema, value), value, fit)
  if (schema instanceof z.ZodObject) {
    const entries = Object.entries(value as object).map(([key, item]) => [
      key,
      fitted((schema.shape as Record<string, unknown>)[key], item, fit),
    ])
    return Object.fromEntries(entries) as unknown
  }
  return value
}

function fittedPoints(points: readonly number[], fit: Fit): number[] {
  return points.map((value, index) => (index % 3 === 0 ? value * fit.x : index % 3 === 1 ? value * fit.y : value))
}

function optionFor(union: z.ZodDiscriminatedUnion, value: unknown): unknown {
  const { discriminator } = union.def
  const kind = (value as Record<string, unknown>)[discriminator]
  return union.options.find((option) => {
    const literal = ((option as z.ZodObject).shape as Record<string, z.ZodType | undefined>)[discriminator]
    return literal?.safeParse(kind).success
  })
}
