import type { StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { LightBloomControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  pattern: Partial<LightBloomControls['pattern']>,
  shape: Partial<LightBloomControls['shape']>,
): StartingLook<LightBloomControls> {
  return {
    id,
    name,
    controls: { pattern: { threshold: 48, onset: 30, ...pattern }, shape: { radius: 9, reach: 9, tail: 75, strength: 200, ...shape } },
    colour: { tint, light: null, lit: 0 },
    where: everywhere,
    // Light adds, so it is mixed in linear light.
    mix: { mode: 'plus-lighter', amount, linear: true },
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<LightBloomControls>[] = [
  look('night-lights', 'Night lights', 85, '#fff1dd', {}, {}),
  look(
    'mist-on-the-lens',
    'Mist on the lens',
    70,
    '#ffffff',
    { threshold: 35, onset: 60 },
    { radius: 26, reach: 6, tail: 95, strength: 90 },
  ),
  look('candle-warmth', 'Candle warmth', 80, '#ffc98f', { threshold: 45 }, { radius: 16, reach: 6, tail: 85 }),
]
