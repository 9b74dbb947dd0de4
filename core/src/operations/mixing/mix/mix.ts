import type { Rgb } from '../../../colour/hex'
import { asStage, graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import type { Value } from '../../../planes/value'
import { inputAt, plane } from '../../plane'
import { constantFieldNode } from '../../sources/constantField/constantField'
import { mixModes, type MixMode } from './mixModes'

export type MixParameters = {
  readonly mode: MixMode
  /** 0-1. */
  readonly amount: number
  /** Whether the formula works in linear light. */
  readonly linear: boolean
  /** sRGB-encoded colour of the source, 0-1; `own` if the source brings tones of its own. */
  readonly colour: Rgb | 'own'
}

/**
 * Lays a coloured field over the tones beneath. Inputs: tones, field, the field's own colours as tones if it has any, and perhaps a mask. The field is light on
 * nothing: its intensity is the source's alpha, so black is absent in every mode.
 */
export const mix: Operation<MixParameters> = {
  name: 'mix',
  isStage: true,
  run(context, params, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const base = inputAt(inputs, 0)
    const field = inputAt(inputs, 1)
    const spread = field.planes[1] ?? 0
    const own = params.colour === 'own' ? inputAt(inputs, 2) : undefined
    const masked = inputs[own ? 3 : 2]
    const mask = masked ? plane(masked, 0) : 0
    const out = [0, 1, 2].map(() => context.plane(count))
    const [red = 0, green = 0, blue = 0] = out
    kernels.mix(
      ...([mixModes.indexOf(params.mode), params.linear] as const),
      ...([plane(base, 0), plane(base, 1), plane(base, 2)] as const),
      ...sourceColour(context, params.colour, own),
      ...([plane(field, 0), spread, mask, params.amount, count] as const),
      ...([context.scratch((count * 4 + 16) * 2), red, green, blue] as const),
    )
    return { kind: 'tones', rect, planes: out }
  },
}

const WHOLE = constantFieldNode(1)

/**
 * A field laid over tones, or its own colours themselves where they take the place of all beneath.
 * @param own colours of the field as tones, if they differ from place to place
 */
export function mixNode(
  base: GraphNode,
  field: GraphNode,
  mask: GraphNode | undefined,
  params: Omit<MixParameters, 'colour'> & { readonly colour: Rgb },
  own?: GraphNode,
): GraphNode {
  const isWhole = own && !mask && params.mode === 'normal' && params.amount === 1 && !params.linear && field.key === WHOLE.key
  // What changes nothing is no stage of its own.
  if (isWhole) return own.key === base.key ? base : asStage(own)
  const inputs = [base, field, ...(own ? [own] : []), ...(mask ? [mask] : [])]
  return graphNode('mix', own ? { ...params, colour: 'own' } : params, inputs)
}

/**
 * Addresses of the colour's channels, and the step from one pixel to the next: 0 makes the kernel stay on four equal floats.
 * @throws RangeError if colours of its own are asked for and are not there
 */
export function sourceColour(
  context: Pick<RunContext, 'kernels' | 'scratch'>,
  colour: Rgb | 'own',
  own: Value | undefined,
): [number, number, number, 0 | 1] {
  if (colour === 'own') return [plane(own, 0), plane(own, 1), plane(own, 2), 1]
  const address = context.scratch(48)
  colour.forEach((value, channel) => context.kernels.fill(address + channel * 16, 4, value))
  return [address, address + 16, address + 32, 0]
}
