import type { Kernels } from '../graph/operation'
import { clampInto, sameRect, type Rect } from '../planes/rect'
import type { Scratch } from '../planes/scratch'
import type { PhotoLevel } from './photoData'

/**
 * Red, green and blue planes (0-1, encoded as the level is) of a rectangle of one level. Outside the level its border repeats.
 * @param planeFor gives the blocks of the planes; by default scratch blocks too
 */
export function loadLevelRows(kernels: Kernels, scratch: Scratch, level: PhotoLevel, rect: Rect, planeFor: Scratch = scratch): number[] {
  const inside = clampInto(rect, { x: 0, y: 0, width: level.width, height: level.height })
  const count = inside.width * inside.height
  const fits = sameRect(inside, rect)
  const planes = [0, 1, 2].map(() => (fits ? planeFor : scratch)(count * 4))
  if (level.format === 'rgba8') loadRgba8(kernels, scratch, level, inside, planes)
  else loadRgb16(kernels, scratch, level, inside, planes)
  if (fits) return planes
  return planes.map((plane) => {
    const extended = planeFor(rect.width * rect.height * 4)
    const { x, y } = { x: rect.x - inside.x, y: rect.y - inside.y }
    kernels.copyExtended(plane, inside.width, inside.height, x, y, extended, rect.width, rect.height)
    return extended
  })
}

function loadRgba8(kernels: Kernels, scratch: Scratch, level: PhotoLevel, rect: Rect, planes: number[]): void {
  const codes = scratch(rect.width * rect.height * 4)
  const source = new Uint8Array(level.pixels)
  const target = new Uint8Array(kernels.memory.buffer, codes, rect.width * rect.height * 4)
  for (let row = 0; row < rect.height; row++) {
    const from = ((rect.y + row) * level.width + rect.x) * 4
    target.set(source.subarray(from, from + rect.width * 4), row * rect.width * 4)
  }
  const [red = 0, green = 0, blue = 0] = planes
  kernels.planesFromRgba8(codes, rect.width * rect.height, red, green, blue)
}

function loadRgb16(kernels: Kernels, scratch: Scratch, level: PhotoLevel, rect: Rect, planes: number[]): void {
  const codes = scratch(rect.width * rect.height * 2)
  const source = new Uint16Array(level.pixels)
  planes.forEach((plane, channel) => {
    const target = new Uint16Array(kernels.memory.buffer, codes, rect.width * rect.height)
    for (let row = 0; row < rect.height; row++) {
      const from = (channel * level.height + rect.y + row) * level.width + rect.x
      target.set(source.subarray(from, from + rect.width), row * rect.width)
    }
    kernels.planeFromU16(codes, rect.width * rect.height, plane)
  })
}
