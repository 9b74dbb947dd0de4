import { z } from 'zod'
import { rolesOf, type Roles } from './roles'

/** Returned by a visit for what is no longer there: an item leaves its list, the nearest value that may be null becomes null. */
export const GONE = Symbol('gone')

/** Takes a value with its roles and gives what stands in its place. */
export type Visit = (value: unknown, roles: Roles, schema: z.ZodType) => unknown

/**
 * A document with each value that has roles replaced by what `visit` gives for it, what lies within first. What does not change stays the same
 * object.
 * @param value what the schema accepts
 */
export function mapDocument<T>(schema: z.ZodType<T>, value: T, visit: Visit): T {
  return mapped(schema, value, visit, NONE) as T
}

/** Calls `see` for each value of a document that has roles. */
export function eachRole<T>(schema: z.ZodType<T>, value: T, see: (value: unknown, roles: Roles) => void): void {
  mapDocument(schema, value, (found, roles) => {
    see(found, roles)
    return found
  })
}

const NONE: Roles = {}

function isEmpty(roles: Roles): boolean {
  for (const _ in roles) return false
  return true
}

function mapped(schema: z.ZodType, value: unknown, visit: Visit, outer: Roles): unknown {
  const own = rolesOf(schema)
  const roles = outer === NONE ? own : { ...own, ...outer }
  if (schema instanceof z.ZodDefault) return mapped(schema.unwrap() as z.ZodType, value, visit, roles)
  if (schema instanceof z.ZodNullable) {
    const found = value === null ? null : mapped(schema.unwrap() as z.ZodType, value, visit, roles)
    return found === GONE ? null : found
  }
  const within = mappedWithin(schema, value, visit)
  return within === GONE || isEmpty(roles) ? within : visit(within, roles, schema)
}

function mappedWithin(schema: z.ZodType, value: unknown, visit: Visit): unknown {
  if (schema instanceof z.ZodArray) return mappedList(schema.element as z.ZodType, value as unknown[], visit)
  if (schema instanceof z.ZodDiscriminatedUnion) return mappedWithin(optionFor(schema, value), value, visit)
  if (schema instanceof z.ZodObject) return mappedObject(schema.shape as Record<string, z.ZodType>, value as Record<string, unknown>, visit)
  return value
}

function mappedList(element: z.ZodType, list: readonly unknown[], visit: Visit): unknown {
  // Thousands of bare numbers say nothing one by one.
  if (element instanceof z.ZodNumber && isEmpty(rolesOf(element))) return list
  const items = list.map((item) => mapped(element, item, visit, NONE)).filter((item) => item !== GONE)
  return items.length === list.length && items.every((item, index) => item === list[index]) ? list : items
}

function mappedObject(shape: Record<string, z.ZodType>, value: Record<string, unknown>, visit: Visit): unknown {
  let changed = false
  const entries: [string, unknown][] = []
  for (const [key, item] of Object.entries(value)) {
    const schema = shape[key]
    const found = schema ? mapped(schema, item, visit, NONE) : item
    if (found === GONE) return GONE
    changed ||= found !== item
    entries.push([key, found])
  }
  return changed ? Object.fromEntries(entries) : value
}

const optionsOf = new WeakMap<z.ZodDiscriminatedUnion, ReadonlyMap<unknown, z.ZodObject>>()

/** The option of a union that a value takes by its discriminator. @throws Error if there is none */
export function optionFor(union: z.ZodDiscriminatedUnion, value: unknown): z.ZodObject {
  const { discriminator } = union.def
  let options = optionsOf.get(union)
  if (!options) {
    const objects = union.options as readonly z.ZodObject[]
    options = new Map(objects.map((option) => [(option.shape as Record<string, z.ZodLiteral>)[discriminator]?.value, option]))
    optionsOf.set(union, options)
  }
  const kind = (value as Record<string, unknown> | null)?.[discriminator]
  const option = options.get(kind)
  if (!option) throw new Error(`There is no ${discriminator} “${String(kind)}” here.`)
  return option
}
