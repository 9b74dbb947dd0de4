import type { Kernels } from '../graph/operation'
import { sameRect, type Rect } from './rect'
import type { Scratch } from './scratch'

/** Pixels of one grid for each pixel of another, across and down: below 1 to enlarge, above to reduce. */
export interface Steps {
  readonly x: number
  readonly y: number
}

/** The pixels of a coarse grid that are read to enlarge it to `rect` of a fine one: where nothing is, its border repeats. */
export function readToEnlarge(rect: Rect, steps: Steps): Rect {
  const [x, width] = readAlong(rect.x, rect.width, steps.x)
  const [y, height] = readAlong(rect.y, rect.height, steps.y)
  return { x, y, width, height }
}

function readAlong(first: number, count: number, step: number): [from: number, count: number] {
  const from = Math.floor((first + 0.5) * step - 0.5) - 1
  return [from, Math.floor((first + count - 0.5) * step - 0.5) + 3 - from]
}

/**
 * Enlarges a plane by the Catmull-Rom cubic, which leaves what the coarse pixels say as it is. `from` is the rectangle of `source` on the coarse grid;
 * outside it its border repeats. `out` receives `rect` of the fine grid.
 */
export function enlargePlane(kernels: Kernels, scratch: Scratch, source: number, from: Rect, rect: Rect, steps: Steps, out: number): void {
  const read = readToEnlarge(rect, steps)
  let plane = source
  if (!sameRect(read, from)) {
    plane = scratch(read.width * read.height * 4)
    kernels.copyExtended(source, from.width, from.height, read.x - from.x, read.y - from.y, plane, read.width, read.height)
  }
  const wide = scratch(rect.width * read.height * 4)
  kernels.enlargeRows(plane, read.x, read.width, read.height, rect.x, rect.width, steps.x, wide, scratch(rect.width * 20))
  kernels.enlargeColumns(wide, read.y, rect.width, rect.y, rect.height, steps.y, out)
}
