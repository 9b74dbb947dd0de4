import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import { noAdjustment, type AdjustControls } from './adjusted'

function look(id: string, name: string, parts: Partial<AdjustControls['pattern'] & AdjustControls['shape']>): StartingLook<AdjustControls> {
  const all = { ...noAdjustment.pattern, ...noAdjustment.shape, ...parts }
  const { exposure, contrast, highlights, shadows, whites, midtones, blacks, ...shape } = all
  return {
    id,
    name,
    controls: { pattern: { exposure, contrast, highlights, shadows, whites, midtones, blacks }, shape },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Set by eye. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<AdjustControls>[] = [
  look('clearer', 'Clearer', { contrast: 25, highlights: -15, shadows: 20, vibrance: 25, fine: 20, broad: 15 }),
  look('warm-evening', 'Warm evening', { exposure: -0.15, warmth: 45, contrast: 15, shadows: -10, vibrance: 15 }),
  look('cold-morning', 'Cold morning', { exposure: 0.1, warmth: -40, saturation: -25, blacks: 25, contrast: -10 }),
  look('as-night', 'As night', { exposure: -1.6, warmth: -55, saturation: -45, contrast: 15, highlights: -25 }),
]

/** Changes nothing. */
export const neutral: StartingLook<AdjustControls> = look(NEUTRAL, 'Neutral', {})
