import { looksOf, NEUTRAL, type EffectControls, type StartingLook } from './effectDefinition'
import { definitionOf, type Effect } from './registry'

/** The look that an effect began with; the first of its kind where that is not known. */
export function lookOf({ kind, look }: Pick<Effect, 'kind' | 'look'>): StartingLook<EffectControls> {
  const definition = definitionOf(kind)
  const found = looksOf(definition).find(({ id }) => id === look) ?? definition.startingLooks[0]
  if (!found) throw new Error(`${definition.label} has no look.`)
  return found as StartingLook<EffectControls>
}

/** Where an effect's colours come from, in words, if it has colours of its own. */
export function ownColoursOf({ kind, controls }: Pick<Effect, 'kind' | 'controls'>): string | undefined {
  const { ownColours } = definitionOf(kind)
  return typeof ownColours === 'function' ? ownColours(controls as never) : ownColours
}

/** What an effect is called: the name that it was given, or that of its look; of one that began from nothing that of its kind. */
export function nameOfEffect(effect: Pick<Effect, 'kind' | 'look' | 'name'>): string {
  const { id, name } = lookOf(effect)
  return effect.name || (id === NEUTRAL ? definitionOf(effect.kind).label : name)
}
