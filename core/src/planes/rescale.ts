import type { Kernels } from '../graph/operation'
import { enlargePlane, readToEnlarge, type Steps } from './enlarge'
import { gridBounds, type Grid } from './grid'
import { clampInto, type Rect } from './rect'
import { reducePlane } from './reduce'
import { withScratch } from './scratch'
import type { Value } from './value'

/** Pixels of another grid of the same photo for each pixel of a grid. */
export function stepsBetween(grid: Grid, other: Grid): Steps {
  return { x: grid.pitchX / other.pitchX, y: grid.pitchY / other.pitchY }
}

/** What is read of a coarser grid to enlarge it to a rectangle. */
export function readOfCoarser(rect: Rect, grid: Grid, coarse: Grid): Rect {
  return clampInto(readToEnlarge(rect, stepsBetween(grid, coarse)), gridBounds(coarse))
}

/** What is read of a finer grid to reduce it to a rectangle. */
export function readOfFiner(rect: Rect, grid: Grid, finer: Grid): Rect {
  const steps = stepsBetween(grid, finer)
  const [x, y] = [Math.floor(rect.x * steps.x), Math.floor(rect.y * steps.y)]
  const [right, bottom] = [Math.ceil((rect.x + rect.width) * steps.x), Math.ceil((rect.y + rect.height) * steps.y)]
  return clampInto({ x, y, width: right - x, height: bottom - y }, gridBounds(finer))
}

/**
 * A value on a rectangle of another grid: a smooth one enlarged, without what varies inside its pixels, or means of what is finer. What it is made from is released.
 * @param steps pixels of its grid for each pixel of the other
 */
export function rescaled(kernels: Kernels, { kind, planes: all, rect: from }: Value, rect: Rect, steps: Steps): Value {
  const enlarges = steps.x < 1
  const count = rect.width * rect.height
  const planes = (enlarges && kind === 'field' ? all.slice(0, 1) : all).map((plane) =>
    withScratch(kernels, (scratch) => {
      const out = kernels.allocate(count * 4)
      if (enlarges) enlargePlane(kernels, scratch, plane, from, rect, steps, out)
      else reducePlane(kernels, scratch, plane, from, rect, steps, out)
      // The cubic goes a little beyond the values around it.
      if (enlarges && (kind === 'field' || kind === 'mask')) kernels.atLeastZero(out, count)
      return out
    }),
  )
  all.forEach((plane) => kernels.release(plane))
  return { kind, rect, planes }
}
