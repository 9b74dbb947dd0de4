import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { onSurfaces } from '../lightMasks'
import { FIRST_LIGHT } from '../origin'
import type { LampControls } from './definition'

function look(
  id: string,
  name: string,
  tint: string,
  pattern: Partial<LampControls['pattern']>,
  shape: Partial<LampControls['shape']>,
): StartingLook<LampControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        follows: FIRST_LIGHT,
        x: 1900,
        y: 300,
        toX: 1500,
        toY: 1350,
        height: 420,
        inner: 3,
        outer: 42,
        falloff: 65,
        depth: 60,
        ...pattern,
      },
      shape: {
        strength: 120,
        ambient: 60,
        sheen: 30,
        sharpness: 3,
        sheenBy: 'own',
        sheenTint: '#fff0d9',
        cone: 0,
        fog: 55,
        fogSize: 160,
        seed: 19,
        ...shape,
      },
    },
    colour: { tint, light: null, kelvin: null, lit: 0 },
    where: { ...onSurfaces, hold: 85 },
    mix: { mode: 'normal', amount: 100, linear: true },
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<LampControls>[] = [
  look('street-lamp', 'Street lamp', '#ffc98a', {}, { cone: 38 }),
  look('lamp-in-fog', 'Lamp in fog', '#ffe0b8', { inner: 2, outer: 30 }, { ambient: 80, strength: 80, cone: 55, fog: 70 }),
  look('only-this-light', 'Only this light', '#ffd6a0', { inner: 3, outer: 36, falloff: 80 }, { ambient: 22, strength: 190, sheen: 70 }),
]

/** Changes nothing. */
export const neutral: StartingLook<LampControls> = look(NEUTRAL, 'Neutral', '#ffe6c4', {}, { strength: 0, ambient: 100, sheen: 0, fog: 0 })
