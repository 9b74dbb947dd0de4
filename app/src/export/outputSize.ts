import {
  framedGraph,
  frameOfSource,
  gridAt,
  regionOnGrid,
  unsharpNode,
  workingSpaceOf,
  type ColourSpace,
  type GraphNode,
  type Grid,
  type Rect,
  type Scene,
} from '@welkinar/core'

/** How large a file is made. */
export interface OutputSize {
  /** Longer side, px; nothing for full size. */
  readonly longSide: number | undefined
  /** Whether what reducing took of its sharpness is given back. */
  readonly sharpened: boolean
}

/** What is computed for a file: the picture, its grid, and the part of it that the frame covers. */
export interface Output {
  readonly node: GraphNode
  readonly grid: Grid
  readonly rect: Rect
  /** The space that it is worked on in. */
  readonly working: ColourSpace
}

/** Unsharp masking for a size: sigma in px of the file, and strength. Common practice, no source. */
const SHARPEN = { sigma: 0.7, amount: 0.5 }

/** What is computed for a file of a size. A picture is never enlarged. */
export function outputOf(scene: Scene, { longSide, sharpened }: OutputSize): Output {
  const frame = frameOfSource(scene)
  const full = Math.max(frame.width, frame.height)
  const scale = Math.min(1, (longSide ?? full) / full)
  const grid = gridAt(scene.photo, scale)
  const picture = framedGraph(scene)
  const node = scale < 1 && sharpened ? unsharpNode(picture, SHARPEN.sigma / scale, SHARPEN.amount) : picture
  return { node, grid, rect: regionOnGrid(frame, grid), working: workingSpaceOf(scene.photo.id) }
}
