import type { z } from 'zod'
import { rolesOf } from '../model/roles'
import { definitionOf, type Effect } from './registry'

type Steps = Readonly<Record<string, Readonly<Record<string, unknown>>>>

/** The controls of a look with those of the effect that say where it is on its photo: what was drawn or placed by hand, what it follows. */
function keptInPlace(schema: z.ZodObject, own: Steps, look: Steps): Steps {
  const steps = Object.entries(schema.shape as Record<string, z.ZodObject>).map(([step, { shape }]) => {
    const kept = Object.entries(shape as Record<string, z.ZodType>).filter(([, control]) => rolesOf(control).byHand)
    return [step, { ...look[step], ...Object.fromEntries(kept.map(([key]) => [key, own[step]?.[key]])) }] as const
  })
  return Object.fromEntries(steps)
}

/**
 * What an effect becomes with the look of another: colour, mask and mix, and if both are of one kind all values of pattern and shape, but where it
 * is on its photo. A region stays what it is, unless there is none yet.
 */
export function wearLook(effect: Effect, look: Effect): Effect {
  const dressed = { ...effect, colour: look.colour, where: look.where, mix: look.mix }
  if (effect.kind !== look.kind) return dressed
  const { controls } = definitionOf(effect.kind)
  const kept = keptInPlace(controls, effect.controls as Steps, look.controls as Steps)
  return { ...dressed, look: look.look, controls: kept, region: effect.region?.masks.length ? effect.region : look.region } as Effect
}
