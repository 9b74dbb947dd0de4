import { ink } from '../../theme'

const STEP = 9

/** Tiles by their ratio: a stroke asks for one at every move of the pen. */
const tiles = new Map<number, OffscreenCanvas>()

/** Slanting lines in the accent colour: what a mask shuts out. `ratio` css px to canvas px. */
export function hatchPattern(context: CanvasRenderingContext2D, ratio: number): CanvasPattern | string {
  const tile = tiles.get(ratio) ?? hatchTile(ratio)
  tiles.set(ratio, tile)
  return context.createPattern(tile, 'repeat') ?? ink.accent
}

function hatchTile(ratio: number): OffscreenCanvas {
  const size = Math.round(STEP * ratio)
  const tile = new OffscreenCanvas(size, size)
  const pen = tile.getContext('2d')
  if (!pen) return tile
  pen.strokeStyle = ink.accent
  pen.lineWidth = 1.6 * ratio
  for (const offset of [-size, 0, size]) {
    pen.beginPath()
    pen.moveTo(offset - size, 2 * size)
    pen.lineTo(offset + 2 * size, -size)
    pen.stroke()
  }
  return tile
}
