import { useScene } from '../../scene/sceneStore'
import { settleGroups } from './groups'

/** Removes an effect and selects the one beneath it. */
export function removeEffect(id: string): void {
  const { history, change, set } = useScene.getState()
  const index = history?.scene.effects.findIndex((effect) => effect.id === id) ?? -1
  if (index < 0) return
  change('Remove effect', (scene) => {
    scene.effects.splice(index, 1)
    settleGroups(scene)
  })
  const left = useScene.getState().history?.scene.effects ?? []
  set({ selectedId: (left[index - 1] ?? left[index])?.id, chosenMaskId: undefined, tool: undefined })
}
