import {
  definitionOf,
  findOwner,
  maskDefinitionOf,
  maskList,
  nameOfEffect,
  newMask,
  noMarks,
  type Mask,
  type MaskKind,
  type MaskListRef,
  type PictureSource,
} from '@welkinar/core'
import type { Action } from '../../common/ActionMenu'
import { changeMaskList, useScene } from '../../scene/sceneStore'
import type { PhotoTool } from '../../scene/viewState'
import { firstSense } from './brushSense'
import { makeMaskOwn, removeShared, shareMask, usersOf } from './sharedMasks'
import { showUndoable } from './showUndoable'

/** What a tap on the photo does for a mask that is made on the photo. */
const toolFor: Partial<Record<MaskKind, PhotoTool>> = {
  brush: { kind: 'paint' },
  similar: { kind: 'tap similar' },
  outline: { kind: 'outline', hole: false, by: 'corners' },
}

/** Chooses a mask for editing; one that is painted or drawn takes the pointer on the photo. */
export function chooseMask(mask: Mask): void {
  const drawn = mask.kind === 'outline' && mask.paths.length > 0
  useScene.getState().set({ chosenMaskId: mask.id, tool: drawn ? undefined : toolFor[mask.kind] })
}

/** Adds a mask with the starting values of its kind. It joins by what it is for: places and shapes keep, tones and what is drawn around take away; what is taken from the photo grows. */
export function addMask(source: PictureSource, list: MaskListRef, kind: MaskKind): void {
  const isFirst = (maskList(source, list)?.masks.length ?? 0) === 0
  const later = list.list === 'region' ? 'add' : 'subtract'
  const join = isFirst || maskDefinitionOf(kind).keeps ? 'keep' : later
  const mask = newMask(source.photo, { kind, id: crypto.randomUUID(), join, marks: source.marks ?? noMarks })
  if (kind === 'brush' && isFirst && list.list === 'where') mask.invert = firstSense(findOwner(source, list.owner)) === 'not here'
  if (changeMaskList(list, 'Add mask', ({ masks }) => void masks.push(mask))) chooseMask(mask)
}

/** Replaces all masks of a list by an outline, which is drawn on the photo now. */
export function drawInstead(source: PictureSource, list: MaskListRef): void {
  const mask = newMask(source.photo, { kind: 'outline', id: crypto.randomUUID(), join: 'keep', marks: source.marks ?? noMarks })
  if (changeMaskList(list, 'Draw around it', (target) => void (target.masks = [mask]))) chooseMask(mask)
}

/** What can be done with a mask of a list. */
export function maskActions(source: PictureSource, list: MaskListRef, mask: Mask, rename: () => void): readonly Action[] {
  const masks = maskList(source, list)?.masks ?? []
  const at = masks.findIndex(({ id }) => id === mask.id)
  const move = (by: -1 | 1): void =>
    void changeMaskList(list, 'Move mask', (target) => {
      const [moved] = target.masks.splice(at, 1)
      if (moved) target.masks.splice(at + by, 0, moved)
    })
  return [
    { label: 'Rename', run: rename },
    { label: 'Duplicate', run: () => duplicate(list, mask) },
    { label: 'Move up', enabled: at > 0, run: () => move(-1) },
    { label: 'Move down', enabled: at < masks.length - 1, run: () => move(1) },
    ...sharing(source, list, mask),
    ...otherLists(source, list).map(({ ref, words }) => ({ label: `Copy to ${words}`, run: () => copyTo(ref, words, mask) })),
    { label: 'Remove', run: () => removeMask(list, mask) },
  ]
}

/** What can be done with a mask for others. */
function sharing(source: PictureSource, list: MaskListRef, mask: Mask): readonly Action[] {
  if (mask.kind !== 'shared')
    return findOwner(source, list.owner) ? [{ label: 'Share it', run: () => shareMask(list, mask, wordsOf(mask)) }] : []
  const { of } = mask
  const others = of === null ? 0 : usersOf(source, of).length - 1
  return [
    { label: 'Make it my own', run: () => makeMaskOwn(list, mask) },
    ...(of !== null && others > 0 ? [{ label: 'Remove for all, leave copies', run: () => removeShared(of, 'copies') }] : []),
    ...(of === null
      ? []
      : [{ label: others > 0 ? 'Remove for all' : 'Remove, and share it no more', run: () => removeShared(of, 'nothing') }]),
  ]
}

function wordsOf(mask: Mask): string {
  return mask.name || maskDefinitionOf(mask.kind).label
}

/** Lets a list read a shared mask. */
export function addShared(source: PictureSource, list: MaskListRef, id: string): void {
  const mask = newMask(source.photo, { kind: 'shared', id: crypto.randomUUID(), join: 'keep', marks: noMarks })
  if (mask.kind !== 'shared') return
  mask.of = id
  if (changeMaskList(list, 'Add mask', ({ masks }) => void masks.push(mask))) chooseMask(mask)
}

/** All other lists of masks of the scene, in words. */
function otherLists({ effects, groups = [] }: PictureSource, { owner, list }: MaskListRef): { ref: MaskListRef; words: string }[] {
  const all = [
    ...effects.flatMap((effect) => {
      const { id, kind } = effect
      const name = nameOfEffect(effect)
      const region = definitionOf(kind).region
      return [
        { ref: { owner: id, list: 'where' as const }, words: name },
        ...(region ? [{ ref: { owner: id, list: 'region' as const }, words: `${region.label} of ${name}` }] : []),
      ]
    }),
    ...groups.map(({ id, name }) => ({ ref: { owner: id, list: 'where' as const }, words: name })),
  ]
  return all.filter(({ ref }) => ref.owner !== owner || ref.list !== list)
}

function duplicate(list: MaskListRef, mask: Mask): void {
  const copy = { ...mask, id: crypto.randomUUID() }
  const made = changeMaskList(
    list,
    'Duplicate mask',
    ({ masks }) => void masks.splice(masks.findIndex(({ id }) => id === mask.id) + 1, 0, copy),
  )
  if (made) chooseMask(copy)
}

function copyTo(other: MaskListRef, words: string, mask: Mask): void {
  const copy = { ...mask, id: crypto.randomUUID() }
  if (changeMaskList(other, 'Copy mask', ({ masks }) => void masks.push(copy))) showUndoable(`The mask was copied to ${words}.`)
}

function removeMask(list: MaskListRef, mask: Mask): void {
  changeMaskList(list, 'Remove mask', (target) => void (target.masks = target.masks.filter(({ id }) => id !== mask.id)))
  useScene.getState().set({ tool: undefined })
}
