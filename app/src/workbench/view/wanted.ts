import {
  expand,
  gridAt,
  intersect,
  regionOnGrid,
  union,
  type BrushStroke,
  type GraphNode,
  type Grid,
  type PictureSource,
  type Rect,
  type Size,
} from '@welkinar/core'
import type { Keep } from '@welkinar/core/pool'
import type { PaintedStroke } from '../../scene/viewState'
import { visibleRegion, type ViewPort } from '../onPhoto/viewPort'

/** What is wished to be seen in the view. */
export interface Wanted {
  readonly node: GraphNode
  readonly photo: PictureSource['photo']
  /** What is shown of the photo. */
  readonly frame: Rect
  readonly port: ViewPort
  /** What the threads shall rather keep for the next wish. */
  readonly keep?: Keep
  /** One picture of many that follow each other: a reduced one is enough, and none is dropped half done. */
  readonly moving?: boolean
  /** The stroke under the pen. */
  readonly stroke?: PaintedStroke
  /** The same, where it is all that differs from an earlier wish, and only about itself. */
  readonly painted?: Painted
  /** Something else shows the photo until its first exact picture is there. */
  readonly covered?: boolean
}

/** A stroke that grows from wish to wish. */
export interface Painted extends PaintedStroke {
  /** Key of the same look without it. */
  readonly without: string
  /** How far around its points the picture changes, px of the grid of the view. */
  readonly spread: number
}

/** A smooth edge, and what rounding moves, px of the grid. */
const EDGE = 2

/** The part of the grid in which a look has changed since the stroke under the pen was as it is shown; since it began, if none of it is. */
export function changedBy({ stroke, spread }: Painted, shown: BrushStroke | undefined, photo: Size, grid: Grid): Rect {
  const known = shown?.points.length ?? 0
  // One that is kept straight does not grow: its end moves.
  const grows = shown?.points.slice(-3).every((value, i) => value === stroke.points[known - 3 + i]) ?? true
  // The piece that leads to the first new point is new, too.
  const now = extentOf(stroke, grows ? Math.max(0, known - 3) : 0)
  const changed = shown && !grows ? union(now, extentOf(shown, 0)) : now
  const whole = { x: 0, y: 0, width: photo.width, height: photo.height }
  return regionOnGrid(intersect(expand(changed, (spread + EDGE) * grid.pitchX), whole), grid)
}

/** What a stroke covers from one of its numbers on, photo px. */
function extentOf({ points, size }: BrushStroke, from: number): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = from; i + 1 < points.length; i += 3) {
    const [x = 0, y = 0] = [points[i], points[i + 1]]
    left = Math.min(left, x)
    top = Math.min(top, y)
    right = Math.max(right, x)
    bottom = Math.max(bottom, y)
  }
  return { x: left - size / 2, y: top - size / 2, width: right - left + size, height: bottom - top + size }
}

export function area(parts: readonly Rect[]): number {
  return parts.reduce((sum, { width, height }) => sum + width * height, 0)
}

/** The same for wishes that are fulfilled by the same picture. */
export function keyOf({ node, frame, port, stroke, moving = false }: Wanted): string {
  return [
    node.key,
    frame.x,
    frame.y,
    frame.width,
    frame.height,
    port.width,
    port.height,
    port.pixelRatio,
    port.zoom,
    port.centreX,
    port.centreY,
    moving,
    // What is put together of parts under the pen, or coarse, is computed once more when it is lifted.
    stroke !== undefined,
  ].join(' ')
}

/** The visible part of the photo on the grid of the view reduced by a factor. @param parts of it, on the grid that is not reduced */
export function placeOnGrid(
  { photo, frame, port }: Pick<Wanted, 'photo' | 'frame' | 'port'>,
  factor: number,
  parts?: readonly Rect[],
): { grid: Grid; rect: Rect } {
  const scale = (by: number): Grid => gridAt(photo, Math.min(1, (port.zoom * port.pixelRatio) / by))
  const grid = scale(factor)
  if (!parts || parts.length === 0) return { grid, rect: regionOnGrid(visibleRegion(port, frame), grid) }
  const { pitchX, pitchY } = scale(1)
  const { x, y, width, height } = parts.reduce(union)
  return { grid, rect: regionOnGrid({ x: x * pitchX, y: y * pitchY, width: width * pitchX, height: height * pitchY }, grid) }
}
