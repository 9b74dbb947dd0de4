import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type FadeParameters = {
  /** 0-1. */
  readonly amount: number
  readonly linear: boolean
}

/** Fades from tones to other tones by amount and perhaps a mask: what a group that passes through does with its effects. */
export const fadeTones: Operation<FadeParameters> = {
  name: 'fadeTones',
  isStage: true,
  run(context, { amount, linear }, inputs, rect) {
    const count = rect.width * rect.height
    const mask = inputs[2] ? plane(inputs[2], 0) : 0
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(count)
      context.kernels.fadePlane(plane(inputAt(inputs, 0), channel), plane(inputAt(inputs, 1), channel), mask, amount, linear, count, out)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

/** `inside` faded in over `base`, or `inside` itself when nothing holds it back. */
export function fadeTonesNode(base: GraphNode, inside: GraphNode, mask: GraphNode | undefined, params: FadeParameters): GraphNode {
  if (!mask && params.amount === 1) return inside
  return graphNode('fadeTones', params, mask ? [base, inside, mask] : [base, inside])
}
