import type { StartingLook } from '../effectDefinition'
import { behind } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { SunburstControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<SunburstControls['pattern']>,
  shape: Partial<SunburstControls['shape']>,
): StartingLook<SunburstControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        by: 'spikes',
        follows: FIRST_LIGHT,
        x: 1900,
        y: 700,
        count: 14,
        blades: 8,
        reach: 900,
        strength: 80,
        thickness: 5,
        uneven: 45,
        turn: 8,
        contrast: 55,
        seed: 61,
        ...pattern,
      },
      shape: { core: 26, halo: 55, haloSize: 150, softness: 0.6, ...shape },
    },
    colour: { tint: '#fff0d2', light: null, lit: 0 },
    where: behind(8),
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Front spill 8 %, silhouettes in front: common practice, no source. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<SunburstControls>[] = [
  look('sun-between-posts', 'Sun between posts', 92, {}, {}),
  look(
    'rays-through-haze',
    'Rays through haze',
    70,
    { by: 'rays', count: 23, reach: 1900, contrast: 62, strength: 75, seed: 9 },
    { core: 22, halo: 60, haloSize: 260, softness: 3 },
  ),
  look(
    'small-aperture',
    'Small aperture',
    95,
    { by: 'blades', blades: 7, reach: 620, thickness: 3.4, strength: 90, turn: 12 },
    { core: 18, halo: 40, haloSize: 90, softness: 0.3 },
  ),
  look(
    'morning-star',
    'Morning star',
    85,
    { count: 8, reach: 420, thickness: 2.6, uneven: 20 },
    { core: 10, halo: 35, haloSize: 60, softness: 0.3 },
  ),
]
