import { describe, expect, it } from 'vitest'
import { noMarks } from '../model/marks'
import { parseRecipe } from '../model/recipe'
import { builtInRecipes, recipeTags } from './builtIn'
import { makeBuiltIn } from './makeBuiltIn'

const photo = { width: 3000, height: 2000 }

describe('built-in recipes', () => {
  it('are at least 24, of names and ids of their own, of every sort', () => {
    expect(builtInRecipes.length).toBeGreaterThanOrEqual(24)
    expect(new Set(builtInRecipes.map(({ id }) => id)).size).toBe(builtInRecipes.length)
    expect(new Set(builtInRecipes.map(({ name }) => name)).size).toBe(builtInRecipes.length)
    expect(new Set(builtInRecipes.map(({ tags }) => tags[0]))).toEqual(new Set(recipeTags))
  })

  it.each(builtInRecipes)('$name has two kinds and a mask at least, and is a recipe as a file holds one', (one) => {
    const made = makeBuiltIn(one, { photo, marks: noMarks })
    expect(new Set(made.effects.map(({ kind }) => kind)).size).toBeGreaterThanOrEqual(2)
    expect(made.effects.flatMap(({ where, region }) => [...where.masks, ...(region?.masks ?? [])]).length).toBeGreaterThan(0)
    expect(parseRecipe(JSON.stringify(made), 'made.json')).toEqual(made)
  })
})
