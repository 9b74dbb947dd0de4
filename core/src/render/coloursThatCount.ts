import { definitionOf, type Effect } from '../effects/registry'
import { photoNode } from '../operations/sources/photo/photo'
import type { PictureSource } from './pictureSource'
import { StackBuilder } from './stackBuilder'

/** Which settings of an effect's colour change the picture: a colour of its own, a ramp over its intensity, a balance. */
export interface ColoursThatCount {
  readonly tint: boolean
  readonly ramp: boolean
  readonly balance: boolean
}

/** What has colours of its own takes no ramp, and a tint only where these are made with it; air that is taken out has one colour. */
export function coloursThatCount(source: PictureSource, effect: Effect): ColoursThatCount {
  const [one, other] = ['#102030', '#f0e0d0'].map((tint) => {
    const colour = { ...effect.colour, tint, light: null, kelvin: null, ramp: null, balance: null, lit: 0 }
    const probe = { ...effect, colour, group: null } as Effect
    // Only what mirrors another effect has colours that depend on others; what lies beneath makes no difference.
    const others = definitionOf(effect.kind).madeFromEffect ? source.effects.filter(({ id }) => id !== effect.id) : []
    const brought = StackBuilder.of({ ...source, effects: [...others, probe], groups: [] }).contribution(probe)
    if (brought?.gives === 'light') return { brought, keys: [brought.field.key, brought.colours()?.key] }
    if (brought?.gives !== 'correction') return { brought, keys: [] }
    const after = brought.after?.(photoNode(source.photo.id), { amount: 1, mask: undefined })
    return { brought, keys: [brought.field.key, brought.picture().key, after?.key] }
  })
  if (one?.brought?.gives === 'clearing') return { tint: true, ramp: false, balance: false }
  if (one?.brought?.gives === 'light' && one.brought.colours() === undefined) return { tint: true, ramp: true, balance: true }
  return { tint: one?.keys.some((key, i) => key !== other?.keys[i]) ?? false, ramp: false, balance: one?.brought !== undefined }
}
