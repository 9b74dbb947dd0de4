import { z } from 'zod'
import { referenceTo } from '../../model/roles'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

/** A mask that stands once in the scene and is read by several lists. */
export const sharedMaskSchema = z.strictObject({ ...maskBase, kind: z.literal('shared'), of: referenceTo('shared') })
export type SharedMaskReference = z.infer<typeof sharedMaskSchema>

/** Shared masks do not read one another: what leads from one to the next is taken as nothing there (`EffectParts`). */
export const sharedMaskKind: MaskDefinition<SharedMaskReference> = {
  kind: 'shared',
  keeps: true,
  label: 'Shared',
  hint: 'A mask of several effects, mended once for all of them',
  start: () => ({ kind: 'shared', of: null }),
  summary: () => 'a shared mask',
  node: ({ of }, context) => context.shared(of),
  problem({ of }, context) {
    if (of === null) return 'No shared mask is chosen yet; it is left out.'
    return context.shared(of) ? undefined : 'The shared mask was removed, or has nothing in it; it is left out.'
  },
}
