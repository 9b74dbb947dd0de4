import { noPulse, type Pulse } from './pulse'
import type { Kernels } from '../graph/operation'
import { withScratch, type Scratch } from '../planes/scratch'
import { sharedBuffer, type PhotoData, type PhotoLevel } from './photoData'
import { loadLevelRows } from './loadLevelRows'

const BAND_ROWS = 64
const SMALLEST_SIDE = 64

/** The photo with all its reductions, halved until the longer side is at most 64 px. */
export function withReductions(kernels: Kernels, id: string, full: PhotoLevel, pulse: Pulse = noPulse): PhotoData {
  const levels = [full]
  let last = full
  while (Math.max(last.width, last.height) > SMALLEST_SIDE) {
    last = halveLevel(kernels, last, pulse)
    levels.push(last)
  }
  return { id, width: full.width, height: full.height, levels }
}

function halveLevel(kernels: Kernels, level: PhotoLevel, pulse: Pulse): PhotoLevel {
  const width = Math.ceil(level.width / 2)
  const height = Math.ceil(level.height / 2)
  const pixels = sharedBuffer(width * height * 6)
  const target = new Uint16Array(pixels)
  const halve = level.format === 'rgba8' ? halveRgba8Rows : halvePlaneRows
  for (let y = 0; y < height; y += BAND_ROWS) {
    pulse()
    const rows = Math.min(BAND_ROWS, height - y)
    withScratch(kernels, (scratch) => {
      const codes = scratch(width * rows * 2)
      halve(kernels, scratch, level, y, rows).forEach((plane, channel) => {
        kernels.u16FromPlane(plane, width * rows, codes)
        target.set(new Uint16Array(kernels.memory.buffer, codes, width * rows), (channel * height + y) * width)
      })
    })
  }
  return { width, height, format: 'linear16', pixels }
}

function halveRgba8Rows(kernels: Kernels, scratch: Scratch, level: PhotoLevel, y: number, rows: number): number[] {
  const sourceRows = Math.min(2 * rows, level.height - 2 * y)
  const bytes = level.width * sourceRows * 4
  const source = scratch(bytes)
  const planes = [0, 1, 2].map(() => scratch(Math.ceil(level.width / 2) * rows * 4))
  const [red = 0, green = 0, blue = 0] = planes
  new Uint8Array(kernels.memory.buffer, source, bytes).set(new Uint8Array(level.pixels, 2 * y * level.width * 4, bytes))
  kernels.halveRgba8(source, level.width, sourceRows, red, green, blue)
  return planes
}

/** An odd last row or column is halved with a copy of itself. */
function halvePlaneRows(kernels: Kernels, scratch: Scratch, level: PhotoLevel, y: number, rows: number): number[] {
  const width = Math.ceil(level.width / 2)
  const rect = { x: 0, y: 2 * y, width: 2 * width, height: 2 * rows }
  return loadLevelRows(kernels, scratch, level, rect).map((plane) => {
    const half = scratch(width * rows * 4)
    if (level.format === 'rgb16') kernels.decodePlane(plane, plane, rect.width * rect.height)
    kernels.halvePlane(plane, rect.width, rect.height, half)
    return half
  })
}
