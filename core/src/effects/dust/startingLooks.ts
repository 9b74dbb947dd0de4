import type { StartingLook } from '../effectDefinition'
import { sparesShadows } from '../sparesShadows'
import type { DustControls } from './definition'

function look(
  name: string,
  amount: number,
  tint: string,
  pattern: Partial<DustControls['pattern']>,
  shape: Partial<DustControls['shape']>,
): StartingLook<DustControls> {
  return {
    name,
    controls: {
      pattern: { density: 22, size: 15, sizeSpread: 70, softness: 55, seed: 83, ...pattern },
      shape: { drift: 4, direction: 20, gamma: 1, ...shape },
    },
    colour: { tint, light: null, lit: 50 },
    // Dust is seen where there is light for it.
    where: { masks: [{ ...sparesShadows, handles: [0.12, 0.6, 1, 1], feather: 40 }], hold: 92 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Few, soft, out of focus, very low amount: common practice, no source. */
export const startingLooks: readonly StartingLook<DustControls>[] = [
  look('Motes in the light', 78, '#ffe6bf', {}, {}),
  look('Fine dust', 95, '#fff0d8', { density: 200, size: 7, softness: 25, seed: 511 }, { drift: 0 }),
  look('Drifting seeds', 78, '#fff6e6', { density: 9, size: 26, sizeSpread: 85, softness: 35, seed: 29 }, { drift: 18, direction: 8 }),
]
