import { z } from 'zod'
import { effectBase } from '../model/look'
import { adjust } from './adjust/definition'
import { colourBalance } from './colourBalance/definition'
import { colourTable } from './colourTable/definition'
import { curves } from './curves/definition'
import { oneHue } from './oneHue/definition'
import { sharpen } from './sharpen/definition'
import { vignette } from './vignette/definition'
import { grain } from './grain/definition'
import { fringe } from './fringe/definition'
import { catchLights } from './catchLights/definition'
import { customField } from './customField/definition'
import { dust } from './dust/definition'
import type { ControlsSchema, EffectDefinition } from './effectDefinition'
import { fog } from './fog/definition'
import { glaze } from './glaze/definition'
import { glowLine } from './glowLine/definition'
import { haze } from './haze/definition'
import { lamp } from './lamp/definition'
import { lensDrops } from './lensDrops/definition'
import { lightBloom } from './lightBloom/definition'
import { lightPool } from './lightPool/definition'
import { lowSun } from './lowSun/definition'
import { overlay } from './overlay/definition'
import { rain } from './rain/definition'
import { rays } from './rays/definition'
import { reflection } from './reflection/definition'
import { snow } from './snow/definition'
import { softFocus } from './softFocus/definition'
import { sparkles } from './sparkles/definition'
import { splashes } from './splashes/definition'
import { stars } from './stars/definition'
import { subjectGlow } from './subjectGlow/definition'
import { wear } from './wear/definition'
import { sunburst } from './sunburst/definition'

/** Schema of the effects of one kind. */
function effectOf<K extends string, S extends ControlsSchema>({ kind, controls }: EffectDefinition<K, S>) {
  return z.strictObject({ ...effectBase, kind: z.literal(kind), controls })
}

/** One effect of a stack: its kind decides what its controls are. All kinds, in the order in which they are offered. */
export const effectSchema = z.discriminatedUnion('kind', [
  effectOf(rain),
  effectOf(snow),
  effectOf(stars),
  effectOf(fog),
  effectOf(haze),
  effectOf(dust),
  effectOf(splashes),
  effectOf(lensDrops),
  effectOf(rays),
  effectOf(sunburst),
  effectOf(lowSun),
  effectOf(sparkles),
  effectOf(catchLights),
  effectOf(subjectGlow),
  effectOf(glowLine),
  effectOf(softFocus),
  effectOf(lightBloom),
  effectOf(lightPool),
  effectOf(lamp),
  effectOf(glaze),
  effectOf(adjust),
  effectOf(curves),
  effectOf(colourBalance),
  effectOf(oneHue),
  effectOf(colourTable),
  effectOf(sharpen),
  effectOf(vignette),
  effectOf(grain),
  effectOf(fringe),
  effectOf(wear),
  effectOf(customField),
  effectOf(overlay),
  effectOf(reflection),
])
export type Effect = z.infer<typeof effectSchema>
export type EffectKind = Effect['kind']

const definitions: { readonly [K in EffectKind]: EffectDefinition<K> } = {
  rain,
  snow,
  stars,
  fog,
  haze,
  dust,
  splashes,
  lensDrops,
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
  glaze,
  adjust,
  curves,
  colourBalance,
  oneHue,
  colourTable,
  sharpen,
  vignette,
  grain,
  fringe,
  wear,
  customField,
  overlay,
  reflection,
}

/** All kinds of effect, in the order in which they are offered. */
export const effectDefinitions: readonly EffectDefinition<EffectKind>[] = Object.values(definitions)

export function definitionOf(kind: EffectKind): EffectDefinition<EffectKind> {
  return definitions[kind]
}
