import { z } from 'zod'
import { lengthControl, numberControl, percentControl } from '../model/controls'
import { idOf } from '../model/roles'
import { maskJoins } from '../operations/masks/combineMasks/combineMasks'

/** What every mask has, whatever its kind. */
export const maskBase = {
  id: idOf('mask'),
  /** Own words; empty while the mask is called by what it does. */
  name: z.string().max(80),
  on: z.boolean(),
  join: z.enum(maskJoins),
  invert: z.boolean(),
  strength: percentControl('Strength', 'How much of its change the mask makes.'),
  grow: numberControl({
    label: 'Grow',
    unit: 'px',
    measures: 'length',
    usual: [-30, 30],
    hard: [-300, 300],
    step: 0.5,
    hint: 'Widens what is open; below 0 it narrows it.',
  }),
  edges: lengthControl({
    label: 'Follow edges',
    usual: [0, 60],
    hard: [0, 1000],
    step: 1,
    hint: 'How far the mask may move to the edges of the photo.',
  }),
  feather: lengthControl({ label: 'Feather', usual: [0, 60], hard: [0, 2000], step: 0.5 }),
}
