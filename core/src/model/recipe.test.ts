import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { documentVersion } from './version'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import { rain } from '../effects/rain/definition'
import type { Size } from '../planes/grid'
import { controlOf, limitsOf, schemaAt } from './controls'
import { lengthFactor } from './lengths'
import { parseRecipe, stackFor } from './recipe'
import { UserProblem } from './userProblem'

const madeFor = { width: 3000, height: 2000 }
const recipe = () => ({
  format: 'welkinar-recipe',
  ...documentVersion,
  name: 'Evening rain',
  madeFor,
  groups: [],
  shared: [],
  pinned: [],
  amount: 100,
  anchors: [],
  groundwork: null,
  tags: [],
  effects: [structuredClone(newEffect(madeFor, { kind: 'rain', id: 'a' }))],
})

/** The recipe with one value at a path replaced. */
function changed(path: string, value: unknown): string {
  const made = structuredClone(recipe())
  const parts = path.split('.')
  const last = parts.pop()!
  const parent = parts.reduce<Record<string, unknown>>((at, part) => at[part] as Record<string, unknown>, made as never)
  if (value === undefined) delete parent[last]
  else parent[last] = value
  return JSON.stringify(made)
}

describe('recipes', () => {
  it('of version 2 are read as they were written, every starting look of every kind', () => {
    const file = new URL('../../../tests/fixtures/looksOfVersion2.json', import.meta.url)
    const { madeFor: size, effects } = JSON.parse(readFileSync(file, 'utf8')) as { madeFor: Size; effects: Record<string, Effect> }
    const list = Object.values(effects).map((effect, index) => ({ ...effect, id: `${index}` }))
    const text = JSON.stringify({ ...recipe(), madeFor: size, effects: list })
    // Controls that came later have the value that changes nothing.
    expect(parseRecipe(text, 'earlier.json').effects).toMatchObject(list)
  })

  it('whose effects share an id are refused', () => {
    const [one] = recipe().effects
    const text = JSON.stringify({ ...recipe(), effects: [one, one] })
    expect(() => parseRecipe(text, 'twice.json')).toThrow(/“twice.json” is not a valid recipe.*twice/)
  })

  it('come back as they were written', () => {
    expect(parseRecipe(JSON.stringify(recipe()), 'a.json')).toEqual(recipe())
  })

  it.each([
    ['effects.0.mix.amount', 140, 'at effects.0.mix.amount, too big: expected number to be <=100'],
    ['effects.0.mix.mode', 'glow', 'at effects.0.mix.mode, '],
    ['effects.0.kind', 'hail', 'at effects.0.kind'],
    ['effects.0.controls.shape.length', -1, 'at effects.0.controls.shape.length, too small: expected number to be >=0'],
    ['effects.0.controls.shape.angle', '80', 'at effects.0.controls.shape.angle, expected number, received string'],
    ['effects.0.controls.pattern.layers', 2.5, 'at effects.0.controls.pattern.layers, expected int'],
    ['effects.0.colour.tint', 'white', 'at effects.0.colour.tint, expected a colour written #rrggbb'],
    ['effects.0.where.masks.0.handles', [0.5, 0.2, 0.7, 1], 'at effects.0.where.masks.0.handles, expected four tones in rising order'],
    ['effects.0.where.hold', undefined, 'at effects.0.where.hold, expected number, received undefined'],
    ['madeFor.height', 0, 'at madeFor.height, too small'],
    ['colours', 3, 'at the whole file, unrecognized key: "colours"'],
    ['format', 'something', 'at format, expected "welkinar-recipe"'],
  ])('a wrong value at %s is named with what was expected', (path, value, message) => {
    expect(() => parseRecipe(changed(path, value), 'odd.json')).toThrow(UserProblem)
    expect(() => parseRecipe(changed(path, value), 'odd.json')).toThrow(message)
    expect(() => parseRecipe(changed(path, value), 'odd.json')).toThrow('“odd.json” is not a valid recipe')
  })

  it('of a newer version and of broken JSON are refused as such', () => {
    expect(() => parseRecipe(changed('version', 4), 'new.json')).toThrow('“new.json” was made by a newer Welkinar: it has version 4')
    expect(() => parseRecipe(changed('minor', 7), 'new.json')).toThrow('“new.json” was made by a newer Welkinar: it has version 3.7,')
    // Of another program's file it says nothing.
    expect(() => parseRecipe('{"version":9}', 'other.json')).toThrow('“other.json” is not a valid recipe: at format')
    expect(() => parseRecipe('{', 'torn.json')).toThrow('“torn.json” is not a recipe: it is not valid JSON.')
    expect(() => parseRecipe('null', 'null.json')).toThrow('“null.json” is not a valid recipe')
  })

  // 10 000 deep in a document of version 1, whose upgrade walks it.
  it('nested without an end are refused in words', () => {
    const nested = `${'['.repeat(10_000)}${']'.repeat(10_000)}`
    const text = `{"format":"welkinar-recipe","version":1,"effects":${nested}}`
    expect(() => parseRecipe(text, 'deep.json')).toThrow(new UserProblem('“deep.json” is not a recipe: it is nested deeper than any.'))
  })

  it('fit their lengths to the photo and nothing else', () => {
    const read = parseRecipe(JSON.stringify(recipe()), 'a.json')
    const [before] = read.effects
    const [fitted] = stackFor(read, { width: 6000, height: 4000 }).effects
    const shape = (effect: typeof fitted) => effect!.controls.shape as { length: number; angle: number; moveX: number }
    const pattern = (effect: typeof fitted) =>
      effect!.controls.pattern as { dropSize: number; density: number; perLayer: { shiftX: number; size: number }[] }
    expect(shape(fitted).length).toBeCloseTo(2 * shape(before).length, 9)
    expect(shape(fitted).angle).toBe(shape(before).angle)
    expect(pattern(fitted).dropSize).toBeCloseTo(2 * pattern(before).dropSize, 9)
    expect(pattern(fitted).density).toBe(pattern(before).density)
    expect(pattern(fitted).perLayer[1]!.shiftX).toBeCloseTo(2 * pattern(before).perLayer[1]!.shiftX, 9)
    expect(pattern(fitted).perLayer[1]!.size).toBe(pattern(before).perLayer[1]!.size)
    expect(fitted!.where.masks[0]!.feather).toBeCloseTo(2 * before!.where.masks[0]!.feather, 9)
    expect(stackFor(read, madeFor).effects).toEqual(read.effects)
  })

  it('stay within hard ranges when they are fitted', () => {
    const long = parseRecipe(changed('effects.0.controls.shape.length', 1400), 'a.json')
    expect((stackFor(long, { width: 12000, height: 8000 }).effects[0]!.controls.shape as { length: number }).length).toBe(1500)
  })
})

describe('starting values', () => {
  // Smear 25 px at 80°, Screen: common practice, no source.
  it('of rain are those of common practice on 6 megapixels and grow with the photo', () => {
    const small = newEffect(madeFor, { kind: 'rain', id: 'a' })
    expect(small.controls.shape).toMatchObject({ length: 25, angle: 80 })
    expect(small.mix.mode).toBe('screen')
    expect(lengthFactor({ width: 6000, height: 4000 })).toBe(2)
    expect(newEffect({ width: 6000, height: 4000 }, { kind: 'rain', id: 'a' }).controls.shape).toMatchObject({ length: 50, angle: 80 })
  })

  it('lie inside the usual range of their controls', () => {
    for (const { id, controls } of rain.startingLooks) {
      for (const path of rain.dials) {
        const control = controlOf(schemaAt(rain.controls, path))!
        const value = path.split('.').reduce<unknown>((at, part) => (at as Record<string, unknown>)[part], controls) as number
        expect(value, `${id}: ${path}`).toBeGreaterThanOrEqual(control.usual[0])
        expect(value, `${id}: ${path}`).toBeLessThanOrEqual(control.usual[1])
        const { least, most } = limitsOf(schemaAt(rain.controls, path))
        expect(least).toBeLessThanOrEqual(control.usual[0])
        expect(most).toBeGreaterThanOrEqual(control.usual[1])
      }
    }
  })

  it('refuse a kind or a look that does not exist', () => {
    expect(() => newEffect(madeFor, { kind: 'rain', look: 'hail', id: 'a' })).toThrow('no starting look “hail”')
    expect(() => schemaAt(rain.controls, 'shape.nothing')).toThrow('no control at “shape.nothing”')
  })
})
