import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { choiceControl, lengthControl, numberControl, percentControl, placeControl, seedControl } from '../../model/controls'
import { burstsNode } from '../../operations/sources/burst/burst'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { constantTonesNode } from '../../operations/sources/constantTones/constantTones'
import { fadeTonesNode } from '../../operations/mixing/fadeTones/fadeTones'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../operations/fields/levels/levels'
import { lightColoursNode, lightFieldNode } from '../../operations/light/lightOfTones/lightOfTones'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { radialBlurNode } from '../../operations/blurs/radialBlur/radialBlur'
import { shaftsNode } from '../../operations/sources/shafts/shafts'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { steady } from '../../graph/steady'
import type { Size } from '../../planes/grid'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { originControls, originOf, originPlace } from '../origin'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  by: choiceControl('Made of', {
    brights: 'The photo’s brights, streaming',
    shafts: 'Shafts between two edges',
    photo: 'The whole picture, smeared',
  }),
  ...originControls,
  toX: placeControl('x', 'Landing', { byHand: true }),
  toY: placeControl('y', 'Landing', { byHand: true }),
  length: lengthControl({
    label: 'Length',
    usual: [20, 900],
    hard: [0, 20000],
    step: 5,
    hint: 'At the corner farthest from the origin: 50 is short, 300 strong.',
  }),
  tones: percentControl('Threshold', 'Only what is brighter than this streams.'),
  width: lengthControl({ label: 'Width', usual: [20, 1500], hard: [1, 30000], step: 5, hint: 'Of the edge that the shafts come from.' }),
  opening: numberControl({
    label: 'Opening',
    unit: '×',
    usual: [0.5, 4],
    hard: [0.05, 40],
    step: 0.05,
    hint: 'How much wider they are where they land.',
  }),
  count: numberControl({ label: 'Count', unit: '', usual: [1, 20], hard: [0, 200], step: 1, whole: true }),
  uneven: percentControl('Irregularity'),
  seed: seedControl(),
})

const shape = z.strictObject({
  strength: numberControl({ label: 'Strength', unit: '%', usual: [0, 200], hard: [0, 800], step: 1 }),
  softness: lengthControl({ label: 'Softness', usual: [0, 60], hard: [0, 2000], step: 0.5 }),
  edges: percentControl('Soft edges', 'Of the shafts.'),
  fade: percentControl('Fade', 'How much the shafts weaken along their way.'),
  noise: percentControl('Noise', 'How much slow noise breaks them up.'),
  noiseSize: lengthControl({ label: 'Noise size', usual: [20, 600], hard: [1, 20000], step: 5 }),
})

const controls = z.strictObject({ pattern, shape })
export type RayControls = z.infer<typeof controls>

const SHAFTS_ONLY = [
  'pattern.toX',
  'pattern.toY',
  'pattern.width',
  'pattern.opening',
  'pattern.count',
  'pattern.uneven',
  'shape.edges',
  'shape.fade',
  'shape.noiseSize',
]
const SMEAR_ONLY = ['pattern.length']
const BRIGHTS_ONLY = ['pattern.tones']

export const rays = defineEffect({
  kind: 'rays',
  family: 'light',
  label: 'Light rays',
  place: 'middle',
  shownPart: 1,
  controls,
  ownColours: ({ pattern }) => ({ shafts: undefined, brights: 'those of the brights', photo: 'those of the picture' })[pattern.by],
  dials: ['pattern.length', 'shape.strength', 'shape.softness', 'pattern.count', 'shape.noise', 'pattern.tones'],
  places: [originPlace, { label: 'Where they land', x: 'pattern.toX', y: 'pattern.toY' }],
  startsAtLight: ({ pattern }) => pattern.by !== 'shafts',
  takesBrights: { from: 'pattern.tones', strength: 'shape.strength', rises: 0.5 },
  applies: (path, { pattern }) => {
    if (SHAFTS_ONLY.includes(path)) return pattern.by === 'shafts'
    if (SMEAR_ONLY.includes(path)) return pattern.by !== 'shafts'
    if (path === 'shape.noise' || path === 'pattern.seed' || path === 'shape.strength') return pattern.by !== 'photo'
    return !BRIGHTS_ONLY.includes(path) || pattern.by === 'brights'
  },
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: pattern.by === 'shafts' ? `${pattern.count} shafts, seed ${pattern.seed}` : `smeared over ${Math.round(pattern.length)} px`,
    shape: `strength ${Math.round(shape.strength)} %, soft ${Math.round(shape.softness)} px`,
  }),
  pattern: ({ pattern, shape }, scene) => {
    if (pattern.by === 'shafts') return shaftsOf({ pattern, shape: { ...shape, noise: 0, fade: 0 } }, scene)
    return lightFieldNode(pattern.by === 'brights' ? brightsOf(pattern, scene) : scene.beneath)
  },
  contribute({ pattern, shape }, scene) {
    if (pattern.by === 'photo') {
      const picture = (): GraphNode => gaussianBlurNode(smeared(scene.beneath, pattern, scene), shape.softness)
      return { gives: 'correction', field: constantFieldNode(1), picture }
    }
    const raw = pattern.by === 'shafts' ? shaftsOf({ pattern, shape }, scene) : broken({ pattern, shape }, scene)
    const field = levelsNode(gaussianBlurNode(raw, shape.softness), { black: 0, white: 100 / Math.max(1, shape.strength), gamma: 1 })
    return light(field, () => (pattern.by === 'brights' ? lightColoursNode(smeared(brightsOf(pattern, scene), pattern, scene)) : undefined))
  },
})

/** What is bright in the photo, on black. */
function brightsOf({ tones }: RayControls['pattern'], { picture }: EffectScene): GraphNode {
  const from = Math.min(0.98, tones / 100)
  const mask = luminosityMaskNode(picture, {
    channel: 'encodedLuma',
    curve: 'range',
    handles: [Math.max(0, from - 0.12), Math.min(1, from + 0.08), 1, 1],
    steepness: 0,
  })
  return fadeTonesNode(constantTonesNode([0, 0, 0]), picture, mask, { amount: 1, linear: false })
}

function smeared(tones: GraphNode, pattern: RayControls['pattern'], { marks, width, height }: EffectScene): GraphNode {
  return radialBlurNode(tones, {
    kind: 'zoom',
    ...originOf(pattern, marks),
    strength: pattern.length,
    ...(pattern.by === 'photo' ? { sides: 'both' } : { sides: 'outward', detail: seenDetail({ width, height }) }),
  })
}

/** Light that streams from something smaller than this part of the picture is not seen as a ray of its own. */
const SEEN_DETAIL = 1500

function seenDetail({ width, height }: Size): number {
  return Math.max(width, height) / SEEN_DETAIL
}

/** Features of the noise around the turn. */
const RAYS = 37

/** Streaming brights, as a field; noise around the origin breaks them into rays. */
function broken({ pattern, shape }: RayControls, scene: EffectScene): GraphNode {
  const light = lightFieldNode(smeared(brightsOf(pattern, scene), pattern, scene))
  if (shape.noise === 0) return light
  const part = shape.noise / 100
  const noise = burstsNode(
    [
      {
        ...originOf(pattern, scene.marks),
        core: 0,
        halo: 0,
        haloSize: 1,
        spikes: { count: 0, reach: 0, strength: 0, thickness: 1, uneven: 0, turn: 0, paired: false },
        rays: { count: RAYS, strength: 1, reach: 40 * (scene.width + scene.height), low: 0.3, high: 0.72 },
        seed: pattern.seed,
      },
    ],
    scene.phase,
    seenDetail(scene),
  )
  return joinFieldsNode([light, sumFieldsNode([constantFieldNode(1 - part), scaleFieldNode(noise, part)])], 'product')
}

function shaftsOf({ pattern, shape }: RayControls, { marks, phase }: EffectScene): GraphNode {
  const { x, y } = originOf(pattern, marks)
  const [dx, dy] = [pattern.toX - x, pattern.toY - y]
  return shaftsNode({
    x,
    y,
    half: pattern.width / 2,
    angle: steady((Math.atan2(-dy, dx) * 180) / Math.PI),
    length: steady(Math.hypot(dx, dy)),
    opening: pattern.opening,
    count: pattern.count,
    uneven: pattern.uneven / 100,
    soft: shape.edges / 100,
    fade: shape.fade / 100,
    noise: shape.noise / 100,
    noiseSize: shape.noiseSize,
    seed: pattern.seed,
    phase,
  })
}
