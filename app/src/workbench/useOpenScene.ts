import { useQuery } from '@tanstack/react-query'
import type { RenderPool } from '@welkinar/core/pool'
import { useEffect } from 'react'
import { renderPool } from '../engine/engine'
import { holdPhoto } from '../engine/photos'
import { startAutosave } from '../scene/autosave'
import { useScene } from '../scene/sceneStore'
import { loadScene } from '../storage/scenes'

interface OpenScene {
  readonly pool: RenderPool | undefined
  readonly problem: Error | null
}

/** Loads a scene with its history and its photo into the store, saves its changes, and closes it when the page is left. */
export function useOpenScene(id: string): OpenScene {
  const { data, error } = useQuery({
    queryKey: ['open', id],
    queryFn: async () => {
      const loaded = await loadScene(id)
      await holdPhoto(loaded.scene.photo.id)
      return { ...loaded, pool: await renderPool() }
    },
    gcTime: 0,
    staleTime: 0,
  })
  useEffect(() => {
    if (!data) return
    useScene.getState().open(data.scene, data.history, data.position)
    const stop = startAutosave()
    return () => {
      stop()
      useScene.getState().close()
    }
  }, [data])
  const isOpen = useScene((state) => state.history?.scene.id === id)
  return { pool: isOpen ? data?.pool : undefined, problem: error }
}
