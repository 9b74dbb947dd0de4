import type { StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { LowSunControls } from './definition'

function look(
  id: string,
  name: string,
  tint: string,
  pattern: Partial<LowSunControls['pattern']>,
  shape: Partial<LowSunControls['shape']>,
): StartingLook<LowSunControls> {
  return {
    id,
    name,
    controls: {
      pattern: { follows: FIRST_LIGHT, x: 1950, y: 880, sun: 34, glow: 420, airHeight: 520, ridge: 38, ...pattern },
      shape: { strength: 95, air: 55, rim: 38, rimWidth: 9, rest: 0.45, warmth: 45, reflection: 60, ripple: 14, ...shape },
    },
    colour: { tint, light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<LowSunControls>[] = [
  look('behind-the-ridge', 'Behind the ridge', '#ffb860', {}, {}),
  look('last-minute', 'Last minute', '#ff8a45', { sun: 26, glow: 560, airHeight: 420 }, { rest: 0.85, warmth: 70, air: 65 }),
  look(
    'pale-winter-sun',
    'Pale winter sun',
    '#ffe6bd',
    { sun: 22, glow: 300, airHeight: 800 },
    { rest: 0.1, warmth: 20, air: 40, rim: 35 },
  ),
]
