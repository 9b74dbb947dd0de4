import { sparesShadows } from '../sparesShadows'
import type { StartingLook } from '../effectDefinition'
import type { SplashControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<SplashControls['pattern']>,
  shape: Partial<SplashControls['shape']> = {},
): StartingLook<SplashControls> {
  return {
    id,
    name,
    controls: {
      pattern: { density: 60, height: 24, droplets: 80, ripples: 60, seed: 17, ...pattern },
      shape: { into: 80, blur: 0.5, ...shape },
    },
    colour: { tint: '#e4eaf0', light: null, lit: 30 },
    where: { masks: [sparesShadows], hold: 55 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Lengths for 6 megapixels; by eye, no source. */
export const startingLooks: readonly StartingLook<SplashControls>[] = [
  look('rain-on-the-ground', 'Rain on the ground', 90, {}),
  look('downpour-on-the-ground', 'Downpour on the ground', 95, { density: 110, height: 28, droplets: 100, ripples: 35, seed: 5 }),
  look('drizzle-on-water', 'Drizzle on water', 90, { density: 90, height: 10, droplets: 15, ripples: 100, seed: 29 }),
]
