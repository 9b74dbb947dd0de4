import type { StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { CatchLightControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  pattern: Partial<CatchLightControls['pattern']>,
  shape: Partial<CatchLightControls['shape']>,
): StartingLook<CatchLightControls> {
  return {
    id,
    name,
    controls: {
      pattern: { follows: FIRST_LIGHT, x: 2600, y: 300, size: 10, tones: 22, ...pattern },
      shape: { near: 85, strength: 130, evenness: 35, blur: 0.6, ...shape },
    },
    colour: { tint, light: FIRST_LIGHT, lit: 0 },
    where: everywhere,
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<CatchLightControls>[] = [
  look('warm-edges', 'Warm edges', 75, '#ffcf94', {}, {}),
  look('soft-lift', 'Soft lift', 60, '#ffe2bd', { size: 22, tones: 30 }, { blur: 5, strength: 110, evenness: 60 }),
  look('hard-glints', 'Hard glints', 90, '#fff4e2', { size: 6, tones: 42 }, { strength: 260, evenness: 0, blur: 0 }),
]
