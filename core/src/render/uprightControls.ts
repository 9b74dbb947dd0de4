import { definitionOf, type Effect } from '../effects/registry'

/** The controls of an effect on a photo that is turned: the direction in which its pattern moves is that of the turned picture. */
export function uprightControls(effect: Effect, turn: number): Effect['controls'] {
  const { direction } = definitionOf(effect.kind)
  if (!direction || turn === 0) return effect.controls
  return withNumber(effect.controls, direction.path.split('.'), (value) => direction.value(direction.arrow(value) - turn))
}

/** A copy in which the number at a path is another. */
function withNumber<T extends object>(of: T, [key = '', ...rest]: readonly string[], change: (value: number) => number): T {
  const value = (of as Record<string, unknown>)[key]
  return { ...of, [key]: rest.length > 0 ? withNumber(value as object, rest, change) : change(value as number) }
}
