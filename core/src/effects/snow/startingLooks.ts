import { cameraStart } from '../camera'
import type { StartingLook } from '../effectDefinition'
import { sparesShadows } from '../sparesShadows'
import { unmoved } from '../placing'
import type { SnowControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<SnowControls['pattern']>,
  shape: Partial<SnowControls['shape']>,
): StartingLook<SnowControls> {
  return {
    id,
    name,
    controls: {
      pattern: { density: 22, flakeSize: 2.6, layers: 4, focus: 55, sizeVariation: 60, seed: 318, ...cameraStart, snowfall: 1, ...pattern },
      shape: { wind: 12, drift: 45, length: 3, black: 2, white: 85, gamma: 1, ...unmoved, ...shape },
    },
    colour: { tint: '#f4f7fb', light: null, lit: 40 },
    // Snow is bright by itself: it is seen before the dark too.
    where: { masks: [{ ...sparesShadows, handles: [0, 0.1, 1, 1] }], hold: 45 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Lengths for 6 megapixels. Larger and rounder specks than rain, little motion, three depths: common practice, no source. */
export const startingLooks: readonly StartingLook<SnowControls>[] = [
  look('quiet-snowfall', 'Quiet snowfall', 92, { density: 26, flakeSize: 3 }, {}),
  look('first-flakes', 'First flakes', 95, { density: 13, flakeSize: 3.2, layers: 3, seed: 41 }, { wind: 4, drift: 60, length: 1 }),
  look('thick-flakes', 'Thick flakes', 90, { density: 34, flakeSize: 4.2, focus: 70, seed: 977 }, { wind: 9, drift: 40, length: 5 }),
  look(
    'snowstorm',
    'Snowstorm',
    96,
    { density: 88, flakeSize: 2.9, focus: 48, sizeVariation: 80, seed: 1503 },
    { wind: 56, drift: 34, length: 14, white: 74 },
  ),
  look(
    'snow-by-the-camera',
    'Snow by the camera',
    95,
    {
      by: 'camera',
      snowfall: 1.6,
      shutter: 1 / 80,
      focalLength: 35,
      aperture: 4,
      focusDistance: 14,
      nearest: 0.7,
      farthest: 45,
      seed: 611,
    },
    { wind: 14, drift: 40, black: 0, white: 70 },
  ),
]
