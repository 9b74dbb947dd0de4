import type { PictureSource } from '@welkinar/core'
import { useMemo } from 'react'
import { useShallow } from 'zustand/shallow'
import { useScene } from '../../scene/sceneStore'

/** What the picture of the open scene depends on; the same object as long as none of it changes, so that its graph is built once. */
export function usePictureSource(): PictureSource | undefined {
  const parts = useScene(
    useShallow(({ history }) => {
      const scene = history?.scene
      return [
        scene?.photo,
        scene?.effects,
        scene?.groups,
        scene?.shared,
        scene?.pinned,
        scene?.marks,
        scene?.depth,
        scene?.groundwork,
        scene?.amount,
      ] as const
    }),
  )
  return useMemo(() => {
    const [photo, effects, groups, shared, pinned, marks, depth, groundwork, amount = 100] = parts
    if (!photo || !effects || !groups || !shared || !pinned || !marks || !groundwork) return undefined
    return Object.freeze({ photo, groundwork, effects, groups, shared, pinned, marks, depth: depth ?? null, amount })
  }, [parts])
}
