import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { rgbFromHex } from '../../colour/hex'
import { choiceControl, colourControl, lengthControl, numberControl, percentControl } from '../../model/controls'
import { adjustNode } from '../../operations/colour/adjust/adjust'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { curveNode } from '../../operations/fields/curve/curve'
import { fadeTonesNode } from '../../operations/mixing/fadeTones/fadeTones'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { mixNode } from '../../operations/mixing/mix/mix'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { detailModes, detailNode, detailWays } from './detail'
import { gainOfLight } from '../gainOfLight'
import { startingLooks } from './startingLooks'

const WHITE = '#ffffff'

function contrastControl(label: string, hint: string): z.ZodNumber {
  return numberControl({ label, unit: '%', usual: [-50, 100], hard: [-100, 400], step: 1, hint })
}

function brightnessControl(label: string, hint: string): z.ZodNumber {
  return numberControl({ label, unit: '%', usual: [-40, 40], hard: [-100, 100], step: 1, hint })
}

function saturationControl(label: string, hint: string): z.ZodNumber {
  return numberControl({ label, unit: '%', usual: [0, 200], hard: [0, 1000], step: 1, hint })
}

const pattern = z.strictObject({
  by: choiceControl('Kind', { veil: 'Veil', bloom: 'Bloom', pair: 'Pair of a dark and a light copy', diffusion: 'Diffusion' }),
  radius: lengthControl({
    label: 'Radius',
    usual: [2, 120],
    hard: [0, 6000],
    step: 0.5,
    hint: 'At 24 megapixels a veil takes about 24 px, a bloom 50 to 100.',
  }),
  lightRadius: lengthControl({ label: 'Light radius', usual: [2, 120], hard: [0, 6000], step: 0.5, hint: 'Of the light copy.' }),
  contrast: contrastControl('Contrast', 'Of the copy; of a pair, of the light one.'),
  brightness: brightnessControl('Brightness', 'Of the copy; of a pair, of the light one.'),
  saturation: saturationControl('Saturation', 'Of the copy; of a pair, of the light one.').default(100),
  tint: colourControl('Tint').default(WHITE),
  darkContrast: contrastControl('Dark contrast', 'Of the dark copy.').default(0),
  darkBrightness: brightnessControl('Dark brightness', 'Of the dark copy.').default(0),
  darkSaturation: saturationControl('Dark saturation', 'Of the dark copy.').default(100),
  darkTint: colourControl('Dark tint').default(WHITE),
  first: choiceControl('Laid first', { dark: 'The dark copy', light: 'The light copy' }).default('dark'),
})

const shape = z.strictObject({
  glow: percentControl('Glow', 'How much of the copy there is.'),
  darkening: percentControl('Darkening', 'Takes the shadows down again; of a pair, how much of the dark copy there is.'),
  protectHighlights: percentControl('Spare the brights'),
  protectShadows: percentControl('Spare the darks'),
  detailBy: choiceControl('Detail return', detailWays),
  detail: numberControl({
    label: 'Detail',
    unit: '%',
    usual: [0, 100],
    hard: [0, 400],
    step: 1,
    hint: 'Gives back what the blur took, everywhere or within its masks.',
  }),
  detailWith: choiceControl('Detail comes back', {
    effect: 'With Amount and Where of the effect',
    own: 'By itself, within its own masks',
  }).default('effect'),
  detailMode: choiceControl('Detail mode', detailModes).default('overlay'),
  detailRadius: numberControl({
    label: 'Detail radius',
    unit: 'px',
    usual: [0.5, 60],
    hard: [0.2, 500],
    step: 0.1,
    hint: 'Of the high-pass; pixel for pixel, whatever the size of the photo.',
  }).default(4),
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
  pulls: ['shape.glow', 'pattern.radius'],
  region: { label: 'Detail', step: 'shape', hint: 'Where detail comes back. Without a mask it comes back everywhere.' },
  applies: (path, { pattern, shape }) => {
    if (OF_A_PAIR.includes(path)) return pattern.by === 'pair'
    if (path === 'shape.detail' || path === 'shape.detailWith') return shape.detailBy !== 'off'
    return (path !== 'shape.detailMode' && path !== 'shape.detailRadius') || shape.detailBy === 'own'
  },
  startsOn({ pattern, shape }, { width, height }) {
    const megapixels = (width * height) / 1e6
    if (pattern.by === 'veil') return { pattern: { ...pattern, radius: tenth(Math.max(LEAST_VEIL, (25 / 24) * megapixels)) }, shape }
    if (pattern.by === 'bloom') return { pattern: { ...pattern, radius: Math.max(LEAST_BLOOM, pattern.radius) }, shape }
    return { pattern, shape }
  },
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.by}, ${Number(pattern.radius.toFixed(1))} px`,
    shape: hasDetail(shape) ? `detail ${Math.round(shape.detail)} %` : 'no detail back',
  }),
  pattern: ({ pattern }, { beneath }) => luminosity(gaussianBlurNode(beneath, pattern.radius), [0, 1, 1, 1]),
  contribute(controls, scene) {
    const { pattern, shape } = controls
    const darkens = shape.darkening > 0 && pattern.by !== 'pair'
    return {
      gives: 'correction',
      field: protectedField(controls, scene),
      picture: () => copyOf(pattern, shape, scene.beneath),
      ...(darkens || hasDetail(shape)
        ? { after: (mixed, held) => withDetail(darkens ? darker(mixed, shape, held) : mixed, shape, scene, held) }
        : {}),
    }
  },
})

/** Px: narrower than this a veil or a bloom is not seen. */
const LEAST_VEIL = 2
const LEAST_BLOOM = 20

function tenth(value: number): number {
  return Number(value.toFixed(1))
}

const OF_A_PAIR = ['lightRadius', 'darkContrast', 'darkBrightness', 'darkSaturation', 'darkTint', 'first'].map((name) => `pattern.${name}`)

function hasDetail({ detail, detailBy }: SoftFocusControls['shape']): boolean {
  return detail > 0 && detailBy !== 'off'
}

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
  { detail, detailBy, detailWith, detailMode, detailRadius }: SoftFocusControls['shape'],
  scene: EffectScene,
  { amount, mask }: Held,
): GraphNode {
  if (detail === 0 || detailBy === 'off') return soft
  const field = scene.region ? scaleFieldNode(scene.region, 1) : constantFieldNode(1)
  const held = detailWith === 'effect' ? { mask, amount: (detail / 100) * Math.min(1, amount) } : { mask: undefined, amount: detail / 100 }
  return detailNode(soft, scene.beneath, { by: detailBy, radius: detailRadius, mode: detailMode, field, ...held })
}

/** What is done to a copy: contrast, brightness, saturation and tint. */
function changed(tones: GraphNode, contrast: number, brightness: number, saturation: number, tint: string): GraphNode {
  return adjustNode(tones, {
    contrast: 1 + contrast / 100,
    brightness: brightness / 100,
    saturation: saturation / 100,
    gain: gainOfLight(rgbFromHex(tint), 0, 1),
  })
}

/** The soft copy of the picture that is mixed in. */
function copyOf(pattern: SoftFocusControls['pattern'], { glow, darkening }: SoftFocusControls['shape'], beneath: GraphNode): GraphNode {
  const { by, radius, lightRadius } = pattern
  const light = (tones: GraphNode): GraphNode => changed(tones, pattern.contrast, pattern.brightness, pattern.saturation, pattern.tint)
  // A bloom gets its contrast before it is blurred, so that only what is bright spreads.
  if (by === 'bloom') return gaussianBlurNode(light(beneath), radius)
  if (by !== 'pair') return light(gaussianBlurNode(beneath, radius))
  const one = constantFieldNode(1)
  const lay = (under: GraphNode, copy: GraphNode, mode: 'multiply' | 'screen', amount: number): GraphNode =>
    mixNode(under, one, undefined, { mode, amount, linear: false, colour: [1, 1, 1] }, copy)
  const blurred = gaussianBlurNode(beneath, radius)
  const isPlain = pattern.darkContrast === 0 && pattern.darkBrightness === 0 && pattern.darkSaturation === 100 && pattern.darkTint === WHITE
  const dark = isPlain ? blurred : changed(blurred, pattern.darkContrast, pattern.darkBrightness, pattern.darkSaturation, pattern.darkTint)
  const layDark = (under: GraphNode): GraphNode => lay(under, dark, 'multiply', darkening / 100)
  const layLight = (under: GraphNode): GraphNode => lay(under, light(gaussianBlurNode(beneath, lightRadius)), 'screen', glow / 100)
  return pattern.first === 'dark' ? layLight(layDark(beneath)) : layDark(layLight(beneath))
}

function luminosity(tones: GraphNode, handles: readonly [number, number, number, number]): GraphNode {
  return scaleFieldNode(luminosityMaskNode(tones, { channel: 'encodedLuma', curve: 'range', handles, steepness: 0 }), 1)
}

/** How much of the copy there is at each place: less in the tones that are protected. */
function protectedField({ pattern, shape }: SoftFocusControls, { beneath }: EffectScene): GraphNode {
  const whole = constantFieldNode(pattern.by === 'pair' ? 1 : shape.glow / 100)
  const less = (handles: readonly [number, number, number, number], part: number): GraphNode[] =>
    part > 0 ? [invertedNode(scaleFieldNode(luminosity(beneath, handles), part / 100))] : []
  return joinFieldsNode(
    [whole, ...less([0.6, 0.9, 1, 1], shape.protectHighlights), ...less([0, 0, 0.1, 0.4], shape.protectShadows)],
    'product',
  )
}
