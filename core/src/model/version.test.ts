import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { marksFileSchema } from './marksFile'
import { recipeSchema } from './recipe'
import { sceneSchema } from './scene'
import { ageOf, documentVersion } from './version'

/** Every key and every kind that a document may have. Limits of numbers and words are no part of it. */
function shapeOf(schema: z.ZodType): unknown {
  if (schema instanceof z.ZodDefault || schema instanceof z.ZodNullable || schema instanceof z.ZodOptional)
    return shapeOf(schema.unwrap() as z.ZodType)
  if (schema instanceof z.ZodArray) return [shapeOf(schema.element as z.ZodType)]
  if (schema instanceof z.ZodTuple) return (schema.def.items as readonly z.ZodType[]).map(shapeOf)
  if (schema instanceof z.ZodDiscriminatedUnion || schema instanceof z.ZodUnion) return (schema.options as z.ZodType[]).map(shapeOf)
  if (schema instanceof z.ZodObject) {
    const entries = Object.entries(schema.shape as Record<string, z.ZodType>).filter(([key]) => key !== 'minor')
    return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, within]) => [key, shapeOf(within)]))
  }
  if (schema instanceof z.ZodEnum) return [...(schema.options as string[])].sort()
  if (schema instanceof z.ZodLiteral) return [...schema.values]
  return schema.def.type
}

/** The shape of all documents at each minor version: a new key or kind raises the minor version, and gets a line here. */
const shapes: Readonly<Record<number, string>> = {
  0: 'e824ed7807337b0c',
  1: '9afcc033ce27f6a3',
  2: '9b06784afffc6d0b',
  3: '31357fa9ffdad6b9',
}

describe('the version of a document', () => {
  it('has a higher minor number with each key and kind that is new', () => {
    const shape = [sceneSchema, recipeSchema, marksFileSchema].map(shapeOf)
    const found = createHash('sha256').update(JSON.stringify(shape)).digest('hex').slice(0, 16)
    expect(found, 'a key or kind is new, or gone').toBe(shapes[documentVersion.minor])
    expect(Object.keys(shapes)).toHaveLength(documentVersion.minor + 1)
  })

  it.each([
    [{ version: 1 }, 'known'],
    [{ ...documentVersion }, 'known'],
    [{ ...documentVersion, minor: documentVersion.minor + 1 }, 'newer minor'],
    [{ version: 2, minor: 99 }, 'known'],
    [{ version: documentVersion.version + 1 }, 'newer'],
    [{ version: 'four' }, 'known'],
    [null, 'known'],
  ])('%j is %s', (document, age) => expect(ageOf(document)).toBe(age))
})
