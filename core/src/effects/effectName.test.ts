import { describe, expect, it } from 'vitest'
import { lookOf, nameOfEffect } from './effectName'
import { newEffect } from './newEffect'
import { effectDefinitions } from './registry'

describe('looks', () => {
  it.each(effectDefinitions.map(({ kind, startingLooks }) => [kind, startingLooks] as const))(
    '%s: each look has an id and a word of its own, and an effect made from it is called so',
    (kind, looks) => {
      for (const key of ['id', 'name'] as const) expect(new Set(looks.map((look) => look[key])).size).toBe(looks.length)
      for (const { id, name } of looks) {
        const effect = newEffect({ width: 3000, height: 2000 }, { kind, look: id, id: 'a' })
        expect(effect).toMatchObject({ look: id, name: '' })
        expect(nameOfEffect(effect)).toBe(name)
        expect(nameOfEffect({ ...effect, name: 'Mine' })).toBe('Mine')
        expect(lookOf({ ...effect, look: 'of the future' })).toBe(looks[0])
      }
    },
  )
})
