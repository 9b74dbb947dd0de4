import { z } from 'zod'
import { angleControl, placeControl } from './controls'

export const levelSchema = z.strictObject({
  /** Height of the line in the middle of the photo, px from its top. */
  y: placeControl('y'),
  turn: angleControl('Slope'),
})
/** A line across the photo. */
export type LevelMark = z.infer<typeof levelSchema>
