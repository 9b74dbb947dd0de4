import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Shifts of red, green and blue, each -1 to 1. */
export type Shift = readonly [number, number, number]

export type BalanceParameters = {
  readonly shadows: Shift
  readonly midtones: Shift
  readonly highlights: Shift
  readonly keepLuminosity: boolean
}

/** Three-way colour balance of tones. Where each range acts: common practice, no source. */
export const balance: Operation<BalanceParameters> = {
  name: 'balance',
  run(context, { shadows, midtones, highlights, keepLuminosity }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const shifts = context.scratch(48)
    new Float32Array(kernels.memory.buffer, shifts, 9).set([...shadows, ...midtones, ...highlights])
    kernels.balanceTones(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, shifts, keepLuminosity, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

/** `tones` balanced, or `tones` itself when nothing is shifted. */
export function balanceNode(tones: GraphNode, params: BalanceParameters): GraphNode {
  const still = [...params.shadows, ...params.midtones, ...params.highlights].every((shift) => shift === 0)
  return still ? tones : graphNode('balance', params, [tones])
}
