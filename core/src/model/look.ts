import { z } from 'zod'
import { maskJoins } from '../operations/combineMasks/combineMasks'
import { toneChannels, toneCurves } from '../operations/luminosityMask/luminosityMask'
import { mixModes } from '../operations/mix/mixModes'
import { lengthControl, numberControl } from './controls'

const tone = z.number().min(0).max(1)

/** Four tones in rising order. */
const handles = z
  .tuple([tone, tone, tone, tone])
  .refine(([a, b, c, d]) => a <= b && b <= c && c <= d, { message: 'expected four tones in rising order' })

export const luminosityMaskSchema = z.strictObject({
  id: z.string().min(1),
  kind: z.literal('luminosity'),
  on: z.boolean(),
  join: z.enum(maskJoins),
  invert: z.boolean(),
  strength: numberControl({ label: 'Strength', unit: '%', usual: [0, 100], hard: [0, 100], step: 1 }),
  feather: lengthControl({ label: 'Feather', usual: [0, 60], hard: [0, 2000], step: 0.5 }),
  tonesFrom: z.enum(['photo', 'beneath']),
  channel: z.enum(toneChannels),
  curve: z.enum(toneCurves),
  handles,
  steepness: numberControl({
    label: 'Steepness',
    unit: '',
    usual: [-4, 4],
    hard: [-12, 12],
    step: 0.5,
    hint: 'Above 0 the mask is multiplied with itself and gets tighter; below 0 its complement is, and it gets wider.',
  }),
})
export type LuminosityMask = z.infer<typeof luminosityMaskSchema>

const maskSchema = z.discriminatedUnion('kind', [luminosityMaskSchema])
export type Mask = z.infer<typeof maskSchema>

export const whereSchema = z.strictObject({
  masks: z.array(maskSchema).max(32),
  hold: numberControl({
    label: 'Hold',
    unit: '%',
    usual: [0, 100],
    hard: [0, 100],
    step: 1,
    hint: 'How far the mask may close: at 70 %, black still lets 30 % through.',
  }),
})
export type Where = z.infer<typeof whereSchema>

const colourSchema = z.strictObject({
  tint: z.string().regex(/^#[0-9a-f]{6}$/i, 'expected a colour written #rrggbb'),
})
export type Colour = z.infer<typeof colourSchema>

export const mixSchema = z.strictObject({
  mode: z.enum(mixModes),
  amount: numberControl({ label: 'Amount', unit: '%', usual: [0, 100], hard: [0, 100], step: 1 }),
  linear: z.boolean(),
})
export type Mix = z.infer<typeof mixSchema>

/** Places of the depth line, from the farthest to the last. */
export const depthPlaces = ['sky', 'far', 'middle', 'near', 'lens', 'finish'] as const
export type DepthPlace = (typeof depthPlaces)[number]

/** What every effect has, whatever its kind. */
export const effectBase = {
  id: z.string().min(1),
  name: z.string().min(1).max(80),
  on: z.boolean(),
  place: z.enum(depthPlaces),
  colour: colourSchema,
  where: whereSchema,
  mix: mixSchema,
}
