import { useQuery } from '@tanstack/react-query'
import { pictureIds, withoutPictures } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useEffect } from 'react'
import { renderPool } from '../engine/engine'
import { holdPhoto } from '../engine/photos'
import { showNotice } from '../common/notices'
import { savesDone, startAutosave } from '../scene/autosave'
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
      await savesDone()
      const loaded = await loadScene(id)
      const pictures = pictureIds({ ...loaded.scene, photo: null })
      await holdPhoto(loaded.scene.photo.id, pictures)
      const gone = await missingPictures(loaded.scene.photo.id, pictures)
      if (gone.length > 0) showNotice('A picture that a mask or the depth of this scene reads is no longer stored; it is left out.')
      return { ...loaded, scene: withoutPictures(loaded.scene, gone), pool: await renderPool() }
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

/** Holds the pictures of a scene; returns those that cannot be read any more. */
async function missingPictures(photo: string, pictures: readonly string[]): Promise<string[]> {
  const gone: string[] = []
  for (const id of pictures) await holdPhoto(id, [photo, ...pictures]).catch(() => gone.push(id))
  return gone
}
