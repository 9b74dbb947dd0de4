import { definitionOf, isEffect, type BrushMask, type Effect, type MaskListRef, type Owner } from '@welkinar/core'
import { changeMask, chosenMask, useScene } from '../../scene/sceneStore'

/** What painting does: what is not painted loses the effect, or what is painted does. */
export type BrushSense = 'only here' | 'not here'

/** What a brush mask of a list does; undefined for one that adds to what is there. */
export function senseOf({ join, invert }: Pick<BrushMask, 'join' | 'invert'>): BrushSense | undefined {
  if (join === 'add') return undefined
  return (join === 'subtract') === invert ? 'only here' : 'not here'
}

/** Turns it over; nothing has to be painted again. */
export function turnBrush(list: MaskListRef, mask: BrushMask): void {
  const to = senseOf(mask) === 'only here' ? 'Not here' : 'Only here'
  changeMask(list, mask, `Brush: ${to.toLowerCase()}`, (target) => void (target.invert = !target.invert))
}

/** What painting does in the first mask of an effect: a correction is painted where it is wanted, weather and light where they are not. */
export function firstSense(owner: Owner | Effect | undefined): BrushSense {
  return owner && isEffect(owner) && definitionOf(owner.kind).neutral ? 'only here' : 'not here'
}

/** Turns over the chosen mask of an effect or group, or the first that is painted. */
export function turnBrushOf({ id, where }: Owner): void {
  const chosen = chosenMask(where, useScene.getState().chosenMaskId)
  const mask = chosen?.kind === 'brush' ? chosen : where.masks.find(({ kind }) => kind === 'brush')
  if (mask?.kind === 'brush' && senseOf(mask)) turnBrush({ owner: id, list: 'where' }, mask)
}
