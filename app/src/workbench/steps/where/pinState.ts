import { insideOfGroup, isEffect, type ColourMask, type LuminosityMask, type Owner, type Scene, type SimilarMask } from '@welkinar/core'
import { current, isDraft } from 'immer'
import { maskChange, useScene } from '../../../scene/sceneStore'

type ReadingMask = LuminosityMask | ColourMask | SimilarMask

/** Freezes what lies beneath an effect or group, or the whole stack, as it is now, and lets a mask read it. */
export function pinAndRead(owner: Owner, mask: ReadingMask, what: 'beneath' | 'all'): void {
  const id = crypto.randomUUID()
  useScene.getState().change('Pin the tones', (scene) => {
    const plain = isDraft(scene) ? current(scene) : scene
    const effects = what === 'all' ? plain.effects : beneath(plain, owner)
    const groups = plain.groups.filter((group) => effects.some((effect) => effect.group === group.id))
    const name = `${what === 'all' ? 'Picture' : `Beneath ${owner.name}`}, pinned ${scene.pinned.length + 1}`.slice(0, 80)
    scene.pinned.push({ id, name, effects, groups })
    maskChange(owner.id, mask, (target) => Object.assign(target, { tonesFrom: 'pinned', pinned: id }))(scene)
  })
}

function beneath({ effects }: Scene, owner: Owner): Scene['effects'] {
  const first = isEffect(owner) ? owner.id : insideOfGroup({ effects }, owner.id)[0]?.id
  return effects.slice(
    0,
    effects.findIndex(({ id }) => id === first),
  )
}
