import {
  effectsBeneath,
  findOwner,
  isEffect,
  nameOfEffect,
  type ColourMask,
  type LuminosityMask,
  type MaskListRef,
  type Scene,
  type SimilarMask,
} from '@welkinar/core'
import { current, isDraft } from 'immer'
import { maskChange, useScene } from '../../scene/sceneStore'

type ReadingMask = LuminosityMask | ColourMask | SimilarMask

/** Freezes what lies beneath an effect or group, or the whole stack, as it is now. Returns the id of the state; null if there is no such owner. */
export function pinIn(scene: Scene, ownerId: string, what: 'beneath' | 'all', newId: () => string): string | null {
  const plain: Scene = isDraft(scene) ? current(scene) : scene
  const owner = findOwner(plain, ownerId)
  if (!owner && what === 'beneath') return null
  const effects = what === 'all' || !owner ? plain.effects : [...effectsBeneath(plain.effects, owner)]
  const groups = plain.groups.filter((group) => effects.some((effect) => effect.group === group.id))
  const of = what === 'all' || !owner ? 'Picture' : `Beneath ${isEffect(owner) ? nameOfEffect(owner) : owner.name}`
  const id = newId()
  scene.pinned.push({ id, name: `${of}, pinned ${scene.pinned.length + 1}`.slice(0, 80), effects, groups, shared: plain.shared })
  return id
}

/** Freezes what lies beneath an effect or group, or the whole stack, as it is now, and lets a mask read it. */
export function pinAndRead(list: MaskListRef, mask: ReadingMask, what: 'beneath' | 'all'): void {
  useScene.getState().change('Pin the tones', (scene) => {
    const id = pinIn(scene, list.owner, what, () => crypto.randomUUID())
    if (id !== null) maskChange(list, mask, (target) => Object.assign(target, { tonesFrom: 'pinned', pinned: id }))(scene)
  })
}
