import { z } from 'zod'
import { numberControl, placeControl } from './controls'

const offset = (measures: 'x' | 'y'): z.ZodNumber =>
  numberControl({ label: 'Handle', unit: 'px', measures, usual: [-2000, 2000], hard: [-100000, 100000], step: 1 })

/** A corner, with the Bézier handles of the curves that come in and go out as offsets from it; 0 makes the side straight. */
export const cornerSchema = z.strictObject({
  x: placeControl('x'),
  y: placeControl('y'),
  inX: offset('x'),
  inY: offset('y'),
  outX: offset('x'),
  outY: offset('y'),
})
export type OutlineCorner = z.infer<typeof cornerSchema>
