import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { gaussianBlurNode } from '../../blurs/gaussianBlur/gaussianBlur'
import { inputAt, plane } from '../../plane'

type DifferenceParameters = {
  /** Whether 0 stays 0; else no difference is a mid-grey of 0.5. */
  readonly raw: boolean
}

/** First input less the second, plane by plane. */
export const difference: Operation<DifferenceParameters> = {
  name: 'difference',
  run(context, { raw }, inputs, rect) {
    const count = rect.width * rect.height
    const [a, b] = [inputAt(inputs, 0), inputAt(inputs, 1)]
    const planes = a.planes.slice(0, a.kind === 'field' ? 1 : undefined).map((source, index) => {
      const out = context.plane(count)
      context.kernels.difference(source, plane(b, index), count, raw, out)
      return out
    })
    return { kind: a.kind, rect, planes }
  },
}

export function differenceNode(a: GraphNode, b: GraphNode, raw: boolean): GraphNode {
  return graphNode('difference', { raw }, [a, b])
}

/** High-pass: a picture less its Gaussian blur of `radius` photo px, about a mid-grey. */
export function highPassNode(input: GraphNode, radius: number): GraphNode {
  return differenceNode(input, gaussianBlurNode(input, radius), false)
}
