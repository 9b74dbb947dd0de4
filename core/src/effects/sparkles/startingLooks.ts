import type { StartingLook } from '../effectDefinition'
import { everywhere, notTheSky } from '../lightMasks'
import { sparesShadows } from '../sparesShadows'
import type { SparkleControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  pattern: Partial<SparkleControls['pattern']>,
  shape: Partial<SparkleControls['shape']> = {},
  more: Partial<Pick<StartingLook<SparkleControls>, 'where' | 'mix'>> = {},
): StartingLook<SparkleControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        by: 'placed',
        places: [
          { x: 1500, y: 1000, size: 100, turn: 0 },
          { x: 1640, y: 1120, size: 45, turn: 0 },
          { x: 1390, y: 1150, size: 30, turn: 0 },
        ],
        count: 60,
        reach: 90,
        core: 3.2,
        points: 4,
        uneven: 40,
        turn: 18,
        sizeSpread: 30,
        seed: 12,
        ...pattern,
      },
      shape: { halo: 45, tintScatter: 25, turnScatter: 10, blur: 0.5, ...shape },
    },
    colour: { tint, light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'screen', amount, linear: false },
    ...more,
  }
}

/** A slight blur; Screen or addition: common practice, no source. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<SparkleControls>[] = [
  look('glints-on-metal', 'Glints on metal', 95, '#fff1d8', {}),
  look(
    'sea-glitter',
    'Sea glitter',
    90,
    '#fff8ea',
    { by: 'many', count: 240, reach: 42, core: 2.2, sizeSpread: 85, seed: 77 },
    { halo: 25, turnScatter: 100 },
    { where: { masks: [notTheSky, { ...sparesShadows, handles: [0.2, 0.55, 1, 1] }], hold: 100 } },
  ),
  look(
    'fairy-dust',
    'Fairy dust',
    85,
    '#ffe3b0',
    { by: 'many', count: 130, reach: 48, core: 3, points: 6, uneven: 70, sizeSpread: 90, seed: 5 },
    { halo: 70, tintScatter: 70, turnScatter: 100, blur: 0.8 },
  ),
  look(
    'cold-stars-of-frost',
    'Cold stars of frost',
    90,
    '#eaf4ff',
    { by: 'many', count: 70, reach: 62, core: 2.2, points: 6, uneven: 15, sizeSpread: 80, seed: 41 },
    { halo: 30, turnScatter: 40 },
  ),
]
