import { outputSpaces, type OutputSpace } from '../../../colour/outputSpace'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Tones in the codes of another space with the same curve: a matrix in linear light. What lies outside is cut off. */
export const inSpace: Operation<{ readonly space: OutputSpace }> = {
  name: 'inSpace',
  run(context, { space }, inputs, rect) {
    const input = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const matrix = (outputSpaces[space].fromSrgb ?? UNCHANGED).flat() as Nine
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

/** A picture in the codes of a space; its own in sRGB. */
export function inSpaceNode(tones: GraphNode, space: OutputSpace): GraphNode {
  return outputSpaces[space].fromSrgb ? graphNode('inSpace', { space }, [tones]) : tones
}
