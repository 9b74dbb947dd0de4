import type { ColourSpace } from '../colour/colourSpace'
import type { GraphNode } from '../graph/node'
import { unsharpNode } from '../operations/colour/unsharp/unsharp'
import { workingSpaceOf } from '../photo/pictureIds'
import { gridAt, regionOnGrid, type Grid } from '../planes/grid'
import type { Rect } from '../planes/rect'
import { frameOfSource, framedGraph } from './framedGraph'
import type { PictureSource } from './pictureSource'

/** How large a file is made. */
export interface OutputSize {
  /** Longer side, px; nothing for full size. */
  readonly longSide: number | undefined
  /** Whether what reducing took of its sharpness is given back. */
  readonly sharpened: boolean
}

/** What is computed for a file: the picture, its grid, and the part of it that the frame covers. */
export interface PictureOutput {
  readonly node: GraphNode
  readonly grid: Grid
  readonly rect: Rect
  /** The space that it is worked on in. */
  readonly working: ColourSpace
}

/** Unsharp masking for a size: sigma in px of the file, and strength. Common practice, no source. */
const SHARPEN = { sigma: 0.7, amount: 0.5 }

/** What is computed for a file of a size. A picture is never enlarged. */
export function outputOf(source: PictureSource, { longSide, sharpened }: OutputSize): PictureOutput {
  const frame = frameOfSource(source)
  const full = Math.max(frame.width, frame.height)
  const scale = Math.min(1, (longSide ?? full) / full)
  const grid = gridAt(source.photo, scale)
  const picture = framedGraph(source)
  const node = scale < 1 && sharpened ? unsharpNode(picture, SHARPEN.sigma / scale, SHARPEN.amount) : picture
  return { node, grid, rect: regionOnGrid(frame, grid), working: workingSpaceOf(source.photo.id) }
}
