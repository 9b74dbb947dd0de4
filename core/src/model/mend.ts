import { z } from 'zod'
import { controlOf, limitsOf, nearestNumber } from './controls'
import { listLimit } from './roles'
import { GONE, optionFor } from './walk'

/** A document as far as it can be read, and what had to be changed for that, in words for the person. */
export interface Mended<T> {
  readonly value: T
  readonly changes: readonly string[]
}

/**
 * A damaged document with as little changed as makes it valid: a number outside its range becomes the nearest one, an unknown key is dropped, a
 * missing one takes its usual value; what cannot be made valid leaves its list, or is set to nothing. Undefined if what must be there cannot be read.
 */
export function mend<T>(schema: z.ZodType<T>, value: unknown): Mended<T> | undefined {
  const changes: string[] = []
  const found = mended(schema, value, changes)
  const result = found === GONE ? undefined : schema.safeParse(found)
  return result?.success ? { value: result.data, changes } : undefined
}

function mended(schema: z.ZodType, value: unknown, changes: string[]): unknown {
  if (schema instanceof z.ZodDefault)
    return value === undefined ? undefined : orNothing(schema.unwrap() as z.ZodType, value, undefined, changes)
  if (schema instanceof z.ZodNullable) return value === null ? null : orNothing(schema.unwrap() as z.ZodType, value, null, changes)
  if (schema instanceof z.ZodNumber) return mendedNumber(schema, value, changes)
  if (schema instanceof z.ZodArray && Array.isArray(value)) return mendedList(schema, value, changes)
  if (isRecord(value)) {
    if (schema instanceof z.ZodDiscriminatedUnion) return mendedKind(schema, value, changes)
    if (schema instanceof z.ZodObject) return mendedObject(schema, value, changes)
  }
  return schema.safeParse(value).success ? value : GONE
}

/** What may be left out is left out if it cannot be read. */
function orNothing(schema: z.ZodType, value: unknown, nothing: null | undefined, changes: string[]): unknown {
  const found = mended(schema, value, changes)
  return found === GONE ? nothing : found
}

function mendedNumber(schema: z.ZodNumber, value: unknown, changes: string[]): unknown {
  if (typeof value !== 'number' || !Number.isFinite(value)) return GONE
  const nearest = nearestNumber(value, limitsOf(schema))
  if (nearest !== value) changes.push(`${controlOf(schema)?.label ?? 'A number'} was ${value} and is ${nearest} now`)
  return nearest
}

function mendedList(schema: z.ZodArray, list: readonly unknown[], changes: string[]): unknown {
  const limit = listLimit(schema)
  const words = limit?.words ?? 'items'
  const items = list.flatMap((item) => {
    const found = mended(schema.element as z.ZodType, item, changes)
    if (found === GONE) changes.push(`${nameOf(item)} was left out of the ${words}`)
    return found === GONE ? [] : [found]
  })
  if (limit && items.length > limit.most) changes.push(`${items.length - limit.most} of the ${words} were left out`)
  const kept = limit ? items.slice(0, limit.most) : items
  return schema.safeParse(kept).success ? kept : GONE
}

function mendedKind(schema: z.ZodDiscriminatedUnion, value: Record<string, unknown>, changes: string[]): unknown {
  try {
    return mendedObject(optionFor(schema, value), value, changes)
  } catch {
    return GONE
  }
}

function mendedObject(schema: z.ZodObject, value: Record<string, unknown>, changes: string[]): unknown {
  const shape = schema.shape as Record<string, z.ZodType>
  const entries: [string, unknown][] = []
  for (const [key, within] of Object.entries(shape)) {
    const found = mended(within, value[key], changes)
    if (found === GONE) return GONE
    if (found !== undefined) entries.push([key, found])
  }
  const unknown = Object.keys(value).filter((key) => !(key in shape))
  if (unknown.length > 0) changes.push(`${unknown.map((key) => `“${key}”`).join(', ')} was not known and was dropped`)
  return Object.fromEntries(entries)
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function nameOf(item: unknown): string {
  const { name, look, kind } = isRecord(item) ? item : {}
  if (typeof name === 'string' && name) return `“${name}”`
  // Of an effect without a name of its own the id of its look says more than its kind.
  if (typeof look === 'string' && look) return `“${look.replaceAll('-', ' ')}”`
  return typeof kind === 'string' ? `a ${kind}` : 'one'
}
