import type { SkyMask } from '../../masks/sky/definition'
import type { StartingLook } from '../effectDefinition'
import type { StarControls } from './definition'

/** The usual first mask of a sky: stars never shine through what stands before it. */
const inTheSky: SkyMask = {
  id: 'sky',
  name: '',
  kind: 'sky',
  on: true,
  join: 'keep',
  invert: false,
  strength: 100,
  grow: 0,
  edges: 0,
  feather: 0.8,
  tolerance: 8,
  calm: 0.8,
}

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<StarControls['pattern']>,
  shape: Partial<StarControls['shape']> = {},
): StartingLook<StarControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        density: 100,
        faintest: 8,
        white: 4.5,
        size: 1.05,
        colour: 55,
        halo: 35,
        spikes: 0,
        focalLength: 24,
        seed: 1848,
        band: 0,
        bandX: 1900,
        bandY: 500,
        bandTurn: 52,
        bandWidth: 520,
        ...pattern,
      },
      shape: { trails: 0, poleX: 1700, poleY: -350, thinning: 50, twinkle: 40, ...shape },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: { masks: [inTheSky], hold: 100 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<StarControls>[] = [
  look('clear-night', 'Clear night', 100, {}),
  look('band-of-stars', 'Band of stars', 100, { faintest: 8.8, white: 4.4, size: 0.95, band: 80, seed: 509 }),
  look('star-trails', 'Star trails', 85, { faintest: 6.2, white: 3, size: 0.8, halo: 10, seed: 77 }, { trails: 45 }),
  look('few-bright-stars', 'Few bright stars', 100, { density: 90, faintest: 5.6, white: 4.6, size: 1.2, halo: 70, spikes: 55, seed: 4 }),
]
