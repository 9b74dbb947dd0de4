import type { StartingLook } from '../effectDefinition'
import { sparesShadows } from '../sparesShadows'
import { unmoved } from '../placing'
import type { DustControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  pattern: Partial<DustControls['pattern']>,
  shape: Partial<DustControls['shape']>,
): StartingLook<DustControls> {
  return {
    id,
    name,
    controls: {
      pattern: { density: 22, size: 15, sizeSpread: 70, softness: 55, seed: 83, ...pattern },
      shape: { drift: 4, direction: 20, gamma: 1, ...unmoved, ...shape },
    },
    colour: { tint, light: null, lit: 50 },
    // Dust is seen where there is light for it.
    where: { masks: [{ ...sparesShadows, handles: [0.05, 0.4, 1, 1], feather: 40 }], hold: 92 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Few, soft, out of focus, at low amount: common practice, no source; bright enough to be seen with all of the photo in view. */
export const startingLooks: readonly StartingLook<DustControls>[] = [
  look('motes-in-the-light', 'Motes in the light', 95, '#ffe6bf', { density: 40 }, { gamma: 1.8 }),
  look('fine-dust', 'Fine dust', 100, '#fff0d8', { density: 240, size: 8, softness: 25, seed: 511 }, { drift: 0, gamma: 1.8 }),
  look(
    'drifting-seeds',
    'Drifting seeds',
    92,
    '#fff6e6',
    { density: 18, size: 20, sizeSpread: 85, softness: 85, seed: 29 },
    { drift: 9, direction: 8, gamma: 1.4 },
  ),
]
