import type { Ramp } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import { behind, everywhere } from '../lightMasks'
import { unmoved } from '../placing'
import { FIRST_LIGHT } from '../origin'
import type { CustomFieldControls } from './definition'
import type { FieldStep } from './fieldOperations'

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  pattern: Partial<CustomFieldControls['pattern']>,
  steps: FieldStep[],
  more: Partial<Pick<StartingLook<CustomFieldControls>, 'where' | 'mix'>> & { readonly ramp?: Ramp } = {},
): StartingLook<CustomFieldControls> {
  const { ramp, ...rest } = more
  return {
    id,
    name,
    controls: {
      pattern: {
        source: 'smooth',
        of: null,
        picture: null,
        fit: 'fill',
        sizeX: 200,
        sizeY: 200,
        octaves: 4,
        seed: 3,
        tiling: 'off',
        turn: 0,
        speed: 0,
        heading: 90,
        ...unmoved,
        density: 20,
        part: 50,
        follows: FIRST_LIGHT,
        x: 1750,
        y: 800,
        ...pattern,
      },
      shape: { steps },
    },
    colour: { tint, light: null, lit: 0, ...(ramp ? { ramp } : {}) },
    where: everywhere,
    mix: { mode: 'screen', amount, linear: false },
    ...rest,
  }
}

const fire: Ramp = [
  { at: 0, colour: '#1a0400' },
  { at: 30, colour: '#a32305' },
  { at: 60, colour: '#ff8a1c' },
  { at: 85, colour: '#ffd76a' },
  { at: 100, colour: '#fffbe6' },
]

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<CustomFieldControls>[] = [
  look(
    'wrapped-starburst',
    'Wrapped starburst',
    64,
    '#fff0cf',
    { sizeX: 84, sizeY: 100000, octaves: 3, tiling: 'frame' },
    [
      { kind: 'levels', black: 42, white: 66, gamma: 1 },
      { kind: 'polar', reach: 2600, turn: 0, overlap: 12 },
      { kind: 'round', radius: 1500, softness: 100 },
      { kind: 'blur', sigma: 1.5 },
    ],
    { where: behind(8) },
  ),
  look(
    'fire',
    'Fire',
    92,
    '#ff9a3d',
    { source: 'billowed', sizeX: 170, sizeY: 520, octaves: 5, speed: 520, follows: null, x: 1500, y: 1900, seed: 21 },
    [
      { kind: 'invert' },
      { kind: 'fade', turn: 90, from: 2, to: 62 },
      { kind: 'levels', black: 38, white: 92, gamma: 1.1 },
      { kind: 'blur', sigma: 2 },
    ],
    { ramp: fire },
  ),
  look('discs-of-light', 'Discs of light', 39, '#ffd9a8', { source: 'specks', sizeX: 24, density: 9, follows: null, seed: 8 }, [
    { kind: 'levels', black: 22, white: 60, gamma: 1 },
    { kind: 'maximum', radius: 26 },
    { kind: 'blur', sigma: 8 },
  ]),
  look('scan-lines', 'Scan lines', 30, '#0a0f12', { source: 'stripes', sizeY: 8, part: 45 }, [], {
    mix: { mode: 'multiply', amount: 30, linear: false },
  }),
  look('lightning', 'Lightning', 96, '#cfdcff', { source: 'linear', turn: 0, follows: null, x: 1500, y: 500, seed: 137 }, [
    // A ramp across with noise over it that hardly changes across: where it is at 50 % lies a jagged line that is as thin everywhere. Two arms, and what shines about it.
    { kind: 'second', mode: 'normal', amount: 22, type: 'smooth', sizeX: 100000, sizeY: 560, octaves: 8, seed: 24 },
    { kind: 'second', mode: 'normal', amount: 5, type: 'smooth', sizeX: 1500, sizeY: 170, octaves: 6, seed: 12 },
    { kind: 'fork', from: 16, to: 60, aside: 10, width: 60 },
    { kind: 'fork', from: 36, to: 62, aside: -7, width: 50 },
    { kind: 'line', width: 0.26 },
    { kind: 'fade', turn: -90, from: 48, to: 66 },
    { kind: 'halo', sigma: 5, strength: 100 },
    { kind: 'halo', sigma: 70, strength: 280 },
  ]),
]
