import { z } from 'zod'
import { cornerSchema } from '../../model/corner'
import { listOf } from '../../model/roles'
import { outlineMaskNode } from '../../operations/masks/outlineMask/outlineMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

const pathSchema = z.strictObject({ hole: z.boolean(), corners: listOf(cornerSchema, 2000, 'corners') })
export type OutlinePath = z.infer<typeof pathSchema>

export const outlineMaskSchema = z.strictObject({ ...maskBase, kind: z.literal('outline'), paths: listOf(pathSchema, 100, 'outlines') })
export type OutlineMask = z.infer<typeof outlineMaskSchema>

export const outlineMaskKind: MaskDefinition<OutlineMask> = {
  kind: 'outline',
  label: 'Outline',
  hint: 'Polygons and curves that you draw',
  start: () => ({ kind: 'outline', paths: [] }),
  summary({ paths, invert }) {
    const shapes = paths.filter(({ hole }) => !hole).length
    return `${invert ? 'outside ' : ''}${shapes === 1 ? 'an outline' : `${shapes} outlines`}`
  },
  node: ({ paths }) => outlineMaskNode(paths),
  problem: ({ paths }) =>
    paths.some(({ corners }) => corners.length > 2) ? undefined : 'Nothing is outlined yet: tap corners on the photo.',
}
