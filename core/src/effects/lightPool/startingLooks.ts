import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { aboutTheFocalPoint, onSurfaces } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { LightPoolControls } from './definition'

function look(
  id: string,
  name: string,
  tint: string,
  pattern: Partial<LightPoolControls['pattern']>,
  shape: Partial<LightPoolControls['shape']>,
  radius = 520,
): StartingLook<LightPoolControls> {
  return {
    id,
    name,
    controls: {
      pattern: { exposure: 0.5, shadows: 25, highlights: 25, warmth: 30, ...pattern },
      shape: { rest: 0, softening: 20, softeningRadius: 8, haze: 10, ...shape },
    },
    colour: { tint, light: FIRST_LIGHT, lit: 0 },
    where: onSurfaces,
    region: aboutTheFocalPoint(radius * 1.25, radius, 100),
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/**
 * +0.5 EV, highlights and shadows a quarter up, a little warmer, local contrast a fifth down, a tenth of haze: common practice, no source. Where the pool is to be felt rather than
 * seen, a third of a step up, and highlights left alone: before a bright sky it is a disc of white else; by eye. Lengths for 6 megapixels.
 */
export const startingLooks: readonly StartingLook<LightPoolControls>[] = [
  look('lamplight', 'Lamplight', '#ffc27d', {}, {}),
  look(
    'quiet-emphasis',
    'Quiet emphasis',
    '#fff0dc',
    { exposure: 0.35, warmth: 35, highlights: 0 },
    { rest: 0.4, haze: 0, softening: 0 },
    860,
  ),
  look('moonlit-patch', 'Moonlit patch', '#b9d2ff', { exposure: 0.45, warmth: 40, highlights: 0 }, { rest: 0.3, haze: 5 }, 640),
]

/** Changes nothing. */
export const neutral: StartingLook<LightPoolControls> = look(
  NEUTRAL,
  'Neutral',
  '#ffffff',
  { exposure: 0, shadows: 0, highlights: 0, warmth: 0 },
  { softening: 0, haze: 0 },
)
