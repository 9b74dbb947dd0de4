import { z } from 'zod'
import { rgbFromHex } from '../../colour/hex'
import { hexColour, lengthControl, numberControl, placeControl } from '../../model/controls'
import { listOf } from '../../model/roles'
import { similarMaskNode } from '../../operations/masks/similarMask/similarMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'
import { readsTones, calmTonesOf, tonesProblem } from '../tonesFrom'

const tapSchema = z.strictObject({ x: placeControl('x'), y: placeControl('y'), colour: hexColour })

export const similarMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('similar'),
  ...readsTones,
  taps: listOf(tapSchema, 64, 'places'),
  reachPlace: lengthControl({ label: 'Reach in place', usual: [10, 3000], hard: [1, 100000], step: 1 }),
  reachColour: numberControl({
    label: 'Reach in colour',
    unit: '%',
    usual: [1, 60],
    hard: [0.5, 200],
    step: 0.5,
    hint: 'Distance in OKLab, times 100.',
  }),
})
export type SimilarMask = z.infer<typeof similarMaskSchema>

export const similarMaskKind: MaskDefinition<SimilarMask> = {
  kind: 'similar',
  label: 'Similar',
  hint: 'Grows from places you tap',
  start: ({ width, height }) => ({
    kind: 'similar',
    tonesFrom: 'photo',
    pinned: null,
    taps: [],
    reachPlace: 0.35 * Math.max(width, height),
    reachColour: 14,
  }),
  summary: ({ taps }) => `like ${taps.length === 1 ? 'one place' : `${taps.length} places`}`,
  node(mask, context) {
    const taps = mask.taps.map(({ x, y, colour }) => ({ x, y, colour: rgbFromHex(colour) }))
    return similarMaskNode(calmTonesOf(mask, context), { taps, reachPlace: mask.reachPlace, reachColour: mask.reachColour / 100 })
  },
  problem(mask, context) {
    return mask.taps.length > 0 ? tonesProblem(mask, context) : 'It has no place to grow from yet: tap the photo.'
  },
}
