import type { StartingLook } from '../effectDefinition'
import { behind, everywhere } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { RayControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<RayControls['pattern']>,
  shape: Partial<RayControls['shape']> = {},
  more: Partial<Pick<StartingLook<RayControls>, 'where' | 'mix' | 'colour'>> = {},
): StartingLook<RayControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        by: 'brights',
        follows: FIRST_LIGHT,
        x: 1900,
        y: 640,
        toX: 1250,
        toY: 1700,
        length: 420,
        tones: 72,
        width: 420,
        opening: 1.9,
        count: 6,
        uneven: 65,
        seed: 311,
        ...pattern,
      },
      shape: { strength: 110, softness: 2, edges: 55, fade: 70, noise: 45, noiseSize: 170, ...shape },
    },
    colour: { tint: '#ffe9c4', light: null, lit: 0 },
    where: behind(14),
    mix: { mode: 'screen', amount, linear: false },
    ...more,
  }
}

/** 50 px for a burst, 300 px for a strong one: common practice, no source. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<RayControls>[] = [
  look('streaming-sun', 'Streaming sun', 80, {}),
  look('short-burst', 'Short burst', 85, { length: 60, tones: 66 }, { strength: 130, noise: 25, softness: 1 }),
  look(
    'shafts-from-above',
    'Shafts from above',
    62,
    { by: 'shafts', follows: null, x: 1900, y: -320, toX: 1250, toY: 1750, width: 620 },
    { strength: 80, softness: 12, edges: 90, noise: 65 },
  ),
  look(
    'window-light',
    'Window light',
    55,
    { by: 'shafts', follows: null, x: 500, y: 500, toX: 1900, toY: 1500, count: 3, uneven: 30, width: 620, opening: 1.25 },
    { strength: 80, softness: 7, noise: 45 },
  ),
  look(
    'rush-of-the-picture',
    'Rush of the picture',
    45,
    { by: 'photo', length: 110 },
    { softness: 0, noise: 0 },
    { where: everywhere, mix: { mode: 'normal', amount: 45, linear: false } },
  ),
]
