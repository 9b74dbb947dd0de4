import type { GraphNode, Grid, Rect } from '@welkinar/core'
import { canvasSettings } from '../../engine/canvasSpace'
import type { PaintedStroke } from '../../scene/viewState'
import { toScreen, type ViewPort } from '../onPhoto/viewPort'

/** Pixels of a part of the photo at one scale. */
export interface Shown {
  readonly node: GraphNode
  readonly canvas: OffscreenCanvas
  readonly grid: Grid
  readonly rect: Rect
  /** The stroke under the pen as far as it is in it. */
  readonly painted?: PaintedStroke | undefined
}

/** What draws on a canvas that holds pictures of a scene with this photo. @throws Error if the browser gives none */
export function contextOf(canvas: OffscreenCanvas, photoId: string): OffscreenCanvasRenderingContext2D {
  const context = canvas.getContext('2d', canvasSettings(photoId))
  if (!context) throw new Error('The browser gives no canvas to draw on.')
  return context
}

/** Draws a picture where its part of the photo lies in the view. */
export function drawPlaced(context: CanvasRenderingContext2D, port: ViewPort, { canvas, grid, rect }: Shown): void {
  const from = toScreen(port, rect.x * grid.pitchX, rect.y * grid.pitchY)
  const to = toScreen(port, (rect.x + rect.width) * grid.pitchX, (rect.y + rect.height) * grid.pitchY)
  const k = port.pixelRatio
  const exact = Math.abs(rect.width - (to.x - from.x) * k) < 0.6
  context.imageSmoothingEnabled = !exact && port.zoom * k < 2
  // What is not exact is soon replaced; the browser's finest smoothing takes longer than computing it.
  context.imageSmoothingQuality = 'medium'
  const x = exact ? Math.round(from.x * k) : from.x * k
  const y = exact ? Math.round(from.y * k) : from.y * k
  context.drawImage(canvas, x, y, exact ? rect.width : (to.x - from.x) * k, exact ? rect.height : (to.y - from.y) * k)
}

/** Makes what is dark opaque, and what is white clear; in place. */
export function darknessToAlpha(pixels: Uint8ClampedArray): void {
  for (let i = 0; i < pixels.length; i += 4) pixels[i + 3] = 255 - (pixels[i] ?? 0)
}
