import { z } from 'zod'
import { adjustControls } from '../effects/adjust/adjusted'
import { choiceControl, lengthControl, numberControl, percentControl, placeControl } from './controls'
import { idOf, listOf } from './roles'

/** Photos are turned by up to so much to stand upright. */
const MOST_TURN = 45

const side = (label: string, measures: 'x' | 'y'): z.ZodNumber =>
  numberControl({ label, unit: 'px', measures, usual: [1, 6000], hard: [1, 100000], step: 1 })

/** The part of the photo that is shown: a rectangle of the photo turned about the middle of this part. */
export const cropSchema = z.strictObject({
  x: placeControl('x'),
  y: placeControl('y'),
  width: side('Width', 'x'),
  height: side('Height', 'y'),
  turn: numberControl({
    label: 'Straighten',
    unit: '°',
    usual: [-15, 15],
    hard: [-MOST_TURN, MOST_TURN],
    step: 0.1,
    hint: 'Above 0 counter-clockwise.',
  }),
})
export type Crop = z.infer<typeof cropSchema>

export const noiseSchema = z.strictObject({
  luminance: percentControl('Fine noise', 'Grain in light and dark. Edges and single stars stay.'),
  colour: percentControl('Colour noise', 'Coloured spots.'),
})
export type NoiseControls = z.infer<typeof noiseSchema>

export const repairSchema = z.strictObject({
  id: idOf('repair'),
  x: placeControl('x'),
  y: placeControl('y'),
  radius: lengthControl({ label: 'Radius', usual: [2, 300], hard: [0.5, 5000], step: 0.5 }),
  /** The place that it is mended from. */
  fromX: placeControl('x', 'From'),
  fromY: placeControl('y', 'From'),
  soft: percentControl('Feather'),
  keeps: choiceControl('What is mended', { nothing: 'All, from nearby', texture: 'Tone only' }),
})
export type Repair = z.infer<typeof repairSchema>

/** What is done to the photo before all effects. Nothing of it is baked in. */
export const groundworkSchema = z.strictObject({
  /** Nothing for the whole photo as it stands. */
  crop: cropSchema.nullable(),
  noise: noiseSchema,
  repairs: listOf(repairSchema, 200, 'repairs'),
  /** Tones and white balance; nothing while they are as they came. */
  tone: adjustControls.nullable(),
})
export type Groundwork = z.infer<typeof groundworkSchema>

export const noGroundwork: Groundwork = { crop: null, noise: { luminance: 0, colour: 0 }, repairs: [], tone: null }
