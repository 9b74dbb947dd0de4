import { cameraStart } from '../camera'
import type { StartingLook } from '../effectDefinition'
import { sparesShadows } from '../sparesShadows'
import type { RainControls } from './definition'

type Layer = RainControls['pattern']['perLayer'][number]

const far: Layer = { drops: 240, size: 0.55, stretch: 0.5, brightness: 30, shiftX: 0, shiftY: 0 }
const middle: Layer = { drops: 100, size: 1, stretch: 1, brightness: 55, shiftX: 37, shiftY: 0 }
const near: Layer = { drops: 26, size: 1.9, stretch: 2.1, brightness: 62, shiftX: -61, shiftY: 23 }
const nearest: Layer = { drops: 4, size: 5, stretch: 4.2, brightness: 50, shiftX: 113, shiftY: -47 }

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<RainControls['pattern']>,
  shape: Partial<RainControls['shape']>,
): StartingLook<RainControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        density: 30,
        layers: 3,
        dropSize: 0.9,
        evenness: 25,
        seed: 4107,
        ...cameraStart,
        rate: 8,
        perLayer: [far, middle, near, nearest],
        ...pattern,
      },
      shape: {
        length: 25,
        angle: 80,
        windVariation: 25,
        lengthVariation: 25,
        taper: 12,
        blur: 0,
        black: 3,
        white: 90,
        gamma: 1,
        enlarge: 100,
        turn: 0,
        moveX: 0,
        moveY: 0,
        ...shape,
      },
    },
    colour: { tint: '#dfe6ee', light: null, lit: 45 },
    where: { masks: [sparesShadows], hold: 75 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Lengths for 6 megapixels. Blur 2 px, smear 25 px at 80°, Screen, a larger and stronger second copy: common practice, no source. */
export const startingLooks: readonly StartingLook<RainControls>[] = [
  look('steady-rain', 'Steady rain', 55, {}, {}),
  look('drizzle', 'Drizzle', 62, { density: 62, layers: 2, dropSize: 0.72 }, { length: 13, angle: 86, windVariation: 35, white: 68 }),
  look('downpour', 'Downpour', 70, { density: 62, layers: 4, seed: 2291 }, { length: 42, angle: 82, windVariation: 18 }),
  look('driving-rain', 'Driving rain', 62, { density: 46, layers: 4, seed: 7343 }, { length: 58, angle: 64, windVariation: 40 }),
  look(
    'rain-by-the-camera',
    'Rain by the camera',
    80,
    { by: 'camera', rate: 22, shutter: 1 / 60, focalLength: 35, nearest: 1.2, farthest: 40, seed: 5023 },
    { angle: 82, black: 0, white: 45 },
  ),
]
