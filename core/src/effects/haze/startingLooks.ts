import type { StartingLook } from '../effectDefinition'
import { hazeStart } from './curve'
import type { HazeControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  visibility: number,
  start: number,
  unevenness: number,
  blueing = 0,
  part: Partial<HazeControls['pattern']> = {},
): StartingLook<HazeControls> {
  return {
    id,
    name,
    controls: {
      pattern: { visibility, start, ...hazeStart, ...part },
      shape: { height: 24, fallOff: 60, blueing, kept: part.does === 'clear' ? 40 : 0, unevenness, gamma: 1 },
    },
    colour: { tint, light: null, lit: 0 },
    where: { masks: [], hold: 100 },
    // Light adds, so the formula holds in linear light.
    mix: { mode: 'normal', amount, linear: true },
  }
}

export const startingLooks: readonly StartingLook<HazeControls>[] = [
  look('blue-distance', 'Blue distance', 90, '#b9c8da', 2600, 8, 20, 60),
  look('golden-haze', 'Golden haze', 85, '#f0cfa2', 900, 6, 35),
  look('grey-day', 'Grey day', 95, '#c3c8cb', 420, 0, 10),
  look('clearer-air', 'Clearer air', 60, '#c9d2da', 24000, 0, 0, 0, { does: 'clear' }),
]
