import type { Kernels } from '../graph/operation'
import { withScratch } from '../planes/scratch'
import { sharedBuffer, type PhotoData, type PhotoLevel } from './photoData'
import { loadLevelRows } from './loadLevelRows'

const BAND_ROWS = 64
const SMALLEST_SIDE = 64

/** The photo with all its reductions, halved until the longer side is at most 64 px. */
export function withReductions(kernels: Kernels, id: string, full: PhotoLevel): PhotoData {
  const levels = [full]
  let last = full
  while (Math.max(last.width, last.height) > SMALLEST_SIDE) {
    last = halveLevel(kernels, last)
    levels.push(last)
  }
  return { id, width: full.width, height: full.height, levels }
}

function halveLevel(kernels: Kernels, level: PhotoLevel): PhotoLevel {
  const width = Math.ceil(level.width / 2)
  const height = Math.ceil(level.height / 2)
  const pixels = sharedBuffer(width * height * 6)
  const target = new Uint16Array(pixels)
  for (let y = 0; y < height; y += BAND_ROWS) {
    const rows = Math.min(BAND_ROWS, height - y)
    withScratch(kernels, (scratch) => {
      // An odd last row or column is halved with a copy of itself.
      const source = { x: 0, y: 2 * y, width: 2 * width, height: 2 * rows }
      const planes = loadLevelRows(kernels, scratch, level, source)
      const codes = scratch(width * rows * 2)
      planes.forEach((plane, channel) => {
        const half = scratch(width * rows * 4)
        kernels.halveEncoded(plane, 2 * width, 2 * rows, half)
        kernels.u16FromPlane(half, width * rows, codes)
        target.set(new Uint16Array(kernels.memory.buffer, codes, width * rows), (channel * height + y) * width)
      })
    })
  }
  return { width, height, format: 'rgb16', pixels }
}
