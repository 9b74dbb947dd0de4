import type { RunContext } from '../../../graph/operation'
import { pitchOf } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import type { Value } from '../../../planes/value'

/** Where a mask falls, in the unit of its distance: 1 up to `middle` - `half`, 0 from `middle` + `half` on. */
export interface Fall {
  readonly middle: number
  readonly half: number
}

/**
 * A fall from `from` over `softness`, at least one grid pixel wide, so that hard edges stay smooth and in place at every scale.
 * @param pixel what a grid pixel measures in the same unit
 */
export function fallFrom(from: number, softness: number, pixel: number): Fall {
  return { middle: from + softness / 2, half: Math.max(softness, pixel) / 2 }
}

type MaskKernel = (out: number, x: number, y: number, width: number, height: number, pitchX: number, pitchY: number) => void

/** A mask that a kernel writes for a rectangle of the grid. */
export function writeMask(context: RunContext, rect: Rect, write: MaskKernel): Value {
  const out = context.plane(rect.width * rect.height)
  write(out, rect.x, rect.y, rect.width, rect.height, context.grid.pitchX, context.grid.pitchY)
  return { kind: 'mask', rect, planes: [out] }
}

export function pixelOf(context: RunContext): number {
  return pitchOf(context.grid)
}
