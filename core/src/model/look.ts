import { z } from 'zod'
import { maskSchema } from '../masks/registry'
import { mixModes } from '../operations/mixing/mix/mixModes'
import { hexColour, numberControl, percentControl } from './controls'
import { idOf, listOf, referenceTo } from './roles'

export const whereSchema = z.strictObject({
  masks: listOf(maskSchema, 32, 'masks'),
  hold: numberControl({
    label: 'Hold',
    unit: '%',
    usual: [0, 100],
    hard: [0, 100],
    step: 1,
    hint: 'How far the mask may close; at 70 % black lets 30 % through.',
  }),
})
export type Where = z.infer<typeof whereSchema>
export const emptyWhere: Where = { masks: [], hold: 100 }

export const rampStopSchema = z.strictObject({
  /** Intensity, %. */
  at: percentControl('At'),
  colour: hexColour,
})
/** Colours by intensity. */
const rampSchema = listOf(rampStopSchema, 8, 'stops', 2)
export type Ramp = z.infer<typeof rampSchema>

const shift = (label: string): z.ZodNumber => numberControl({ label, unit: '%', usual: [-100, 100], hard: [-100, 100], step: 1 })
const shifts = z.strictObject({ red: shift('Red'), green: shift('Green'), blue: shift('Blue') })
/** Shifts of the colours in three ranges of tones. */
export const balanceSchema = z.strictObject({ shadows: shifts, midtones: shifts, highlights: shifts, keepLuminosity: z.boolean() })
export type Balance = z.infer<typeof balanceSchema>

export const colourSchema = z.strictObject({
  tint: hexColour,
  /** A light of the scene that gives its colour instead; null for the tint. */
  light: referenceTo('light'),
  /** A colour temperature that gives its colour instead; null for the tint. */
  kelvin: numberControl({
    label: 'Temperature',
    unit: 'K',
    usual: [1800, 12000],
    hard: [1000, 25000],
    step: 50,
    hint: 'Candle 1900 K, lamp 2800 K, sun 5200 K, blue sky 10 000 K.',
  })
    .nullable()
    .default(null),
  /** How much the light of the scene decides how bright it is; recipes without it have none of it. */
  lit: numberControl({
    label: 'Lit by scene',
    unit: '%',
    usual: [0, 100],
    hard: [0, 100],
    step: 1,
    hint: 'Brighter near lamps and bright skies, dimmer in unlit air.',
  }).default(0),
  /** Colours by intensity instead of the one colour; null for that one. */
  ramp: rampSchema.nullable().default(null),
  balance: balanceSchema.nullable().default(null),
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

const name = z.string().min(1).max(80)

/** What every effect has, whatever its kind. */
export const effectBase = {
  id: idOf('effect'),
  /** Id of the starting look that it was made from; what is not known, or nothing, stands for the first of its kind. */
  look: z.string().max(80).default(''),
  /** A name of its own; nothing for that of its look. */
  name: z.string().max(80),
  on: z.boolean(),
  place: z.enum(depthPlaces),
  /** The group it belongs to. */
  group: referenceTo('group'),
  colour: colourSchema,
  where: whereSchema,
  /** A list of masks for what the kind itself takes from the photo: the subject that glows, the place that is lit. */
  region: whereSchema.nullable().default(null),
  mix: mixSchema,
}

/** Effects that share a mask and an amount. Its members are those effects, in a row, that name it. */
export const groupSchema = z.strictObject({ id: idOf('group'), name, on: z.boolean(), where: whereSchema, mix: mixSchema })
export type Group = z.infer<typeof groupSchema>
