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

/** The code 0-1 that a depth picture has at a distance in metres; clamped to its ends. */
export function depthCode(depth: DepthPicture, metresAway: number): number {
  const { nearDistance: near, farDistance: far } = depth
  const of = (distance: number): number => (depth.steps === 'inverse' ? 1 / Math.max(distance, 1e-6) : distance)
  const span = of(far) - of(near)
  const towardsFar = span === 0 ? 0 : Math.min(1, Math.max(0, (of(metresAway) - of(near)) / span))
  return depth.near === 'white' ? 1 - towardsFar : towardsFar
}
