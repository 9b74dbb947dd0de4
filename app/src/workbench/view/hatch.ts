import { ink } from '../../theme'

const STEP = 9

/** Slanting lines in the accent colour: what a mask shuts out. `ratio` css px to canvas px. */
export function hatchPattern(context: CanvasRenderingContext2D, ratio: number): CanvasPattern | string {
  const size = Math.round(STEP * ratio)
  const tile = new OffscreenCanvas(size, size)
  const pen = tile.getContext('2d')
  if (!pen) return ink.accent
  pen.strokeStyle = ink.accent
  pen.lineWidth = 1.6 * ratio
  for (const offset of [-size, 0, size]) {
    pen.beginPath()
    pen.moveTo(offset - size, 2 * size)
    pen.lineTo(offset + 2 * size, -size)
    pen.stroke()
  }
  return context.createPattern(tile, 'repeat') ?? ink.accent
}
