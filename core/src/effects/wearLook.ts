import { definitionOf, type Effect } from './registry'

/** Paths of the controls that say where an effect is on its photo: origins that can follow a mark, what was drawn or placed by hand. */
function placedPaths({ kind }: Effect): readonly string[] {
  const { places = [], drawn = [] } = definitionOf(kind)
  const moved = places.some(({ follows }) => follows) ? places.flatMap(({ x, y, follows }) => [x, y, ...(follows ? [follows] : [])]) : []
  return [...moved, ...drawn]
}

/**
 * What an effect becomes with the look of another: all values of pattern and shape if both are of one kind, but where it is on its photo; and colour, mask and mix. A region stays what it
 * is, unless there is none yet.
 */
export function wearLook(effect: Effect, look: Effect): Effect {
  const dressed = { ...effect, colour: look.colour, where: look.where, mix: look.mix }
  if (effect.kind !== look.kind) return dressed
  const controls = structuredClone(look.controls) as unknown as Record<string, Record<string, unknown>>
  const own = effect.controls as unknown as Record<string, Record<string, unknown>>
  for (const path of placedPaths(effect)) {
    const [step = '', key = ''] = path.split('.')
    const group = controls[step]
    if (group) group[key] = own[step]?.[key]
  }
  return {
    ...dressed,
    controls: controls as unknown as Effect['controls'],
    region: effect.region?.masks.length ? effect.region : look.region,
  }
}
