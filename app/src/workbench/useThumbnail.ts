import { gridAt, gridBounds, sceneGraph, type PictureSource } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { useEffect } from 'react'
import { useScene } from '../scene/sceneStore'
import { saveThumbnail } from '../storage/scenes'

const SETTLE_MS = 1500
const WIDTH = 640

/** Keeps the scene's picture for the Shelf up to date, some time after the last change. */
export function useThumbnail(pool: RenderPool, source: PictureSource | undefined): void {
  useEffect(() => {
    if (!source) return
    const abort = new AbortController()
    const timer = setTimeout(() => {
      const id = useScene.getState().history?.scene.id
      renderThumbnail(pool, source, abort.signal)
        .then((picture) => (id ? saveThumbnail(id, picture) : undefined))
        .catch((error: unknown) => {
          if (!abort.signal.aborted) console.error(error)
        })
    }, SETTLE_MS)
    return () => {
      clearTimeout(timer)
      abort.abort()
    }
  }, [pool, source])
}

/** The finished picture at the width of a card of the Shelf, as JPEG. */
async function renderThumbnail(pool: RenderPool, source: PictureSource, signal?: AbortSignal): Promise<Blob> {
  const grid = gridAt(source.photo, Math.min(1, WIDTH / source.photo.width))
  const rect = gridBounds(grid)
  const request = { node: sceneGraph(source), grid, rect, tileSize: 512, priority: priorities.thumbnails }
  const pixels = await pool.renderPixels(signal ? { ...request, signal } : request)
  const canvas = new OffscreenCanvas(rect.width, rect.height)
  canvas.getContext('2d')?.putImageData(new ImageData(pixels, rect.width, rect.height), 0, 0)
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.86 })
}
