import { framedGraph, frameOfSource, gridAt, regionOnGrid, type Scene } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { imageOf } from '../engine/canvasSpace'
import { saveThumbnail } from '../storage/scenes'
import { useScene } from './sceneStore'

const SETTLE_MS = 1500
const WIDTH = 640

/** Keeps the open scene's picture for the Shelf up to date, some time after the last change, and when the scene is left before that. */
export class Thumbnail {
  private timer: ReturnType<typeof setTimeout> | undefined
  private pending: Scene | undefined
  private running = new AbortController()
  private readonly unsubscribe: () => void

  constructor(private readonly pool: RenderPool) {
    this.later(useScene.getState().history?.scene)
    this.unsubscribe = useScene.subscribe(({ history, life }, before) => {
      if (history && history.scene !== before.history?.scene && life.is !== 'reading only') this.later(history.scene)
    })
  }

  /** Makes what is still to be made; resolves when that is done. */
  async finish(): Promise<void> {
    this.unsubscribe()
    await this.make()
  }

  private later(scene: Scene | undefined): void {
    this.running.abort()
    this.pending = scene
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.make(), SETTLE_MS)
  }

  private async make(): Promise<void> {
    clearTimeout(this.timer)
    const scene = this.pending
    if (!scene) return
    this.running = new AbortController()
    const { signal } = this.running
    try {
      const picture = await renderThumbnail(this.pool, scene, signal)
      await saveThumbnail(scene.id, picture)
      if (this.pending === scene) this.pending = undefined
    } catch (error) {
      // The Shelf goes on showing the picture from before; the Workbench says what cannot be computed.
      if (!signal.aborted) console.warn(error)
    }
  }
}

/** The finished picture at the width of a card of the Shelf, as JPEG. */
async function renderThumbnail(pool: RenderPool, scene: Scene, signal: AbortSignal): Promise<Blob> {
  const frame = frameOfSource(scene)
  const grid = gridAt(scene.photo, Math.min(1, WIDTH / frame.width))
  const rect = regionOnGrid(frame, grid)
  const pixels = await pool.renderPixels({ node: framedGraph(scene), grid, rect, tileSize: 512, priority: priorities.thumbnails, signal })
  const canvas = new OffscreenCanvas(rect.width, rect.height)
  canvas.getContext('2d')?.putImageData(imageOf(pixels, rect, scene.photo.id), 0, 0)
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.86 })
}
