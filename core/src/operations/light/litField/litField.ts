import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

type LitParameters = {
  /** 0-1: how much the light decides. */
  readonly lit: number
}

/** A field (input 0) brightened where there is light in the air (input 1, from `sceneBrightness`), and dimmed where there is none. */
export const litField: Operation<LitParameters> = {
  name: 'litField',
  run(context, { lit }, inputs, rect) {
    const count = rect.width * rect.height
    const luminance = plane(inputAt(inputs, 1), 0)
    const planes = inputAt(inputs, 0).planes.map((source, index) => {
      const out = context.plane(count)
      context.kernels.litPlane(source, luminance, count, lit, index === 1, out)
      return out
    })
    return { kind: 'field', rect, planes }
  },
}

export function litFieldNode(field: GraphNode, light: GraphNode, lit: number): GraphNode {
  return lit > 0 ? graphNode('litField', { lit }, [field, light]) : field
}
