import { z } from 'zod'
import { numberControl } from '../../model/controls'
import { hueMaskNode } from '../../operations/masks/hueMask/hueMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'
import { readsTones, calmTonesOf, tonesProblem } from '../tonesFrom'

export const colourMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('colour'),
  ...readsTones,
  hue: numberControl({
    label: 'Hue',
    unit: '°',
    usual: [0, 360],
    hard: [-360, 720],
    step: 1,
    hint: 'OKLCh: 30 red, 110 yellow, 140 green, 265 blue.',
  }),
  width: numberControl({
    label: 'Width',
    unit: '°',
    usual: [0, 360],
    hard: [0, 360],
    step: 1,
    hint: 'Full width of the hues that are open; 360 is every hue.',
  }),
  chromaFrom: numberControl({
    label: 'Chroma from',
    unit: '%',
    usual: [0, 40],
    hard: [0, 100],
    step: 0.5,
    hint: 'OKLCh chroma times 100; greys have 0.',
  }),
  chromaTo: numberControl({ label: 'Chroma to', unit: '%', usual: [0, 40], hard: [0, 100], step: 0.5 }),
  softness: numberControl({
    label: 'Fall-off',
    unit: '%',
    usual: [0, 100],
    hard: [0, 100],
    step: 1,
    hint: 'At 100 % hues fall off over 60°, chroma over 10 %.',
  }),
})
export type ColourMask = z.infer<typeof colourMaskSchema>

const SOFTEST_HUE = 60
const SOFTEST_CHROMA = 0.1
const RADIANS = Math.PI / 180

export const colourMaskKind: MaskDefinition<ColourMask> = {
  kind: 'colour',
  label: 'Colour',
  hint: 'One hue, wide or narrow',
  start: () => ({ kind: 'colour', tonesFrom: 'photo', pinned: null, hue: 60, width: 60, chromaFrom: 3, chromaTo: 40, softness: 40 }),
  summary: ({ hue, width }) => (width >= 360 ? 'all hues' : `hues near ${Math.round(hue)}°`),
  node(mask, context) {
    const soft = mask.softness / 100
    return hueMaskNode(calmTonesOf(mask, context), {
      hue: mask.hue * RADIANS,
      halfWidth: (mask.width / 2) * RADIANS,
      hueSoftness: SOFTEST_HUE * soft * RADIANS,
      chromaFrom: mask.chromaFrom / 100,
      chromaTo: Math.max(mask.chromaFrom, mask.chromaTo) / 100,
      chromaSoftness: SOFTEST_CHROMA * soft,
    })
  },
  problem: tonesProblem,
}
