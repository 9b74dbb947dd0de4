import type { StartingLook } from '../effectDefinition'
import type { HazeControls } from './definition'

function look(
  name: string,
  amount: number,
  tint: string,
  visibility: number,
  start: number,
  unevenness: number,
): StartingLook<HazeControls> {
  return {
    name,
    controls: { pattern: { visibility, start }, shape: { height: 24, fallOff: 60, unevenness, gamma: 1 } },
    colour: { tint, light: null, lit: 0 },
    where: { masks: [], hold: 100 },
    // Light adds, so the formula holds in linear light.
    mix: { mode: 'normal', amount, linear: true },
  }
}

export const startingLooks: readonly StartingLook<HazeControls>[] = [
  look('Blue distance', 90, '#b9c8da', 2600, 8, 20),
  look('Golden haze', 85, '#f0cfa2', 900, 6, 35),
  look('Grey day', 95, '#c3c8cb', 420, 0, 10),
]
