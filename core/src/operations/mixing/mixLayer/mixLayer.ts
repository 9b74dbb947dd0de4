import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { MixParameters } from '../mix/mix'
import { mixModes } from '../mix/mixModes'
import { inputAt, plane } from '../../plane'

type LayerParameters = Omit<MixParameters, 'colour'>

/** Lays a finished layer with its own alpha over tones: what an isolated group does. Inputs: tones, layer, and perhaps a mask. */
export const mixLayer: Operation<LayerParameters> = {
  name: 'mixLayer',
  isStage: true,
  run(context, params, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const three = (index: number): [number, number, number] => {
      const value = inputAt(inputs, index)
      return [plane(value, 0), plane(value, 1), plane(value, 2)]
    }
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const alpha = plane(inputAt(inputs, 1), 3)
    const mask = inputs[2] ? plane(inputs[2], 0) : 0
    const mode = mixModes.indexOf(params.mode)
    const room = context.scratch((count * 4 + 16) * 2)
    kernels.mix(mode, params.linear, ...three(0), ...three(1), 1, alpha, 0, mask, params.amount, count, room, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

export function mixLayerNode(base: GraphNode, layer: GraphNode, mask: GraphNode | undefined, params: LayerParameters): GraphNode {
  return graphNode('mixLayer', params, mask ? [base, layer, mask] : [base, layer])
}
