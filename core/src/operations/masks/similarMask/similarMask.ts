import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

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
    const [l, a, b] = [0, 1, 2].map(() => context.scratch(count * 4)) as [number, number, number]
    kernels.oklabPlanes(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, l, a, b)
    const out = context.plane(count)
    kernels.fill(out, count, 0)
    for (const { x, y, colour } of taps) {
      const [pl, pa, pb] = oklabOf(context, colour)
      const at = [rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const
      kernels.similarTo(l, a, b, ...at, x, y, pl, pa, pb, reachPlace, reachColour, out)
    }
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function similarMaskNode(tones: GraphNode, params: SimilarParameters): GraphNode {
  return graphNode('similarMask', params, [tones])
}

function oklabOf({ kernels, scratch }: RunContext, colour: Rgb): [number, number, number] {
  const block = scratch(96)
  colour.forEach((value, channel) => kernels.fill(block + channel * 16, 4, value))
  kernels.oklabPlanes(block, block + 16, block + 32, 4, block + 48, block + 64, block + 80)
  const values = new Float32Array(kernels.memory.buffer, block + 48, 12)
  return [values[0] ?? 0, values[4] ?? 0, values[8] ?? 0]
}
