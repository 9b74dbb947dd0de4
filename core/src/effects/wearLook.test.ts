import { describe, expect, it } from 'vitest'
import { newEffect } from './newEffect'
import { effectSchema, type Effect, type EffectKind } from './registry'
import { wearLook } from './wearLook'

const size = { width: 3000, height: 2000 }

function effectOf(kind: EffectKind, look: string, id: string, change: { pattern?: object; shape?: object } = {}): Effect {
  const made = newEffect(size, { kind, look, id })
  Object.assign(made.controls.pattern, change.pattern)
  Object.assign(made.controls.shape, change.shape)
  return made
}

describe('a copied look', () => {
  it('brings every radius of a glow line, and leaves the lines where they were drawn', () => {
    const corner = { x: 5, y: 6, inX: 0, inY: 0, outX: 0, outY: 0 }
    const mine = effectOf('glowLine', 'warm-trail', 'mine', { pattern: { paths: [[corner, { ...corner, x: 90 }]] } })
    const worn = wearLook(mine, effectOf('glowLine', 'neon-tube', 'other', { shape: { wideRadius: 133 } }))
    expect(worn.controls.shape).toMatchObject({ wideRadius: 133 })
    expect(worn.controls.pattern).toMatchObject({ width: 9, paths: [[corner, { ...corner, x: 90 }]] })
    expect(worn.id).toBe('mine')
    expect(() => effectSchema.parse(worn)).not.toThrow()
  })

  it('leaves the subject of a glow and the origin of a sunburst, and gives a region to what has none', () => {
    const mine = { ...effectOf('subjectGlow', 'rim-of-light', 'mine') }
    const other = effectOf('subjectGlow', 'cold-ember', 'other')
    const moved = { ...other, region: { masks: other.region!.masks.map((mask) => ({ ...mask, id: 'elsewhere' })), hold: 100 } }
    expect(wearLook(mine, moved).region).toEqual(mine.region)
    expect(wearLook({ ...mine, region: null }, moved).region).toEqual(moved.region)
    const burst = effectOf('sunburst', 'morning-star', 'a', { pattern: { follows: null, x: 77, y: 88 } })
    const worn = wearLook(burst, effectOf('sunburst', 'rays-through-haze', 'b'))
    expect(worn.controls.pattern).toMatchObject({ by: 'rays', follows: null, x: 77, y: 88 })
  })

  it('of another kind is its colour, mask and mix', () => {
    const rain = effectOf('rain', 'downpour', 'a')
    const glow = effectOf('lightBloom', 'night-lights', 'b')
    const worn = wearLook(rain, glow)
    expect(worn.controls).toEqual(rain.controls)
    expect(worn.mix).toEqual(glow.mix)
  })
})
