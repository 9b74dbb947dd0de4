import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { ColourBalanceControls } from './definition'

type Shift = readonly [red: number, green: number, blue: number]

function look(id: string, name: string, shadows: Shift, midtones: Shift, highlights: Shift): StartingLook<ColourBalanceControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        ...{ shadowsRed: shadows[0], shadowsGreen: shadows[1], shadowsBlue: shadows[2] },
        ...{ midtonesRed: midtones[0], midtonesGreen: midtones[1], midtonesBlue: midtones[2] },
        ...{ highlightsRed: highlights[0], highlightsGreen: highlights[1], highlightsBlue: highlights[2] },
      },
      shape: { luminosity: 'keep' },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Set by eye. */
export const startingLooks: readonly StartingLook<ColourBalanceControls>[] = [
  look('blue-hollows-warm-lights', 'Blue hollows, warm lights', [-12, 0, 18], [4, 0, -4], [14, 3, -12]),
  look('copper-evening', 'Copper evening', [10, -2, -6], [16, 2, -12], [10, 4, -10]),
  look('under-pines', 'Under pines', [-8, 6, 2], [-6, 8, -4], [2, 4, -6]),
  look('before-the-snow', 'Before the snow', [-10, -2, 14], [-8, 0, 10], [-4, 2, 6]),
]

/** Changes nothing. */
export const neutral: StartingLook<ColourBalanceControls> = look(NEUTRAL, 'Neutral', [0, 0, 0], [0, 0, 0], [0, 0, 0])
