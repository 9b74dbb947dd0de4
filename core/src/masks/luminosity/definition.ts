import { z } from 'zod'
import { numberControl } from '../../model/controls'
import { listOf } from '../../model/roles'
import { curveNode } from '../../operations/fields/curve/curve'
import { luminosityMaskNode, toneChannels, toneCurves } from '../../operations/masks/luminosityMask/luminosityMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'
import { readsTones, tonesOf, tonesProblem } from '../tonesFrom'

const MOST_CURVE_POINTS = 16

const tone = z.number().min(0).max(1)

/** Four tones in rising order. */
const handles = z
  .tuple([tone, tone, tone, tone])
  .refine(([a, b, c, d]) => a <= b && b <= c && c <= d, { message: 'expected four tones in rising order' })

export const luminosityMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('luminosity'),
  ...readsTones,
  channel: z.enum(toneChannels),
  curve: z.enum(toneCurves),
  /** A curve drawn over the tones, which counts instead of the others where there is one. */
  free: listOf(z.strictObject({ x: tone, y: tone }), MOST_CURVE_POINTS, 'points', 2)
    .nullable()
    .default(null),
  handles,
  steepness: numberControl({
    label: 'Steepness',
    unit: '',
    usual: [-4, 4],
    hard: [-12, 12],
    step: 0.5,
    hint: 'Above 0 the mask gets tighter, below 0 wider.',
  }),
})
export type LuminosityMask = z.infer<typeof luminosityMaskSchema>

const curveWords = { darks: 'shadows', mids: 'midtones', brights: 'highlights', range: 'tones' }

export const luminosityMaskKind: MaskDefinition<LuminosityMask> = {
  kind: 'luminosity',
  label: 'Luminosity',
  hint: 'Shadows, midtones or highlights of the photo',
  start: () => ({
    kind: 'luminosity',
    tonesFrom: 'photo',
    pinned: null,
    channel: 'encodedLuma',
    curve: 'brights',
    free: null,
    handles: [0, 1, 1, 1],
    steepness: 0,
  }),
  summary({ curve, free, handles: [, full, fullEnd] }) {
    if (free) return 'tones by a curve'
    if (curve !== 'range') return curveWords[curve]
    if (fullEnd >= 1) return `tones above ${Math.round(full * 100)} %`
    if (full <= 0) return `tones below ${Math.round(fullEnd * 100)} %`
    return `tones ${Math.round(full * 100)}–${Math.round(fullEnd * 100)} %`
  },
  node(mask, context) {
    const { channel, curve, free, handles: tones, steepness } = mask
    if (free) {
      const plain = { channel, curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 } as const
      return curveNode(luminosityMaskNode(tonesOf(mask, context), plain), free)
    }
    return luminosityMaskNode(tonesOf(mask, context), { channel, curve, handles: tones, steepness })
  },
  problem: tonesProblem,
}
