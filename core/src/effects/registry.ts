import { z } from 'zod'
import { effectBase } from '../model/look'
import type { EffectDefinition } from './effectDefinition'
import { dust } from './dust/definition'
import { fog } from './fog/definition'
import { haze } from './haze/definition'
import { rain } from './rain/definition'
import { reflection } from './reflection/definition'
import { snow } from './snow/definition'
import { stars } from './stars/definition'

/** All kinds of effect, in the order in which they are offered. */
export const effectDefinitions = [rain, snow, stars, fog, haze, dust, reflection] as unknown as readonly [
  EffectDefinition,
  ...EffectDefinition[],
]

const [firstSchema, ...otherSchemas] = effectDefinitions.map(({ kind, controls }) =>
  z.strictObject({ ...effectBase, kind: z.literal(kind), controls }),
)
if (!firstSchema) throw new Error('There is no effect at all.')

/** One effect of a stack: its kind decides what its controls are. */
export const effectSchema = z.discriminatedUnion('kind', [firstSchema, ...otherSchemas])
export type Effect = z.infer<typeof effectSchema>

/** @throws Error if there is no such kind */
export function definitionOf(kind: string): EffectDefinition {
  const definition = effectDefinitions.find((candidate) => candidate.kind === kind)
  if (!definition) throw new Error(`There is no effect of the kind “${kind}”.`)
  return definition
}
