import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { OneHueControls } from './definition'

function look(
  id: string,
  name: string,
  pattern: Partial<OneHueControls['pattern']>,
  shape: Partial<OneHueControls['shape']>,
): StartingLook<OneHueControls> {
  return {
    id,
    name,
    controls: {
      pattern: { hue: 140, width: 70, softness: 30, pale: 8, ...pattern },
      shape: { shift: 0, saturation: 0, lightness: 0, ...shape },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Hues of OKLCh: greens about 140°, blues about 255°, oranges about 55°. Set by eye. */
export const startingLooks: readonly StartingLook<OneHueControls>[] = [
  look('calmer-greens', 'Calmer greens', { hue: 135 }, { saturation: -45, shift: 6 }),
  look('deeper-blues', 'Deeper blues', { hue: 255, width: 90 }, { saturation: 20, lightness: -12 }),
  look('warmer-oranges', 'Warmer oranges', { hue: 62, width: 50 }, { saturation: 12, shift: -6, lightness: 4 }),
]

/** Changes nothing. */
export const neutral: StartingLook<OneHueControls> = look(NEUTRAL, 'Neutral', {}, {})
