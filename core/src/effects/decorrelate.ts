import { limitsOf, nearestNumber } from '../model/controls'
import { mapDocument } from '../model/walk'
import { effectSchema, type Effect } from './registry'

const TURNED = 23
const ENLARGED = 1.27

/**
 * A copy of an effect that shares nothing with it that the eye could see twice: seeds, rotations and scales of all its noise are others, also of the
 * clouds among its masks.
 */
export function decorrelated(effect: Effect, newId: () => string): Effect {
  return mapDocument(effectSchema, effect, (value, { noise, names }, schema) => {
    if (names === 'effect' || names === 'mask') return newId()
    if (noise === 'seed') return ((value as number) * 7 + 1231) % 10000
    if (noise === 'rotation') return (value as number) > 180 - TURNED ? (value as number) - TURNED : (value as number) + TURNED
    return noise === 'scale' ? nearestNumber(Math.round((value as number) * ENLARGED), limitsOf(schema)) : value
  })
}
