import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { steady } from '../../graph/steady'
import { lengthControl, numberControl } from '../../model/controls'
import { adjustNode } from '../../operations/colour/adjust/adjust'
import { unsharpNode } from '../../operations/colour/unsharp/unsharp'
import { vividNode } from '../../operations/colour/vivid/vivid'
import { curveNode } from '../../operations/fields/curve/curve'
import { toneCurve } from './toneCurve'
import { whiteBalanceGain } from './whiteBalance'

const signed = (label: string, hint?: string): z.ZodNumber =>
  numberControl({ label, unit: '%', usual: [-100, 100], hard: [-100, 100], step: 1, ...(hint ? { hint } : {}) })

const pattern = z.strictObject({
  blacks: signed('Blacks', 'The darkest end of the tones.'),
  shadows: signed('Shadows'),
  midtones: signed('Midtones'),
  highlights: signed('Highlights'),
  whites: signed('Whites', 'The brightest end of the tones.'),
  contrast: signed('Contrast'),
  exposure: numberControl({ label: 'Exposure', unit: 'EV', usual: [-3, 3], hard: [-10, 10], step: 0.05 }),
})

const shape = z.strictObject({
  warmth: signed('Warmth', 'Above 0 as in later light, below 0 as in the shade.'),
  tint: signed('Tint', 'Above 0 towards magenta, below 0 towards green.'),
  saturation: numberControl({ label: 'Saturation', unit: '%', usual: [-100, 100], hard: [-100, 400], step: 1 }),
  vibrance: signed('Vibrance', 'Saturation of what is pale; what is strong already stays.'),
  fine: numberControl({
    label: 'Fine contrast',
    unit: '%',
    usual: [-100, 100],
    hard: [-100, 400],
    step: 1,
    hint: 'Local contrast; below 0 it softens.',
  }),
  fineRadius: lengthControl({ label: 'Fine radius', usual: [2, 30], hard: [0, 1000], step: 0.5 }),
  broad: numberControl({ label: 'Broad contrast', unit: '%', usual: [-100, 100], hard: [-100, 400], step: 1 }),
  broadRadius: lengthControl({ label: 'Broad radius', usual: [20, 200], hard: [0, 5000], step: 1 }),
})

/** Tones and colours of a picture: of the effect Adjust, and of the photo's groundwork. */
export const adjustControls = z.strictObject({ pattern, shape })
export type AdjustControls = z.infer<typeof adjustControls>

/** At 100 % local contrast adds so much of what a place differs from its surroundings. */
const LOCAL = 0.6

/** At which a picture stays as it is. Lengths for 6 megapixels. */
export const noAdjustment: AdjustControls = {
  pattern: { blacks: 0, shadows: 0, midtones: 0, highlights: 0, whites: 0, contrast: 0, exposure: 0 },
  shape: { warmth: 0, tint: 0, saturation: 0, vibrance: 0, fine: 0, fineRadius: 8, broad: 0, broadRadius: 60 },
}

/** Whether a control counts: the radius of a local contrast that is 0 does not. */
export function appliesToAdjusted(path: string, { shape }: AdjustControls): boolean {
  if (path === 'shape.fineRadius') return shape.fine !== 0
  return path !== 'shape.broadRadius' || shape.broad !== 0
}

/** A picture with other tones and colours: exposure and white balance in linear light, then tones, colours, and local contrast. */
export function adjusted(tones: GraphNode, { pattern, shape }: AdjustControls): GraphNode {
  const exposed = steady(Math.pow(2, pattern.exposure))
  const [r, g, b] = whiteBalanceGain(shape.warmth, shape.tint)
  const { shadows, highlights } = pattern
  const still = exposed === 1 && r === 1 && g === 1 && b === 1 && shadows === 0 && highlights === 0
  const gain = [exposed * r, exposed * g, exposed * b] as const
  const lit = still ? tones : adjustNode(tones, { gain, shadows: shadows / 100, highlights: highlights / 100 })
  const toned = curveNode(lit, toneCurve(pattern))
  const coloured = vividNode(toned, { saturation: 1 + shape.saturation / 100, vibrance: shape.vibrance / 100 })
  const broad = unsharpNode(coloured, shape.broadRadius, (LOCAL * shape.broad) / 100)
  return unsharpNode(broad, shape.fineRadius, (LOCAL * shape.fine) / 100)
}
