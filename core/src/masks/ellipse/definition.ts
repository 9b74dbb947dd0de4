import { z } from 'zod'
import { angleControl, lengthControl, percentControl, placeControl } from '../../model/controls'
import { followsPoint, FOCAL_POINT, markedPoint, type SceneMarks } from '../../model/marks'
import { ellipseMaskNode } from '../../operations/masks/shapeMasks/ellipseMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const ellipseMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('ellipse'),
  x: placeControl('x'),
  y: placeControl('y'),
  /** The mark that is its centre; null while it has a place of its own. */
  follows: followsPoint,
  radiusX: lengthControl({ label: 'Width', usual: [1, 3000], hard: [0.5, 100000], step: 1, hint: 'From the centre to the rim.' }),
  radiusY: lengthControl({ label: 'Height', usual: [1, 3000], hard: [0.5, 100000], step: 1 }),
  turn: angleControl('Rotation'),
  softness: percentControl('Fall-off', 'Part of the radius over which it falls to nothing at the rim.'),
})
export type EllipseMask = z.infer<typeof ellipseMaskSchema>

/** Centre of the ellipse: the mark that it follows, or its own place. */
export function ellipseCentre(mask: EllipseMask, marks: SceneMarks): { x: number; y: number } {
  return markedPoint(marks, mask.follows) ?? { x: mask.x, y: mask.y }
}

export const ellipseMaskKind: MaskDefinition<EllipseMask> = {
  kind: 'ellipse',
  keeps: true,
  label: 'Ellipse',
  hint: 'Inside or outside of an ellipse',
  start({ width, height }, marks) {
    const follows = marks.focal ? FOCAL_POINT : (marks.lights[0]?.id ?? null)
    const radius = 0.3 * Math.min(width, height)
    return { kind: 'ellipse', x: width / 2, y: height / 2, follows, radiusX: radius * 1.3, radiusY: radius, turn: 0, softness: 60 }
  },
  summary: ({ invert }) => (invert ? 'outside an ellipse' : 'inside an ellipse'),
  node(mask, { marks }) {
    const { radiusX, radiusY, turn, softness } = mask
    return ellipseMaskNode({ ...ellipseCentre(mask, marks), radiusX, radiusY, turn, softness: softness / 100 })
  },
}
