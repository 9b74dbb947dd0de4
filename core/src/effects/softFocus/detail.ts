import type { GraphNode } from '../../graph/node'
import { highPassNode } from '../../operations/fields/difference/difference'
import { mixNode } from '../../operations/mixing/mix/mix'
import type { MixMode } from '../../operations/mixing/mix/mixModes'

export const detailWays = {
  fine: 'Fine',
  broad: 'Broad',
  unblur: 'Crisp',
  local: 'Local',
  own: 'Custom',
  off: 'Off',
} as const
export const detailModes = {
  overlay: 'Overlay',
  'soft-light': 'Soft light',
  'hard-light': 'Hard light',
  'linear-light': 'Linear light',
} as const satisfies Partial<Record<MixMode, string>>

type DetailWay = Exclude<keyof typeof detailWays, 'off'>

interface DetailOptions {
  readonly by: DetailWay
  /** Of one's own way: sigma of the high-pass, photo px, and how it is laid over. */
  readonly radius: number
  readonly mode: keyof typeof detailModes
  /** Where it comes back, and how much. */
  readonly field: GraphNode
  readonly mask: GraphNode | undefined
  /** 1 for the whole of it; more overdrives it. */
  readonly amount: number
}

/** Photo px: the widths are those of what is seen at 1:1 and do not follow the size of the photo. Common practice, no source. */
const UNBLUR = 4
const LOCAL = [12, 60] as const

/** `tones` with the detail of the picture beneath laid over them. */
export function detailNode(tones: GraphNode, beneath: GraphNode, { by, radius: own, mode, field, mask, amount }: DetailOptions): GraphNode {
  const lay = (under: GraphNode, detail: GraphNode, mode: MixMode, part = 1): GraphNode =>
    mixNode(under, field, mask, { mode, amount: amount * part, linear: false, colour: [1, 1, 1] }, detail)
  if (by === 'own') return lay(tones, highPassNode(beneath, own), mode)
  if (by === 'fine') return lay(tones, highPassNode(beneath, 1), 'overlay')
  if (by === 'broad') return lay(tones, highPassNode(beneath, 4), 'soft-light')
  if (by === 'unblur') return lay(tones, highPassNode(beneath, UNBLUR), 'linear-light')
  return LOCAL.reduce((under, radius) => lay(under, highPassNode(beneath, radius), 'soft-light', 0.7), tones)
}
