import { documentVersion, emptyStack, newEffect, recipeFrom, sceneSchema, startingTone, untouched, type Scene } from '@welkinar/core'
import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { laidOn, type Laying } from './recipes'

const photo = { id: 'a'.repeat(64), fileName: 'photo.jpg', width: 2400, height: 1600 }

function sceneOf(ids: readonly string[], parts: Partial<Scene> = {}): Scene {
  const effects = ids.map((id) => newEffect(photo, { kind: 'rain', id }))
  const base = { ...documentVersion, ...emptyStack, ...untouched, id: 's', name: 'S', created: 1, edited: 1, photo }
  return sceneSchema.parse({ format: 'welkinar-scene', ...base, effects, ...parts })
}

/** A scene of two effects, the second in a group of 60 %, made into a recipe and laid on another scene. */
function laid(scene: Scene, laying: Laying, strength: number, parts: Partial<Scene> = {}, withPhoto = false): Scene {
  const [far, near] = sceneOf(['far', 'near']).effects
  const group = { id: 'g', name: 'G', on: true, where: { masks: [], hold: 100 }, mix: { ...far!.mix, amount: 60 } }
  const made = sceneOf([], { groups: [group], effects: [far!, { ...near!, group: 'g' }], ...parts })
  let count = 0
  const { change } = laidOn(scene, recipeFrom(made, { name: 'R', withPhoto }), { laying, strength }, [], () => `new ${count++}`)
  return sceneSchema.parse(produce(scene, (draft) => change(draft)))
}

describe('a recipe laid on a scene', () => {
  it.each([
    ['in place', ['new', 'new']],
    ['over', ['own', 'new', 'new']],
    ['under', ['new', 'new', 'own']],
  ] as const)('%s: its effects are where they belong, in their group', (laying, wanted) => {
    const { effects, groups } = laid(sceneOf(['own']), laying, 100)
    expect(effects.map(({ id }) => id.split(' ')[0])).toEqual(wanted)
    expect(groups).toHaveLength(1)
    expect(effects.filter(({ group }) => group === groups[0]!.id)).toHaveLength(1)
  })

  it('in place it fades as a whole; over and under what is there, by each effect or its group', () => {
    const amounts = ({ effects, groups, amount }: Scene) => [amount, ...[...effects, ...groups].map(({ mix }) => mix.amount)]
    const full = sceneOf(['own']).effects[0]!.mix.amount
    expect(amounts(laid(sceneOf([]), 'in place', 50))).toEqual([50, full, full, 60])
    expect(amounts(laid(sceneOf([]), 'over', 50))).toEqual([100, Math.round(full / 2), full, 30])
    expect(amounts(laid(sceneOf([], { amount: 80 }), 'under', 0))).toEqual([80, 0, full, 0])
  })

  it('brings the tones and the crop that it carries, and leaves those that it does not', () => {
    const crop = { x: 10, y: 10, width: 1000, height: 700, turn: 0 }
    const tone = startingTone(photo)
    const own = sceneOf([], { groundwork: { ...untouched.groundwork, crop } })
    expect(laid(own, 'in place', 100, { groundwork: { ...untouched.groundwork, tone } }).groundwork).toEqual(own.groundwork)
    const toned = laid(own, 'in place', 100, { groundwork: { ...untouched.groundwork, tone } }, true)
    expect(toned.groundwork).toEqual({ ...untouched.groundwork, crop, tone })
    const cropped = laid(sceneOf([]), 'in place', 100, { groundwork: own.groundwork }, true)
    expect(cropped.groundwork).toEqual(own.groundwork)
  })
})
