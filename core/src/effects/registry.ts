import { z } from 'zod'
import { effectBase } from '../model/look'
import type { EffectDefinition } from './effectDefinition'
import { dust } from './dust/definition'
import { fog } from './fog/definition'
import { haze } from './haze/definition'
import { catchLights } from './catchLights/definition'
import { customField } from './customField/definition'
import { glowLine } from './glowLine/definition'
import { lamp } from './lamp/definition'
import { lightBloom } from './lightBloom/definition'
import { lightPool } from './lightPool/definition'
import { lowSun } from './lowSun/definition'
import { rays } from './rays/definition'
import { softFocus } from './softFocus/definition'
import { sparkles } from './sparkles/definition'
import { subjectGlow } from './subjectGlow/definition'
import { sunburst } from './sunburst/definition'
import { rain } from './rain/definition'
import { reflection } from './reflection/definition'
import { snow } from './snow/definition'
import { stars } from './stars/definition'

/** All kinds of effect, in the order in which they are offered. */
export const effectDefinitions = [
  rain,
  snow,
  stars,
  fog,
  haze,
  dust,
  rays,
  sunburst,
  lowSun,
  sparkles,
  catchLights,
  subjectGlow,
  glowLine,
  softFocus,
  lightBloom,
  lightPool,
  lamp,
  customField,
  reflection,
] as unknown as readonly [EffectDefinition, ...EffectDefinition[]]

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
