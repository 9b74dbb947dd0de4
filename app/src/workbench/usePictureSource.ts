import type { PictureSource } from '@welkinar/core'
import { useMemo } from 'react'
import { useShallow } from 'zustand/shallow'
import { useScene } from '../scene/sceneStore'

/** What the picture of the open scene depends on; the same object as long as none of it changes, so that its graph is built once. */
export function usePictureSource(): PictureSource | undefined {
  const parts = useScene(
    useShallow(({ history }) => {
      const scene = history?.scene
      return [scene?.photo, scene?.effects, scene?.groups, scene?.pinned, scene?.marks, scene?.depth] as const
    }),
  )
  return useMemo(() => {
    const [photo, effects, groups, pinned, marks, depth] = parts
    return photo && effects && groups && pinned && marks && Object.freeze({ photo, effects, groups, pinned, marks, depth: depth ?? null })
  }, [parts])
}
