import {
  checkedScene,
  effectDefinitions,
  emptyStack,
  newEffect,
  noGroundwork,
  noMarks,
  Refusal,
  sceneSchema,
  type Scene,
} from '@welkinar/core'
import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { firstAxis, sheetOf, type Axis } from './sheet'
import { variationsOf } from './variations'

const photo = { id: 'a'.repeat(64), fileName: 'photo.jpg', width: 2400, height: 1600 }
const base = {
  ...emptyStack,
  groundwork: noGroundwork,
  photo,
  id: 'scene',
  name: 'Scene',
  created: 1,
  edited: 1,
  marks: noMarks,
  depth: null,
  amount: 100,
}

/** A scene with one effect of a kind. */
function sceneWith(kind: (typeof effectDefinitions)[number]['kind']): Scene {
  return sceneSchema.parse({ format: 'welkinar-scene', version: 3, minor: 0, ...base, effects: [newEffect(photo, { kind, id: 'one' })] })
}

describe('what can be varied', () => {
  it.each(effectDefinitions.map(({ kind }) => kind))(
    '%s: every value of every variation is a valid scene, and has an id of its own',
    (kind) => {
      const scene = sceneWith(kind)
      const [effect] = scene.effects
      const variations = variationsOf(scene, effect!)
      expect(new Set(variations.map(({ id }) => id)).size).toBe(variations.length)
      for (const variation of variations) {
        const values = variation.values({ count: 5, round: 0 })
        expect(new Set(values.map(({ id }) => id)).size, variation.id).toBe(values.length)
        expect(values.length, variation.id).toBeGreaterThan(1)
        for (const { id, change } of values) {
          const made = checkedScene(produce(scene, (draft) => change(draft)))
          expect(made instanceof Refusal ? made.reason : 'valid', id).toBe('valid')
        }
      }
    },
  )

  it('a pinned state takes the place of the effects; a recipe comes on top of them, of the same ids each time', () => {
    const bare = sceneWith('rain')
    const [snow, rain] = [newEffect(photo, { kind: 'snow', id: 'snow' }), bare.effects[0]!]
    const scene: Scene = { ...bare, pinned: [{ id: 'p', name: 'With snow', effects: [snow], groups: [], shared: [] }] }
    const made = (id: string, value: string) => {
      const found = variationsOf(scene, rain).find((one) => one.id === id)!
      const { change } = found.values({ count: 1, round: 0 }).find(({ words }) => words === value)!
      return produce(scene, (draft) => change(draft)).effects
    }
    expect(made('pinned', 'With snow').map(({ kind }) => kind)).toEqual(['snow'])
    expect(made('pinned', 'As it is')).toEqual([rain])
    expect(made('recipe', 'Quiet snow').map(({ kind }) => kind)).toEqual(['rain', 'haze', 'snow', 'colourBalance', 'softFocus'])
    expect(made('recipe', 'Quiet snow')).toEqual(made('recipe', 'Quiet snow'))
    // It can be taken over twice.
    const twice = { ...scene, effects: made('recipe', 'Quiet snow') }
    const { change } = variationsOf(twice, rain)
      .find(({ id }) => id === 'recipe')!
      .values({ count: 1, round: 0 })[6]!
    expect(new Set(produce(twice, (draft) => change(draft)).effects.map(({ id }) => id)).size).toBe(9)
    expect(variationsOf(bare, rain).some(({ id }) => id === 'pinned')).toBe(false)
  })

  it('a number runs from one end to the other, both included', () => {
    const scene = sceneWith('rain')
    const density = variationsOf(scene, scene.effects[0]!).find(({ label }) => label === 'Density')!
    const found = density.values({ count: 4, round: 0, from: 10, to: 40 }).map(({ change }) => {
      const { controls } = produce(scene, (draft) => change(draft)).effects[0]!
      return (controls.pattern as { density: number }).density
    })
    expect(found).toEqual([10, 20, 30, 40])
  })

  it('seeds begin with the one that is there, and others are others', () => {
    const scene = sceneWith('snow')
    const seeds = variationsOf(scene, scene.effects[0]!)[0]!
    const ids = [0, 1].flatMap((round) => seeds.values({ count: 12, round }).map(({ id }) => id))
    expect(new Set(ids).size).toBe(24)
    const first = seeds.values({ count: 1, round: 0 })[0]!
    expect(produce(scene, (draft) => first.change(draft))).toBe(scene)
  })

  it('a look leaves masks and mix as they are', () => {
    const scene = produce(sceneWith('fog'), ({ effects: [fog] }) => {
      fog!.mix.amount = 37
      fog!.where.masks = []
    })
    const looks = variationsOf(scene, scene.effects[0]!).find(({ id }) => id === 'look')!
    for (const { change } of looks.values({ count: 1, round: 0 })) {
      const [fog] = produce(scene, (draft) => change(draft)).effects
      expect(fog).toMatchObject({ mix: { amount: 37 }, where: { masks: [] }, id: 'one' })
    }
  })
})

describe('a sheet', () => {
  const scene = sceneWith('rain')
  const axis = (variation: string, count: number, more: Partial<Axis> = {}): Axis => ({ of: 'one', variation, count, round: 0, ...more })

  it('begins with six seeds', () => {
    const sheet = sheetOf(scene, firstAxis(scene, scene.effects[0]!), undefined)
    expect(sheet.trials.length).toBe(6)
    expect(sheet.edges).toBeUndefined()
  })

  it('of two axes has each value of one with each of the other; a number wins over the look it is tried with', () => {
    const { trials, edges } = sheetOf(scene, axis('control pattern.density', 3, { from: 5, to: 15 }), axis('look', 1))
    expect(edges?.columns.length).toBe(3)
    expect(trials.length).toBe(3 * edges!.rows.length)
    trials.forEach(({ change }, index) => {
      const { controls, look } = produce(scene, (draft) => change(draft)).effects[0]!
      expect((controls.pattern as { density: number }).density).toBe(5 + 5 * (index % 3))
      expect(look).toBe(effectDefinitions.find(({ kind }) => kind === 'rain')!.startingLooks[Math.floor(index / 3)]!.id)
    })
  })

  it('has no more pictures than anybody looks through, in whole rows', () => {
    const { trials, edges } = sheetOf(scene, axis('control pattern.density', 24), axis('control shape.length', 24))
    expect(trials.length).toBeLessThanOrEqual(200)
    expect(trials.length).toBe(edges!.columns.length * edges!.rows.length)
  })

  it('of an effect that is gone is empty', () => {
    expect(sheetOf(scene, axis('seed', 6, { of: 'gone' }), undefined).trials).toEqual([])
  })
})
