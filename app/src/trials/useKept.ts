import { picturesOfScene, sceneWithout, type Scene } from '@welkinar/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useMemo, useState } from 'react'
import { useOpenScene } from '../scene/openSceneContext'
import { statesOf } from '../storage/states'
import type { ShownTrial } from './sheet'

/** The kept states of a scene, the last first; in every tab as they are stored. */
export function useKept(scene: Scene): readonly ShownTrial[] {
  const { pictures } = useOpenScene()
  const { id, photo } = scene
  const states = useLiveQuery(() => statesOf({ id, photo }), [id, photo])
  const [held, setHeld] = useState<{ readonly of: typeof states; readonly gone: readonly string[] }>()
  // Pictures of their masks have to be in the threads before they are drawn.
  useEffect(() => {
    let isOver = false
    void pictures
      .holdPictures((states ?? []).flatMap((state) => picturesOfScene(state.scene)))
      .then((gone) => !isOver && setHeld({ of: states, gone }))
    return () => void (isOver = true)
  }, [pictures, states])
  return useMemo(
    () =>
      (held?.of ?? []).map(({ id: stateId, name, scene: kept }) => {
        const { id: _, name: __, photo: ___, created: ____, edited: _____, ...parts } = sceneWithout(kept, held?.gone ?? [])
        return {
          id: `state ${stateId}`,
          stateId,
          words: name,
          scene: kept,
          change: (draft: Scene) => void Object.assign(draft, structuredClone(parts)),
        }
      }),
    [held],
  )
}
