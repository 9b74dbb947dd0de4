import { z } from 'zod'
import { lengthControl, percentControl } from '../../model/controls'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { skyMaskNode } from '../../operations/masks/skyMask/skyMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const skyMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('sky'),
  tolerance: percentControl(
    'Tolerance',
    'How far a place may differ from the sky around it: higher takes in clouds, lower keeps out hazy hills.',
  ),
  calm: lengthControl({
    label: 'Calm',
    usual: [0, 6],
    hard: [0, 40],
    step: 0.1,
    hint: 'Smooths the grain of the photo before it is judged.',
  }),
})
export type SkyMask = z.infer<typeof skyMaskSchema>

/** Height of the horizon in a photo that has no mark of it. */
const LIKELY_HORIZON = 0.62

export const skyMaskKind: MaskDefinition<SkyMask> = {
  kind: 'sky',
  keeps: true,
  label: 'Sky',
  hint: 'The sky above the horizon, without what stands in front of it',
  start: () => ({ kind: 'sky', tolerance: 8, calm: 0.8 }),
  summary: () => 'the sky',
  node({ tolerance, calm }, { photo, photoId, picture, marks }) {
    const { y, turn } = marks.horizon ?? { y: LIKELY_HORIZON * photo.height, turn: 0 }
    const params = { photoId, x: photo.width / 2, y, turn, tolerance: Math.max(0.2, tolerance) / 100 }
    return skyMaskNode(gaussianBlurNode(picture, calm), params)
  },
}
