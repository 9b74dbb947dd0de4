import { gridAt, regionOnGrid, union, type GraphNode, type Grid, type PictureSource, type Rect } from '@welkinar/core'
import type { Keep } from '@welkinar/core/pool'
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
  /** Something else shows the photo until its first exact picture is there. */
  readonly covered?: boolean
}

export function area(parts: readonly Rect[]): number {
  return parts.reduce((sum, { width, height }) => sum + width * height, 0)
}

/** The same for wishes that are fulfilled by the same picture. */
export function keyOf({ node, frame, port, moving = false }: Wanted): string {
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
