import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

export type AirParameters = {
  /** Extinction coefficient, 1/m. */
  readonly extinction: number
  /** Clear air before the camera, metres. */
  readonly start: number
}

/** Share of the air in what is seen at a distance: 1 - e^(-extinction (d - start)). Koschmieder 1924 (from memory). */
export const airlight: Operation<AirParameters> = {
  name: 'airlight',
  run(context, { extinction, start }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.airlight(plane(inputAt(inputs, 0), 0), count, extinction, start, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function airlightNode(distance: GraphNode, params: AirParameters): GraphNode {
  return graphNode('airlight', params, [distance])
}
