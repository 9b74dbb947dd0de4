import { z } from 'zod'
import type { GraphNode } from '../graph/node'
import { referenceTo } from '../model/roles'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import type { MaskContext } from './maskDefinition'

const toneSources = ['photo', 'beneath', 'effect', 'pinned'] as const

/** Where a mask reads its tones: the photo, all beneath, this effect, or a pinned state. */
export const readsTones = {
  tonesFrom: z.enum(toneSources),
  /** The pinned state that is read, if it is one. */
  pinned: referenceTo('pinned'),
}

interface ReadsTones {
  readonly tonesFrom: (typeof toneSources)[number]
  readonly pinned: string | null
}

/** The tones a mask reads. A pinned state that is gone is replaced by the photo, as `tonesProblem` says. */
export function tonesOf(mask: ReadsTones, context: MaskContext): GraphNode {
  if (mask.tonesFrom === 'beneath') return context.beneath
  if (mask.tonesFrom === 'effect') return context.own
  if (mask.tonesFrom === 'pinned') return context.pinned(mask.pinned) ?? context.picture
  return context.picture
}

/** Standard deviation, px, of the blur of the tones whose colour is read: finer than any subject, coarser than the noise of a sensor. */
const CALM = 1.5

/** The tones a mask reads, calmed, so that a mask by colour does not take the sensor's noise for hues. */
export function calmTonesOf(mask: ReadsTones, context: MaskContext): GraphNode {
  return gaussianBlurNode(tonesOf(mask, context), CALM)
}

export function tonesProblem(mask: ReadsTones, context: MaskContext): string | undefined {
  if (mask.tonesFrom !== 'pinned' || context.pinned(mask.pinned)) return undefined
  return 'Its pinned state is gone; it reads the photo instead.'
}
