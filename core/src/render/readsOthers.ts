import { effectSchema, type Effect } from '../effects/registry'
import { eachRole } from '../model/walk'

const known = new WeakMap<Effect, boolean>()

/** Whether an effect refers to others, or has a region, whose masks may read what it draws itself. */
export function readsOthers(effect: Effect): boolean {
  const before = known.get(effect)
  if (before !== undefined) return before
  let refers = effect.region !== null
  eachRole(effectSchema, effect, (_, { refersTo }) => {
    refers ||= refersTo === 'effect'
  })
  if (Object.isFrozen(effect)) known.set(effect, refers)
  return refers
}
