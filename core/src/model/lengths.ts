import { z } from 'zod'
import type { Size } from '../planes/grid'
import { controlOf, hardRange } from './controls'

/** The size that starting values are written for: 6 megapixels. */
const REFERENCE_MEGAPIXELS = 6

/** Factor by which lengths grow from the reference to a photo: the square root of the ratio of megapixels. */
export function lengthFactor(photo: Size): number {
  return Math.sqrt((photo.width * photo.height) / (REFERENCE_MEGAPIXELS * 1e6))
}

/** `value` with every length in it multiplied, kept inside its hard range; everything else as it was. */
export function scaleLengths<T>(schema: z.ZodType<T>, value: T, factor: number): T {
  return scaled(schema, value, factor) as T
}

function scaled(schema: unknown, value: unknown, factor: number): unknown {
  if (schema instanceof z.ZodNumber && controlOf(schema)?.measures === 'length') {
    const [least, most] = hardRange(schema)
    return Math.min(most, Math.max(least, (value as number) * factor))
  }
  if (schema instanceof z.ZodArray) return (value as unknown[]).map((item) => scaled(schema.element, item, factor))
  if (schema instanceof z.ZodDiscriminatedUnion) {
    return scaled(optionFor(schema, value), value, factor)
  }
  if (schema instanceof z.ZodObject) {
    const entries = Object.entries(value as object).map(([key, item]) => [
      key,
      scaled((schema.shape as Record<string, unknown>)[key], item, factor),
    ])
    return Object.fromEntries(entries) as unknown
  }
  return value
}

function optionFor(union: z.ZodDiscriminatedUnion, value: unknown): unknown {
  return union.options.find((option) => (option as z.ZodType).safeParse(value).success)
}
