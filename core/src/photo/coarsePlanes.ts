import type { Kernels } from '../graph/operation'
import { withScratch } from '../planes/scratch'
import { loadLevelRows } from './loadLevelRows'
import type { PhotoData } from './photoData'

/** A photo at one small reduction, in linear light. */
export interface CoarsePlanes {
  readonly width: number
  readonly height: number
  /** Red, green, blue, row by row. */
  readonly planes: readonly [Float32Array, Float32Array, Float32Array]
}

/** The largest reduction of a photo whose sides are at most this long, or its smallest one. What is measured on it does not depend on the scale of a picture. */
export function coarsePlanes(kernels: Kernels, photo: PhotoData, largestSide: number): CoarsePlanes {
  const level = photo.levels.find(({ width, height }) => Math.max(width, height) <= largestSide) ?? photo.levels.at(-1)
  if (!level) throw new Error(`The photo ${photo.id} has no pixels.`)
  const { width, height } = level
  return withScratch(kernels, (scratch) => {
    const planes = loadLevelRows(kernels, scratch, level, { x: 0, y: 0, width, height }).map((address) => {
      if (level.format !== 'linear16') kernels.decodePlane(address, address, width * height)
      return new Float32Array(kernels.memory.buffer, address, width * height).slice()
    })
    return { width, height, planes: planes as [Float32Array, Float32Array, Float32Array] }
  })
}
