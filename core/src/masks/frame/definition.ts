import { z } from 'zod'
import { lengthControl, percentControl } from '../../model/controls'
import { middleOf } from '../../model/frame'
import { frameMaskNode } from '../../operations/masks/shapeMasks/frameMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const frameMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('frame'),
  inset: lengthControl({
    label: 'Inset',
    usual: [0, 1000],
    hard: [0, 50000],
    step: 1,
    hint: 'From the frame to where the mask begins to open.',
  }),
  softness: lengthControl({ label: 'Fall-off', usual: [0, 1500], hard: [0, 50000], step: 1 }),
  roundness: percentControl('How round'),
})
export type FrameMask = z.infer<typeof frameMaskSchema>

export const frameMaskKind: MaskDefinition<FrameMask> = {
  kind: 'frame',
  keeps: true,
  label: 'Frame edge',
  hint: 'Away from the edges of the photo, or along them',
  start: ({ width, height }) => ({ kind: 'frame', inset: 0, softness: 0.25 * Math.min(width, height), roundness: 60 }),
  summary: ({ invert }) => (invert ? 'the edges of the frame' : 'away from the frame'),
  node: ({ inset, softness, roundness }, { frame }) => {
    const { width, height, turn } = frame
    return frameMaskNode({ ...middleOf(frame), turn, width, height, inset, softness, roundness: roundness / 100 })
  },
}
