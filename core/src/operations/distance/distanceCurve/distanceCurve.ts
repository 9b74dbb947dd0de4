import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

type CurveParameters = {
  /** Metres of the first and the last value. */
  readonly near: number
  readonly far: number
  /** 0-1, at equal steps of the logarithm of the distance. */
  readonly values: readonly number[]
}

/** A field drawn over the distance: straight lines between values. */
export const distanceCurve: Operation<CurveParameters> = {
  name: 'distanceCurve',
  run(context, { near, far, values }, inputs, rect) {
    const count = rect.width * rect.height
    const { kernels } = context
    const knots = context.scratch(values.length * 4)
    new Float32Array(kernels.memory.buffer, knots, values.length).set(values)
    const out = context.plane(count)
    kernels.distanceCurve(plane(inputAt(inputs, 0), 0), count, near, far, knots, values.length, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function distanceCurveNode(distance: GraphNode, params: CurveParameters): GraphNode {
  return graphNode('distanceCurve', params, [distance])
}
