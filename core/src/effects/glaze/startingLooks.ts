import type { Ramp } from '../../model/look'
import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { aboutTheFocalPoint, everywhere, onSurfaces } from '../lightMasks'
import type { GlazeControls } from './definition'

function look(
  id: string,
  name: string,
  tint: string,
  mix: StartingLook<GlazeControls>['mix'],
  parts: Partial<GlazeControls['pattern'] & GlazeControls['shape']>,
  ramp?: Ramp,
  where = everywhere,
): StartingLook<GlazeControls> {
  const all = { by: 'even', x: 1500, y: 0, toX: 1500, toY: 2000, black: 0, white: 100, gamma: 1, changes: 'amount', ...parts } as const
  const { black, white, gamma, changes, ...pattern } = all
  return {
    id,
    name,
    controls: { pattern, shape: { black, white, gamma, changes } },
    colour: { tint, light: null, lit: 0, ...(ramp ? { ramp } : {}) },
    where,
    mix,
  }
}

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<GlazeControls>[] = [
  look('warm-glaze', 'Warm glaze', '#ffb36b', { mode: 'soft-light', amount: 35, linear: false }, {}),
  look('painted-light', 'Painted light', '#ffd9a0', { mode: 'overlay', amount: 30, linear: false }, {}, undefined, onSurfaces),
  // A warm light over what is to be looked at: common practice, no source.
  look(
    'light-on-the-subject',
    'Light on the subject',
    '#ffd7a3',
    { mode: 'overlay', amount: 32, linear: false },
    {},
    undefined,
    aboutTheFocalPoint(1050, 850, 100),
  ),
  look('evening-from-above', 'Evening from above', '#3d4f86', { mode: 'multiply', amount: 55, linear: false }, { by: 'slope' }),
  look(
    'cold-shadows-warm-lights',
    'Cold shadows, warm lights',
    '#ffffff',
    { mode: 'soft-light', amount: 45, linear: false },
    { by: 'tones', changes: 'colour' },
    [
      { at: 0, colour: '#27476b' },
      { at: 50, colour: '#808080' },
      { at: 100, colour: '#e8b878' },
    ],
  ),
]

/** Changes nothing. */
export const neutral: StartingLook<GlazeControls> = look(
  NEUTRAL,
  'Neutral',
  '#ffb36b',
  { mode: 'soft-light', amount: 0, linear: false },
  {},
)
