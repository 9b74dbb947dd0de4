import { effectDefinitions, looksOf, type EffectFamily, type EffectKind } from '@welkinar/core'
import { wordsOfKind, wordsOfLook } from './tradeWords'

/** A starting look that can be added. */
export interface Offer {
  readonly kind: EffectKind
  readonly label: string
  readonly family: EffectFamily
  /** Id of the look, and the word for it. */
  readonly look: string
  readonly name: string
}

// What mirrors another effect is made from that effect.
export const offers: readonly Offer[] = effectDefinitions
  .filter(({ madeFromEffect }) => !madeFromEffect)
  .flatMap((definition) =>
    looksOf(definition).map(({ id, name }) => ({
      kind: definition.kind,
      label: definition.label,
      family: definition.family,
      look: id,
      name,
    })),
  )

/** The looks in whose words all that was typed begins somewhere; those that are called so first, then those that the trade calls so. */
export function search(text: string): readonly Offer[] {
  const typed = wordsIn(text)
  const isIn = (words: string): boolean => typed.every((part) => wordsIn(words).some((word) => word.startsWith(part)))
  const ranks = offers.map((offer) => {
    const { kind, label, look, name } = offer
    const own = wordsOfLook[look] ?? ''
    const steps = [`${label} ${name}`, `${label} ${name} ${own}`, `${label} ${name} ${own} ${wordsOfKind[kind] ?? ''}`]
    return { offer, rank: steps.findIndex(isIn) }
  })
  return [0, 1, 2].flatMap((wanted) => ranks.flatMap(({ offer, rank }) => (rank === wanted ? [offer] : [])))
}

/** Words in small letters, in British spelling. */
function wordsIn(text: string): string[] {
  return text
    .toLowerCase()
    .replaceAll('color', 'colour')
    .replaceAll('gray', 'grey')
    .split(/[\s-]+/)
    .filter(Boolean)
}
