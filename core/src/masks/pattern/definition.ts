import { z } from 'zod'
import { referenceTo } from '../../model/roles'
import { fieldAsMaskNode } from '../../operations/fields/fieldAsMask/fieldAsMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const patternMaskSchema = z.strictObject({ ...maskBase, kind: z.literal('pattern'), effectId: referenceTo('effect') })
export type PatternMask = z.infer<typeof patternMaskSchema>

/** A pattern may have a region, and that masks of its own: where such a chain leads back to a pattern that is being made, it is taken as nothing (`StackBuilder`). */
export const patternMaskKind: MaskDefinition<PatternMask> = {
  kind: 'pattern',
  keeps: true,
  label: 'Another effect',
  hint: 'Where another effect draws',
  start: () => ({ kind: 'pattern', effectId: null }),
  summary: () => 'another effect’s pattern',
  node({ effectId }, context) {
    const field = context.pattern(effectId)
    return field && fieldAsMaskNode(field)
  },
  problem({ effectId }, context) {
    if (effectId === null) return 'No effect is chosen yet; the mask is left out.'
    return context.pattern(effectId) ? undefined : 'The effect that it reads was removed; the mask is left out.'
  },
}
