import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { FringeControls } from './definition'

function look(id: string, name: string, red: number, blue: number): StartingLook<FringeControls> {
  return {
    id,
    name,
    controls: { pattern: { red, blue }, shape: {} },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** A pixel or two at the corners of 24 megapixels, more for an old lens: common practice, no source. */
export const startingLooks: readonly StartingLook<FringeControls>[] = [
  look('a-touch', 'A touch', 0.3, -0.3),
  look('old-lens', 'Old lens', 1, -0.8),
  look('magenta-and-green', 'Magenta and green', -0.9, -0.9),
]

/** Changes nothing. */
export const neutral: StartingLook<FringeControls> = look(NEUTRAL, 'Neutral', 0, 0)
