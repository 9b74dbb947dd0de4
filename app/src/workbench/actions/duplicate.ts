import { decorrelated, type Effect } from '@welkinar/core'
import { select, useScene } from '../../scene/sceneStore'

/** A copy right in front of the effect, which shares nothing with it that the eye could see twice. */
export function duplicate(effect: Effect): void {
  const copy = decorrelated(effect, () => crypto.randomUUID())
  const made = useScene.getState().change('Duplicate effect', (scene) => {
    scene.effects.splice(scene.effects.findIndex(({ id }) => id === effect.id) + 1, 0, copy)
  })
  if (made) select(copy.id)
}
