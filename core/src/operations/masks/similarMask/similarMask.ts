import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt } from '../../plane'
import { oklabOfColour, oklabPlanes } from './oklabPlanes'

export type SimilarParameters = {
  /** Places in photo px with the colour found there, sRGB-encoded. */
  readonly taps: readonly { readonly x: number; readonly y: number; readonly colour: Rgb }[]
  /** Photo px. */
  readonly reachPlace: number
  /** Distance in OKLab. */
  readonly reachColour: number
}

/**
 * Closeness to tapped places: for each, a fall with the distance times a fall with the difference in OKLab, each full up to half its
 * reach and 0 from its reach on; the greatest of all places counts.
 */
export const similarMask: Operation<SimilarParameters> = {
  name: 'similarMask',
  run(context, { taps, reachPlace, reachColour }, inputs, rect) {
    const { kernels, grid } = context
    const tones = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const oklab = oklabPlanes(context, tones)
    const out = context.plane(count)
    kernels.fill(out, count, 0)
    for (const { x, y, colour } of taps) {
      const at = [rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const
      kernels.similarTo(...oklab, ...at, x, y, ...oklabOfColour(context, colour), reachPlace, reachColour, out)
    }
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function similarMaskNode(tones: GraphNode, params: SimilarParameters): GraphNode {
  return graphNode('similarMask', params, [tones])
}
