import type { StartingLook } from '../effectDefinition'
import type { FogControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<FogControls['pattern']>,
  shape: Partial<FogControls['shape']>,
): StartingLook<FogControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        density: 70,
        layers: 3,
        scale: 900,
        stretch: 2.6,
        turn: 0,
        offsetX: 0,
        offsetY: 0,
        octaves: 6,
        contrast: 45,
        seed: 64,
        ...pattern,
      },
      shape: { height: 8, fallOff: 30, sight: 160, byDistance: 90, ...shape },
    },
    colour: { tint: '#d9dde0', light: null, lit: 25 },
    where: { masks: [], hold: 100 },
    mix: { mode: 'normal', amount, linear: false },
  }
}

/** A cloud enlarged well beyond its usual scale, and a second one turned and resized: common practice, no source. */
export const startingLooks: readonly StartingLook<FogControls>[] = [
  look('morning-fog', 'Morning fog', 82, {}, {}),
  look(
    'ground-mist',
    'Ground mist',
    78,
    { density: 78, layers: 2, scale: 700, stretch: 4.5, contrast: 60, seed: 12 },
    { height: 0, fallOff: 12, sight: 90, byDistance: 80 },
  ),
  look(
    'fog-from-the-sea',
    'Fog from the sea',
    92,
    { density: 92, scale: 1500, stretch: 2, contrast: 22, seed: 305 },
    { height: 26, fallOff: 60, sight: 120, byDistance: 100 },
  ),
  look(
    'drifting-smoke',
    'Drifting smoke',
    60,
    { density: 74, layers: 2, scale: 420, stretch: 1.5, turn: 24, octaves: 7, contrast: 82, seed: 77 },
    { height: 30, fallOff: 50, sight: 60, byDistance: 25 },
  ),
]
