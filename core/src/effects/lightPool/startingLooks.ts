import type { StartingLook } from '../effectDefinition'
import { aboutTheFocalPoint, onSurfaces } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { LightPoolControls } from './definition'

function look(
  name: string,
  tint: string,
  pattern: Partial<LightPoolControls['pattern']>,
  shape: Partial<LightPoolControls['shape']>,
  radius = 520,
): StartingLook<LightPoolControls> {
  return {
    name,
    controls: {
      pattern: { exposure: 0.5, shadows: 10, highlights: 0, warmth: 60, ...pattern },
      shape: { rest: 0, softening: 15, softeningRadius: 8, haze: 6, ...shape },
    },
    colour: { tint, light: FIRST_LIGHT, lit: 0 },
    where: onSurfaces,
    region: aboutTheFocalPoint(radius * 1.25, radius),
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** +0.5 EV, warm: common practice, no source. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<LightPoolControls>[] = [
  look('Lamplight', '#ffc27d', { exposure: 0.9 }, {}),
  look('Quiet emphasis', '#fff0dc', { warmth: 35 }, { rest: 0.45, haze: 0, softening: 0 }, 720),
  look('Moonlit patch', '#b9d2ff', { exposure: 0.6, warmth: 55 }, { rest: 0.3 }),
]
