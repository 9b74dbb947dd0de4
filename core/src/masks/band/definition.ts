import { z } from 'zod'
import { angleControl, lengthControl, placeControl } from '../../model/controls'
import { followsLevel, type SceneMarks } from '../../model/marks'
import { bandMaskNode } from '../../operations/masks/shapeMasks/bandMask'
import type { Size } from '../../planes/grid'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const bandMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('band'),
  x: placeControl('x'),
  y: placeControl('y'),
  turn: angleControl('Rotation'),
  follows: followsLevel,
  width: lengthControl({ label: 'Width', usual: [0, 2000], hard: [0, 100000], step: 1, hint: 'Of the part that is fully open.' }),
  softness: lengthControl({ label: 'Fall-off', usual: [0, 1000], hard: [0, 100000], step: 1, hint: 'Length of the fall on each side.' }),
})
export type BandMask = z.infer<typeof bandMaskSchema>

/** A place on the middle line of the band, and its angle. */
export function bandLine(mask: BandMask, marks: SceneMarks, photo: Size): { x: number; y: number; turn: number } {
  const level = mask.follows && marks[mask.follows]
  return level ? { x: photo.width / 2, y: level.y, turn: level.turn } : { x: mask.x, y: mask.y, turn: mask.turn }
}

export const bandMaskKind: MaskDefinition<BandMask> = {
  kind: 'band',
  keeps: true,
  label: 'Band',
  hint: 'Along a line, both sides fading',
  start({ width, height }, marks) {
    const follows = marks.horizon ? 'horizon' : marks.waterline ? 'waterline' : null
    return { kind: 'band', x: width / 2, y: height / 2, turn: 0, follows, width: 0.16 * height, softness: 0.12 * height }
  },
  summary: ({ follows }) => (follows ? `a band along the ${follows}` : 'a band'),
  node: (mask, { marks, photo }) => bandMaskNode({ ...bandLine(mask, marks, photo), width: mask.width, softness: mask.softness }),
}
