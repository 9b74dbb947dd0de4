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

/** Freezes what lies beneath an effect or group, or the whole stack, as it is now, and lets a mask read it. */
export function pinAndRead(list: MaskListRef, mask: ReadingMask, what: 'beneath' | 'all'): void {
  const id = crypto.randomUUID()
  useScene.getState().change('Pin the tones', (scene) => {
    const plain: Scene = isDraft(scene) ? current(scene) : scene
    const owner = findOwner(plain, list.owner)
    if (!owner) return
    const effects = what === 'all' ? plain.effects : [...effectsBeneath(plain.effects, owner)]
    const groups = plain.groups.filter((group) => effects.some((effect) => effect.group === group.id))
    const name =
      `${what === 'all' ? 'Picture' : `Beneath ${isEffect(owner) ? nameOfEffect(owner) : owner.name}`}, pinned ${scene.pinned.length + 1}`.slice(
        0,
        80,
      )
    scene.pinned.push({ id, name, effects, groups })
    maskChange(list, mask, (target) => Object.assign(target, { tonesFrom: 'pinned', pinned: id }))(scene)
  })
}
