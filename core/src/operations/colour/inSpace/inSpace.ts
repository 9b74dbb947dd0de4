import { matrixBetween, type ColourSpace } from '../../../colour/colourSpace'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Tones of one space in the codes of another with the same curve: a matrix in linear light. What lies outside is cut off. */
export const inSpace: Operation<{ readonly from: ColourSpace; readonly to: ColourSpace }> = {
  name: 'inSpace',
  run(context, { from, to }, inputs, rect) {
    const input = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const matrix = (matrixBetween(from, to) ?? UNCHANGED).flat() as Nine
    context.kernels.throughMatrix(plane(input, 0), plane(input, 1), plane(input, 2), ...matrix, count, ...out)
    return { kind: 'tones', rect: input.rect, planes: out }
  },
}

type Nine = [number, number, number, number, number, number, number, number, number]
const UNCHANGED = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const

/** A picture of one space in the codes of another; itself where they are the same. */
export function inSpaceNode(tones: GraphNode, from: ColourSpace, to: ColourSpace): GraphNode {
  return from === to ? tones : graphNode('inSpace', { from, to }, [tones])
}
