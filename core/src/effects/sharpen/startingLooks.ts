import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { SharpenControls } from './definition'

function look(
  id: string,
  name: string,
  by: 'unsharp' | 'highPass',
  radius: number,
  strength: number,
  threshold: number,
): StartingLook<SharpenControls> {
  return {
    id,
    name,
    controls: { pattern: { by, radius }, shape: { strength, threshold } },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Radii of half a pixel to one and a half for what is seen 1:1: common practice, no source. */
export const startingLooks: readonly StartingLook<SharpenControls>[] = [
  look('crisp', 'Crisp', 'unsharp', 1, 90, 8),
  look('fine-detail', 'Fine detail', 'unsharp', 0.6, 130, 12),
  look('high-pass', 'High-pass', 'highPass', 2, 100, 0),
]

/** Changes nothing. */
export const neutral: StartingLook<SharpenControls> = look(NEUTRAL, 'Neutral', 'unsharp', 1, 0, 8)
