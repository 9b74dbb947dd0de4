import type { Rgb } from '../../colour/hex'
import { graphNode, type GraphNode } from '../../graph/node'
import type { Operation, RunContext } from '../../graph/operation'
import { inputAt, plane } from '../plane'
import { mixModes, type MixMode } from './mixModes'

export type MixParameters = {
  readonly mode: MixMode
  /** 0-1. */
  readonly amount: number
  /** Whether the formula works in linear light. */
  readonly linear: boolean
  /** sRGB-encoded colour of the source, 0-1. */
  readonly colour: Rgb
}

/**
 * Lays a coloured field over the tones beneath. Inputs: tones, field, and perhaps a mask. The field is light on
 * nothing: its intensity is the source's alpha, so black is absent in every mode.
 */
export const mix: Operation<MixParameters> = {
  name: 'mix',
  run(context, params, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const base = inputAt(inputs, 0)
    const field = inputAt(inputs, 1)
    const spread = field.planes[1] ?? 0
    const mask = inputs[2] ? plane(inputs[2], 0) : 0
    const out = [0, 1, 2].map(() => context.plane(count))
    const [red = 0, green = 0, blue = 0] = out
    kernels.mix(
      ...([mixModes.indexOf(params.mode), params.linear] as const),
      ...([plane(base, 0), plane(base, 1), plane(base, 2)] as const),
      ...sourceColour(context, params.colour),
      ...([plane(field, 0), spread, mask, params.amount, count] as const),
      ...([context.scratch((count * 4 + 16) * 2), red, green, blue] as const),
    )
    return { kind: 'tones', rect, planes: out }
  },
}

export function mixNode(base: GraphNode, field: GraphNode, mask: GraphNode | undefined, params: MixParameters): GraphNode {
  return graphNode('mix', params, mask ? [base, field, mask] : [base, field])
}

/** Addresses of four equal floats for each channel, and the step 0 that makes the kernel stay on them. */
function sourceColour(context: RunContext, colour: Rgb): [number, number, number, number] {
  const address = context.scratch(48)
  colour.forEach((value, channel) => context.kernels.fill(address + channel * 16, 4, value))
  return [address, address + 16, address + 32, 0]
}
