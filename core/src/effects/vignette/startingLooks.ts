import { FOCAL_POINT } from '../../model/marks'
import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { VignetteControls } from './definition'

function look(
  id: string,
  name: string,
  pattern: Partial<VignetteControls['pattern']>,
  shape: Partial<VignetteControls['shape']>,
): StartingLook<VignetteControls> {
  return {
    id,
    name,
    controls: {
      pattern: { follows: FOCAL_POINT, x: 1500, y: 1000, size: 115, roundness: 30, softness: 85, ...pattern },
      shape: { darken: 0.9, lift: 0, spare: 25, ...shape },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Under one stop at the corners, seldom seen as such: common practice, no source. Places for 6 megapixels, 3:2. */
export const startingLooks: readonly StartingLook<VignetteControls>[] = [
  look('quiet-corners', 'Quiet corners', {}, {}),
  look('light-in-the-middle', 'Light in the middle', { size: 105 }, { darken: 0.8, lift: 0.3 }),
  look('close-about-the-subject', 'Close about the subject', { size: 70, roundness: 80 }, { darken: 1.8, lift: 0.15, spare: 40 }),
  look('pale-borders', 'Pale borders', { size: 110, roundness: 0 }, { darken: -0.8, spare: 0 }),
]

/** Changes nothing. */
export const neutral: StartingLook<VignetteControls> = look(NEUTRAL, 'Neutral', {}, { darken: 0 })
