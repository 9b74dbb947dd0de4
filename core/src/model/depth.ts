import { z } from 'zod'
import { pictureReference } from '../masks/picture/definition'
import { numberControl } from './controls'

const metres = (label: string): z.ZodNumber => numberControl({ label, unit: 'm', usual: [0.5, 2000], hard: [0.01, 100000], step: 0.5 })

/** A grey picture of distances. */
export const depthSchema = z.strictObject({
  picture: pictureReference,
  /** Whether what is near is white or black. */
  near: z.enum(['white', 'black']),
  nearDistance: metres('Nearest'),
  farDistance: metres('Farthest'),
  /** Equal steps of the picture are equal steps of distance, or of its inverse, as renderers and stereo cameras write it. */
  steps: z.enum(['distance', 'inverse']),
})
export type DepthPicture = z.infer<typeof depthSchema>
