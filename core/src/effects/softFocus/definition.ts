import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { choiceControl, lengthControl, numberControl, percentControl } from '../../model/controls'
import { adjustNode } from '../../operations/colour/adjust/adjust'
import { combineMasksNode } from '../../operations/masks/combineMasks/combineMasks'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { curveNode } from '../../operations/fields/curve/curve'
import { fadeTonesNode } from '../../operations/mixing/fadeTones/fadeTones'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { mixNode } from '../../operations/mixing/mix/mix'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { detailNode, detailWays } from './detail'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  by: choiceControl('Kind', { veil: 'Veil', bloom: 'Bloom', pair: 'Pair of a dark and a light copy', diffusion: 'Diffusion' }),
  radius: lengthControl({
    label: 'Radius',
    usual: [2, 120],
    hard: [0, 6000],
    step: 0.5,
    hint: 'A veil has about as many px as the photo has megapixels, at 24 of them; a bloom is full from 50 to 100.',
  }),
  lightRadius: lengthControl({ label: 'Light radius', usual: [2, 120], hard: [0, 6000], step: 0.5, hint: 'Of the light copy.' }),
  contrast: numberControl({ label: 'Contrast', unit: '%', usual: [-50, 100], hard: [-100, 400], step: 1, hint: 'Of the copy.' }),
  brightness: numberControl({ label: 'Brightness', unit: '%', usual: [-40, 40], hard: [-100, 100], step: 1, hint: 'Of the copy.' }),
})

const shape = z.strictObject({
  glow: percentControl('Glow', 'How much of the copy there is.'),
  darkening: percentControl('Darkening', 'Takes the shadows down again; of a pair, how much of the dark copy there is.'),
  protectHighlights: percentControl('Protect highlights'),
  protectShadows: percentControl('Protect shadows'),
  detailBy: choiceControl('Detail return', detailWays),
  detail: percentControl('Detail', 'Gives back what the blur took: everywhere, or within the masks of Detail.'),
})

const controls = z.strictObject({ pattern, shape })
export type SoftFocusControls = z.infer<typeof controls>

export const softFocus = defineEffect({
  kind: 'softFocus',
  family: 'light',
  label: 'Soft focus',
  place: 'finish',
  shownPart: 1,
  controls,
  ownColours: 'those of the picture',
  dials: ['pattern.radius', 'shape.glow', 'shape.darkening', 'shape.detail', 'shape.protectHighlights', 'shape.protectShadows'],
  region: { label: 'Detail', step: 'shape', hint: 'Where detail comes back. Without a mask it comes back everywhere.' },
  applies: (path, { pattern }) => path !== 'pattern.lightRadius' || pattern.by === 'pair',
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.by}, ${Number(pattern.radius.toFixed(1))} px`,
    shape: shape.detail > 0 ? `detail ${Math.round(shape.detail)} %` : 'no detail back',
  }),
  pattern: ({ pattern }, { beneath }) => luminosity(gaussianBlurNode(beneath, pattern.radius), [0, 1, 1, 1]),
  contribute(controls, scene) {
    const { pattern, shape } = controls
    const darkens = shape.darkening > 0 && pattern.by !== 'pair'
    return {
      gives: 'correction',
      field: protectedField(controls, scene),
      picture: () => copyOf(pattern, shape, scene.beneath),
      ...(darkens || shape.detail > 0
        ? { after: (mixed, held) => withDetail(darkens ? darker(mixed, shape, held) : mixed, shape, scene, held) }
        : {}),
    }
  },
})

interface Held {
  readonly amount: number
  readonly mask: GraphNode | undefined
}

/** The shadows taken down by an S-curve. */
function darker(mixed: GraphNode, { darkening }: SoftFocusControls['shape'], { amount, mask }: Held): GraphNode {
  const down = (0.16 * darkening) / 100
  const bent = [
    { x: 0, y: 0 },
    { x: 0.25, y: 0.25 - down },
    { x: 0.75, y: 0.75 + 0.3 * down },
    { x: 1, y: 1 },
  ]
  return fadeTonesNode(mixed, curveNode(mixed, bent), mask, { amount, linear: false })
}

/** What the blur took, given back everywhere or in the region. */
function withDetail(
  soft: GraphNode,
  { detail, detailBy }: SoftFocusControls['shape'],
  scene: EffectScene,
  { amount, mask }: Held,
): GraphNode {
  if (detail === 0) return soft
  const field = scene.region ? scaleFieldNode(scene.region, 1) : constantFieldNode(1)
  return detailNode(soft, scene.beneath, { by: detailBy, field, mask, amount: (detail / 100) * Math.min(1, amount) })
}

/** The soft copy of the picture that is mixed in. */
function copyOf(
  { by, radius, lightRadius, contrast, brightness }: SoftFocusControls['pattern'],
  { glow, darkening }: SoftFocusControls['shape'],
  beneath: GraphNode,
): GraphNode {
  const change = { contrast: 1 + contrast / 100, brightness: brightness / 100 }
  // A bloom gets its contrast before it is blurred, so that only what is bright spreads.
  if (by === 'bloom') return gaussianBlurNode(adjustNode(beneath, change), radius)
  if (by !== 'pair') return adjustNode(gaussianBlurNode(beneath, radius), change)
  const one = constantFieldNode(1)
  const lay = (under: GraphNode, copy: GraphNode, mode: 'multiply' | 'screen', amount: number): GraphNode =>
    mixNode(under, one, undefined, { mode, amount, linear: false, colour: [1, 1, 1] }, copy)
  const dark = lay(beneath, gaussianBlurNode(beneath, radius), 'multiply', darkening / 100)
  return lay(dark, adjustNode(gaussianBlurNode(beneath, lightRadius), change), 'screen', glow / 100)
}

function luminosity(tones: GraphNode, handles: readonly [number, number, number, number]): GraphNode {
  return scaleFieldNode(luminosityMaskNode(tones, { channel: 'encodedLuma', curve: 'range', handles, steepness: 0 }), 1)
}

/** How much of the copy there is at each place: less in the tones that are protected. */
function protectedField({ pattern, shape }: SoftFocusControls, { beneath }: EffectScene): GraphNode {
  const whole = constantFieldNode(pattern.by === 'pair' ? 1 : shape.glow / 100)
  const less = (handles: readonly [number, number, number, number], part: number): GraphNode[] =>
    part > 0
      ? [combineMasksNode(undefined, scaleFieldNode(luminosity(beneath, handles), part / 100), { join: 'subtract', strength: 1 })]
      : []
  return joinFieldsNode(
    [whole, ...less([0.6, 0.9, 1, 1], shape.protectHighlights), ...less([0, 0, 0.1, 0.4], shape.protectShadows)],
    'product',
  )
}
