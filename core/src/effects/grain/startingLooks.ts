import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { GrainControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  pattern: Partial<GrainControls['pattern']>,
  strength: number,
): StartingLook<GrainControls> {
  return {
    id,
    name,
    controls: { pattern: { size: 0.7, clumping: 20, colours: 'one', seed: 24, ...pattern }, shape: { strength } },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'soft-light', amount, linear: false },
  }
}

/** Noise on mid-grey by Soft light, so that black and white stay clean: common practice, no source. */
export const startingLooks: readonly StartingLook<GrainControls>[] = [
  look('fine-grain', 'Fine grain', 100, {}, 5),
  look('coarse-grain', 'Coarse grain', 100, { size: 1.4, clumping: 45, seed: 7 }, 6),
  look('grain-in-colour', 'Grain in colour', 100, { colours: 'own', size: 0.9, seed: 81 }, 6),
]

/** Changes nothing. */
export const neutral: StartingLook<GrainControls> = look(NEUTRAL, 'Neutral', 100, {}, 0)
