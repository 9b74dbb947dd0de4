import { effectDefinitions, effectSchema, looksOf, newEffect, newMask, noMarks, type PictureSource } from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { withLook } from './exchangeLook'

const photo = { id: 'p', width: 1200, height: 800 }
const source: PictureSource = { photo, effects: [] }
const kinds = effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect)

describe.each(kinds.map((definition) => [definition.kind, definition] as const))('another look of %s', (kind, definition) => {
  const [from, to = from] = looksOf(definition)
    .slice(-2)
    .map(({ id }) => id) as [string, string?]

  it('is as that look begins, where nothing was changed but controls', () => {
    const effect = newEffect(photo, { kind, id: 'e', look: from })
    const dial = definition.dials[0]?.split('.')[1]
    if (dial) Object.assign(effect.controls.pattern, dial in effect.controls.pattern ? { [dial]: 1 } : {})
    const fresh = newEffect(photo, { kind, id: 'e', look: to, place: effect.place })
    expect(idless(withLook(effect, to, source))).toEqual(idless(fresh))
  })

  it('keeps name, place, masks and mix that were changed', () => {
    const mask = newMask(photo, { kind: 'ellipse', id: 'm', join: 'keep', marks: noMarks })
    const effect = Object.assign(newEffect(photo, { kind, id: 'e', look: from, place: 'far' }), { name: 'Mine', on: false, group: 'g' })
    effect.where = { masks: [mask], hold: 80 }
    effect.mix = { ...effect.mix, amount: 37 }
    const worn = withLook(effect, to, source)
    expect(worn).toMatchObject({ id: 'e', look: to, name: 'Mine', on: false, group: 'g', place: 'far', where: { masks: [mask], hold: 80 } })
    expect(worn.mix.amount).toBe(37)
    expect(worn.mix.mode).toBe(newEffect(photo, { kind, id: 'n', look: to }).mix.mode)
    expect(effectSchema.safeParse(worn).error).toBeUndefined()
  })
})

/** Masks of a new effect have ids of their own each time. */
function idless(value: unknown): unknown {
  return JSON.parse(JSON.stringify(value, (key, inner: unknown) => (key === 'id' ? undefined : inner)))
}
