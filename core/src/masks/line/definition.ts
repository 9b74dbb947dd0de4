import { z } from 'zod'
import { placeControl } from '../../model/controls'
import { followsLevel, type SceneMarks } from '../../model/marks'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import type { Size } from '../../planes/grid'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const lineMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('line'),
  /** Where it is still open. */
  x: placeControl('x'),
  y: placeControl('y'),
  /** Where it is shut. */
  toX: placeControl('x'),
  toY: placeControl('y'),
  follows: followsLevel,
})
export type LineMask = z.infer<typeof lineMaskSchema>

interface Ends {
  readonly x: number
  readonly y: number
  readonly toX: number
  readonly toY: number
}

/** Ends of the fall. On a mark, its middle lies on the mark and it runs square to it, as long as it is, up or down as it was. */
export function lineEnds(mask: LineMask, marks: SceneMarks, photo: Size): Ends {
  const level = mask.follows && marks[mask.follows]
  if (!level) return mask
  const length = Math.hypot(mask.toX - mask.x, mask.toY - mask.y) / 2
  const up = mask.toY < mask.y ? -1 : 1
  const radians = (level.turn * Math.PI) / 180
  const [dx, dy] = [up * length * Math.sin(radians), up * length * Math.cos(radians)]
  const x = photo.width / 2
  return { x: x - dx, y: level.y - dy, toX: x + dx, toY: level.y + dy }
}

export const lineMaskKind: MaskDefinition<LineMask> = {
  kind: 'line',
  keeps: true,
  label: 'Line',
  hint: 'One side of a line, fading across it',
  start({ width, height }, marks) {
    const x = width / 2
    return { kind: 'line', x, y: 0.35 * height, toX: x, toY: 0.65 * height, follows: marks.horizon ? 'horizon' : null }
  },
  summary: ({ follows }) => (follows ? `one side of the ${follows}` : 'one side of a line'),
  node: (mask, { marks, photo }) => lineMaskNode(lineEnds(mask, marks, photo)),
}
