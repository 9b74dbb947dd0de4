import type { SceneMarks } from '../model/marks'
import type { MaskJoin } from '../operations/masks/combineMasks/combineMasks'
import type { Size } from '../planes/grid'
import { maskDefinitionOf, maskSchema, type Mask, type MaskKind } from './registry'

interface NewMaskOptions {
  readonly kind: MaskKind
  readonly id: string
  readonly join: MaskJoin
  readonly marks: SceneMarks
}

/** A mask with the starting values of its kind, measured by the photo. */
export function newMask(photo: Size, { kind, id, join, marks }: NewMaskOptions): Mask {
  const base = { id, name: '', on: true, join, invert: false, strength: 100, grow: 0, edges: 0, feather: 0 }
  return maskSchema.parse({ ...base, ...maskDefinitionOf(kind).start(photo, marks) })
}
