import { maskDefinitionOf, newMask, noMarks, type Mask, type MaskKind, type Owner, type PictureSource } from '@welkinar/core'
import type { Action } from '../../../common/ActionMenu'
import { showNotice } from '../../../common/notices'
import { changeOwner, useScene, type PhotoTool } from '../../../scene/sceneStore'

/** What a tap on the photo does for a mask that is made on the photo. */
const toolFor: Partial<Record<MaskKind, PhotoTool>> = {
  brush: { kind: 'paint' },
  similar: { kind: 'tap similar' },
  outline: { kind: 'outline', hole: false },
}

/** Chooses a mask for editing; one that is painted or drawn takes the pointer on the photo. */
export function chooseMask(mask: Mask): void {
  const drawn = mask.kind === 'outline' && mask.paths.length > 0
  useScene.getState().set({ chosenMaskId: mask.id, tool: drawn ? undefined : toolFor[mask.kind] })
}

/** Adds a mask with the starting values of its kind: the first keeps, later ones take away. */
export function addMask(source: PictureSource, owner: Owner, kind: MaskKind): void {
  const join = owner.where.masks.length > 0 && !maskDefinitionOf(kind).keeps ? 'subtract' : 'keep'
  const mask = newMask(source.photo, { kind, id: crypto.randomUUID(), join, marks: source.marks ?? noMarks })
  changeOwner(owner.id, 'Add mask', ({ where }) => void where.masks.push(mask))
  chooseMask(mask)
}

/** What can be done with a mask of the list. */
export function maskActions(source: PictureSource, owner: Owner, mask: Mask, rename: () => void): readonly Action[] {
  const at = owner.where.masks.findIndex(({ id }) => id === mask.id)
  const others = [...source.effects, ...(source.groups ?? [])].filter(({ id }) => id !== owner.id)
  const move = (by: -1 | 1): void =>
    changeOwner(owner.id, 'Move mask', ({ where }) => {
      const [moved] = where.masks.splice(at, 1)
      if (moved) where.masks.splice(at + by, 0, moved)
    })
  return [
    { label: 'Rename', run: rename },
    { label: 'Duplicate', run: () => duplicate(owner, mask) },
    { label: 'Move up', enabled: at > 0, run: () => move(-1) },
    { label: 'Move down', enabled: at < owner.where.masks.length - 1, run: () => move(1) },
    ...others.map((other) => ({ label: `Copy to ${other.name}`, run: () => copyTo(other, mask) })),
    { label: 'Remove', run: () => removeMask(owner, mask) },
  ]
}

function duplicate(owner: Owner, mask: Mask): void {
  const copy = { ...mask, id: crypto.randomUUID() }
  changeOwner(
    owner.id,
    'Duplicate mask',
    ({ where }) => void where.masks.splice(where.masks.findIndex(({ id }) => id === mask.id) + 1, 0, copy),
  )
  chooseMask(copy)
}

function copyTo(other: Owner, mask: Mask): void {
  const copy = { ...mask, id: crypto.randomUUID() }
  changeOwner(other.id, 'Copy mask', ({ where }) => void where.masks.push(copy))
  showNotice(`The mask was copied to ${other.name}.`, { label: 'Undo', run: () => useScene.getState().undo() })
}

function removeMask(owner: Owner, mask: Mask): void {
  changeOwner(owner.id, 'Remove mask', (one) => void (one.where.masks = one.where.masks.filter(({ id }) => id !== mask.id)))
  useScene.getState().set({ tool: undefined })
}
