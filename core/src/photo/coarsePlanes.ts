import type { Kernels } from '../graph/operation'
import type { Size } from '../planes/grid'
import { sameRect } from '../planes/rect'
import { reducePlane } from '../planes/reduce'
import { withScratch } from '../planes/scratch'
import { loadLevelRows } from './loadLevelRows'
import type { PhotoData, PhotoLevel } from './photoData'

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
  return planesOf(kernels, level, level)
}

/** A photo whose longer side is just this long; a smaller one as it is. */
export function planesOfSide(kernels: Kernels, photo: PhotoData, side: number): CoarsePlanes {
  const level = photo.levels.findLast(({ width, height }) => Math.max(width, height) >= side) ?? photo.levels[0]
  if (!level) throw new Error(`The photo ${photo.id} has no pixels.`)
  const scale = Math.min(1, side / Math.max(level.width, level.height))
  return planesOf(kernels, level, {
    width: Math.max(1, Math.round(level.width * scale)),
    height: Math.max(1, Math.round(level.height * scale)),
  })
}

function planesOf(kernels: Kernels, level: PhotoLevel, { width, height }: Size): CoarsePlanes {
  const from = { x: 0, y: 0, width: level.width, height: level.height }
  const rect = { x: 0, y: 0, width, height }
  return withScratch(kernels, (scratch) => {
    const planes = loadLevelRows(kernels, scratch, level, from).map((address) => {
      if (level.format !== 'linear16') kernels.decodePlane(address, address, level.width * level.height)
      if (sameRect(from, rect)) return new Float32Array(kernels.memory.buffer, address, width * height).slice()
      const out = scratch(width * height * 4)
      reducePlane(kernels, scratch, address, from, rect, { x: level.width / width, y: level.height / height }, out)
      return new Float32Array(kernels.memory.buffer, out, width * height).slice()
    })
    return { width, height, planes: planes as [Float32Array, Float32Array, Float32Array] }
  })
}
