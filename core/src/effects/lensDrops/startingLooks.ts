import { emptyWhere } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import type { LensDropControls } from './definition'

function look(
  id: string,
  name: string,
  pattern: Partial<LensDropControls['pattern']>,
  shape: Partial<LensDropControls['shape']> = {},
): StartingLook<LensDropControls> {
  return {
    id,
    name,
    controls: {
      pattern: { count: 60, radius: 55, spread: 80, uneven: 45, running: 10, seed: 7, ...pattern },
      shape: { blur: 4, view: 5, rim: 45, glint: 35, ...shape },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: emptyWhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Lengths for 6 megapixels; by eye, no source. */
export const startingLooks: readonly StartingLook<LensDropControls>[] = [
  look('a-few-drops', 'A few drops', {}),
  look('after-a-shower', 'After a shower', { count: 700, radius: 42, spread: 92, running: 4, seed: 12 }, { blur: 3.2 }),
  look(
    'running-down-the-glass',
    'Running down the glass',
    { count: 260, radius: 40, spread: 85, running: 45, uneven: 30, seed: 31 },
    { blur: 3 },
  ),
  look(
    'spray-out-of-focus',
    'Spray, out of focus',
    { count: 45, radius: 120, spread: 75, uneven: 20, running: 0, seed: 4 },
    { blur: 26, view: 3, rim: 20, glint: 10 },
  ),
]
