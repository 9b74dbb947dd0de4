import { z } from 'zod'
import { angleControl, lengthControl, numberControl, offsetControl, percentControl, seedControl } from '../../model/controls'
import { cloudMaskNode } from '../../operations/masks/cloudMask/cloudMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const cloudMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('cloud'),
  scale: lengthControl({
    label: 'Scale',
    usual: [20, 3000],
    hard: [1, 100000],
    step: 1,
    hint: 'Size of the largest shapes.',
    noise: 'scale',
  }),
  stretch: numberControl({ label: 'Stretch', unit: '×', usual: [0.2, 6], hard: [0.05, 50], step: 0.05 }),
  turn: angleControl('Rotation', { noise: 'rotation' }),
  offsetX: offsetControl('Offset across'),
  offsetY: offsetControl('Offset down'),
  octaves: numberControl({ label: 'Octaves', unit: '', usual: [1, 8], hard: [1, 10], step: 1, whole: true }),
  cover: percentControl('Cover', 'How much of the picture is open.'),
  contrast: percentControl('Contrast'),
  seed: seedControl(),
})
export type CloudMask = z.infer<typeof cloudMaskSchema>

export const cloudMaskKind: MaskDefinition<CloudMask> = {
  kind: 'cloud',
  keeps: true,
  box: {
    paths: ['offsetX', 'offsetY', 'scale', 'stretch', 'turn'],
    read: ({ offsetX: x, offsetY: y, scale: size, stretch, turn }) => ({ x, y, size, stretch, turn }),
    write: (mask, { x: offsetX, y: offsetY, size: scale, stretch, turn }) =>
      void Object.assign(mask, { offsetX, offsetY, scale, stretch, turn }),
  },
  label: 'Cloud',
  hint: 'Uneven, like drifting cloud',
  start: ({ width, height }) => ({
    kind: 'cloud',
    scale: 0.22 * Math.max(width, height),
    stretch: 1.6,
    turn: 0,
    offsetX: 0,
    offsetY: 0,
    octaves: 5,
    cover: 50,
    contrast: 50,
    seed: 1,
  }),
  summary: () => 'drifting cloud',
  node(mask) {
    const { scale, stretch, turn, offsetX, offsetY, octaves, seed } = mask
    // The noise lies around 0.5, nearly all of it between 0.15 and 0.85.
    const middle = 0.85 - 0.7 * (mask.cover / 100)
    const half = 0.4 * (1 - mask.contrast / 100) + 0.02
    return cloudMaskNode({ scale, stretch, turn, offsetX, offsetY, octaves, seed, low: middle - half, high: middle + half })
  },
}
