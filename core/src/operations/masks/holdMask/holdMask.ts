import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

type HoldParameters = { readonly hold: number }

/** Limits how far a mask closes: 1 - hold (1 - m). */
export const holdMask: Operation<HoldParameters> = {
  name: 'holdMask',
  run(context, params, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.holdMask(plane(inputAt(inputs, 0), 0), count, params.hold, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function holdMaskNode(mask: GraphNode, hold: number): GraphNode {
  return hold === 1 ? mask : graphNode('holdMask', { hold }, [mask])
}
