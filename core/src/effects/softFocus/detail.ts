import type { GraphNode } from '../../graph/node'
import { highPassNode } from '../../operations/fields/difference/difference'
import { mixNode } from '../../operations/mixing/mix/mix'
import type { MixMode } from '../../operations/mixing/mix/mixModes'

export const detailWays = {
  fine: 'High-pass 1 px, Overlay',
  broad: 'High-pass 4 px, Soft light',
  unblur: 'Unblur, Linear light',
  local: 'Local contrast, two passes',
} as const
type DetailWay = keyof typeof detailWays

interface DetailOptions {
  readonly by: DetailWay
  /** Where it comes back, and how much. */
  readonly field: GraphNode
  readonly mask: GraphNode | undefined
  /** 0-1. */
  readonly amount: number
}

/** Photo px: the widths are those of what is seen at 1:1 and do not follow the size of the photo. Common practice, no source. */
const UNBLUR = 4
const LOCAL = [12, 60] as const

/** `tones` with the detail of the picture beneath laid over them. */
export function detailNode(tones: GraphNode, beneath: GraphNode, { by, field, mask, amount }: DetailOptions): GraphNode {
  const lay = (under: GraphNode, detail: GraphNode, mode: MixMode, part = 1): GraphNode =>
    mixNode(under, field, mask, { mode, amount: amount * part, linear: false, colour: [1, 1, 1] }, detail)
  if (by === 'fine') return lay(tones, highPassNode(beneath, 1), 'overlay')
  if (by === 'broad') return lay(tones, highPassNode(beneath, 4), 'soft-light')
  if (by === 'unblur') return lay(tones, highPassNode(beneath, UNBLUR), 'linear-light')
  return LOCAL.reduce((under, radius) => lay(under, highPassNode(beneath, radius), 'soft-light', 0.7), tones)
}
