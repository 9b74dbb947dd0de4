import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

type LitParameters = {
  /** 0-1: how much of the light's colour is taken. */
  readonly part: number
}

/** Colours (input 0) as they look in the light of the scene (input 1, from `sceneLight`). */
export const litColours: Operation<LitParameters> = {
  name: 'litColours',
  run(context, { part }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const light = inputAt(inputs, 1)
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(count)
      kernels.decodePlane(plane(inputAt(inputs, 0), channel), out, count)
      kernels.tintPlane(out, plane(light, channel), plane(light, 3), part, count, out)
      kernels.encodePlane(out, out, count)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

export function litColoursNode(colours: GraphNode, light: GraphNode, part: number): GraphNode {
  return graphNode('litColours', { part }, [colours, light])
}
