import type { Kernels } from '../graph/operation'
import type { Steps } from './enlarge'
import type { Rect } from './rect'
import type { Scratch } from './scratch'

/**
 * Reduces a plane to means over the area of each coarser pixel. `from` is the rectangle of `source` on the fine grid; outside it its border repeats. `out` receives
 * `rect` of the coarse grid.
 * @param steps fine pixels for each coarse one, at least 1
 */
export function reducePlane(kernels: Kernels, scratch: Scratch, source: number, from: Rect, rect: Rect, steps: Steps, out: number): void {
  const low = scratch(from.width * rect.height * 4)
  kernels.areaColumns(source, from.width, from.height, from.y, steps.y, rect.y, low, rect.height)
  const table = scratch(rect.width * kernels.areaEntryBytes(steps.x))
  kernels.areaRows(low, from.width, rect.height, from.x, steps.x, rect.x, out, rect.width, table)
}
