import type { StartingLook } from '../effectDefinition'
import { sparesShadows } from '../sparesShadows'
import type { ReflectionControls } from './definition'

function look(
  id: string,
  name: string,
  amount: number,
  stretch: number,
  shape: Partial<ReflectionControls['shape']>,
): StartingLook<ReflectionControls> {
  return {
    id,
    name,
    controls: { pattern: { of: null, stretch }, shape: { ripple: 10, rippleLength: 60, fade: 25, blur: 0.6, seed: 7, ...shape } },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: { masks: [{ ...sparesShadows, handles: [0.02, 0.12, 1, 1] }], hold: 100 },
    mix: { mode: 'screen', amount, linear: false },
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<ReflectionControls>[] = [
  look('still-water', 'Still water', 55, 1, {}),
  look('light-breeze', 'Light breeze', 50, 1.2, { ripple: 34, rippleLength: 70, blur: 1.2, fade: 40 }),
  look('wet-ground', 'Wet ground', 35, 1.1, { ripple: 5, rippleLength: 18, blur: 4, fade: 70 }),
]
