import { frameOfSource, framedGraph, gridAt, regionOnGrid, type Scene } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { safeFileName, saveFile } from '../common/files'
import { canvasSettings, imageOf } from '../engine/canvasSpace'
import { ink } from '../theme'

interface Captioned {
  readonly words: string
  readonly scene: Scene
}

/** Px of the picture. */
const PICTURE_WIDTH = 480
const GAP = 24
const CAPTION = 34
const HEAD = 52
/** No browser draws larger canvases than this for sure. */
const MOST_SIDE = 16_000

/** Saves trials with their names as one picture, for somebody to choose from. @param columns how many stand beside one another, if that means something */
export async function saveSheet(pool: RenderPool, scene: Scene, trials: readonly Captioned[], columns: number | undefined): Promise<void> {
  const across = columns ?? Math.ceil(Math.sqrt(trials.length))
  const rows = Math.ceil(trials.length / across)
  const frame = frameOfSource(scene)
  const fitting = Math.min((MOST_SIDE - GAP) / across - GAP, (((MOST_SIDE - HEAD) / rows - GAP - CAPTION) * frame.width) / frame.height)
  const width = Math.max(16, Math.floor(Math.min(PICTURE_WIDTH, frame.width, fitting)))
  const height = Math.max(1, Math.round((width * frame.height) / frame.width))
  const sheet = document.createElement('canvas')
  sheet.width = GAP + across * (width + GAP)
  sheet.height = HEAD + rows * (height + CAPTION + GAP)
  const pen = sheet.getContext('2d', canvasSettings(scene.photo.id))
  if (!pen) throw new Error('the browser has no room for a picture of this size')
  pen.fillStyle = ink.paper
  pen.fillRect(0, 0, sheet.width, sheet.height)
  pen.fillStyle = ink.ink
  pen.textBaseline = 'middle'
  pen.font = '600 18px "Instrument Sans Variable", sans-serif'
  pen.fillText(scene.name, GAP, HEAD / 2, sheet.width - 2 * GAP)
  pen.font = '14px "Instrument Sans Variable", sans-serif'
  const grid = gridAt(scene.photo, Math.min(1, width / frame.width))
  await Promise.all(
    trials.map(async ({ words, scene: made }, index) => {
      const x = GAP + (index % across) * (width + GAP)
      const y = HEAD + Math.floor(index / across) * (height + CAPTION + GAP)
      const rect = regionOnGrid(frame, grid)
      const pixels = await pool.renderPixels({ node: framedGraph(made), grid, rect, tileSize: 512, priority: priorities.steps })
      pen.putImageData(imageOf(pixels, rect, scene.photo.id), x, y)
      pen.fillText(words, x, y + height + CAPTION / 2, width)
    }),
  )
  const file = await new Promise<Blob | null>((resolve) => sheet.toBlob(resolve, 'image/png'))
  if (!file) throw new Error('the browser made no file of it')
  saveFile(file, `${safeFileName(`${scene.name} trials`)}.png`)
}
