import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { Rgb } from '../../../colour/hex'
import { sourceColour, type MixParameters } from '../mix/mix'
import { mixModes } from '../mix/mixModes'
import { inputAt, plane } from '../../plane'

type LayerMixParameters = MixParameters & { readonly masked: boolean }

/**
 * Lays a coloured field over a layer that may be transparent: W3C Compositing and Blending Level 1 with alpha on both sides. Inputs: field,
 * its own colours if it has any, mask if there is one, and the layer beneath; without it the layer is empty.
 */
export const layerMix: Operation<LayerMixParameters> = {
  name: 'layerMix',
  isStage: true,
  run(context, params, inputs, rect) {
    const { kernels, scratch } = context
    const count = rect.width * rect.height
    const own = params.colour === 'own' ? inputAt(inputs, 1) : undefined
    const [maskAt, belowAt] = own ? [2, params.masked ? 3 : 2] : [1, params.masked ? 2 : 1]
    const mask = params.masked ? plane(inputAt(inputs, maskAt), 0) : 0
    const below = inputs[belowAt]
    const base = [0, 1, 2, 3].map((channel) => {
      if (below) return plane(below, channel)
      const empty = scratch(count * 4)
      kernels.fill(empty, count, 0)
      return empty
    }) as [number, number, number, number]
    const colour = sourceColour(context, params.colour, own)
    const ones = scratch(count * 4)
    kernels.fill(ones, count, 1)
    const planes = [0, 1, 2, 3].map(() => context.plane(count)) as [number, number, number, number]
    const mean = plane(inputAt(inputs, 0), 0)
    const room = scratch((count * 4 + 16) * 2)
    kernels.layerMix(
      mixModes.indexOf(params.mode),
      params.linear,
      ...base,
      ...colour,
      mean,
      mask,
      params.amount,
      count,
      ones,
      room,
      ...planes,
    )
    return { kind: 'layer', rect, planes }
  },
}

export function layerMixNode(
  below: GraphNode | undefined,
  field: GraphNode,
  mask: GraphNode | undefined,
  params: Omit<MixParameters, 'colour'> & { readonly colour: Rgb },
  own?: GraphNode,
): GraphNode {
  const inputs = [field, ...(own ? [own] : []), ...(mask ? [mask] : []), ...(below ? [below] : [])]
  return graphNode('layerMix', { ...params, colour: own ? 'own' : params.colour, masked: mask !== undefined }, inputs)
}
