import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'

type StripeParameters = {
  /** From one stripe to the next, photo px, and the part of that which is bright, 0-1. */
  readonly period: number
  readonly part: number
  /** Of the stripes, degrees counter-clockwise from the x axis, and how far they are moved across, in periods. */
  readonly turn: number
  readonly shift: number
}

/** Straight stripes as a field; a pixel takes the part of it that they cover across their direction. */
export const stripes: Operation<StripeParameters> = {
  name: 'stripes',
  run({ kernels, grid, plane }, { period, part, turn, shift }, _inputs, rect) {
    const out = plane(rect.width * rect.height)
    const radians = (turn * Math.PI) / 180
    const [acrossX, acrossY] = [kernels.sine(radians), kernels.cosine(radians)]
    kernels.stripes(
      ...([out, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const),
      ...([Math.max(0.1, period), part, acrossX, acrossY, shift] as const),
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

export function stripesNode(params: StripeParameters): GraphNode {
  return graphNode('stripes', params)
}
