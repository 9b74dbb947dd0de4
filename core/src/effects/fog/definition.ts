import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { angleControl, lengthControl, numberControl, offsetControl, percentControl, seedControl } from '../../model/controls'
import { airlightNode } from '../../operations/distance/airlight/airlight'
import { cloudMaskNode } from '../../operations/masks/cloudMask/cloudMask'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { METEOROLOGICAL_RANGE } from '../../colour/visibility'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { groundControls, groundProfile } from '../groundProfile'
import { layerSeed } from '../layerSeed'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  density: percentControl('Density', 'How much one bank of fog hides where it is thickest.'),
  layers: numberControl({
    label: 'Banks',
    unit: '',
    usual: [1, 4],
    hard: [1, 4],
    step: 1,
    whole: true,
    hint: 'One behind the other, each with a cloud of its own.',
  }),
  scale: lengthControl({
    label: 'Scale',
    usual: [100, 3000],
    hard: [10, 100000],
    step: 10,
    hint: 'Size of the largest wisps.',
    noise: 'scale',
  }),
  stretch: numberControl({ label: 'Stretch', unit: '×', usual: [0.5, 8], hard: [0.1, 50], step: 0.1 }),
  turn: angleControl('Rotation', { noise: 'rotation' }),
  offsetX: offsetControl('Offset across').default(0),
  offsetY: offsetControl('Offset down').default(0),
  octaves: numberControl({ label: 'Fineness', unit: '', usual: [1, 8], hard: [1, 10], step: 1, whole: true }),
  contrast: percentControl('Contrast', 'At 0 a smooth veil, at 100 torn wisps.'),
  seed: seedControl(),
})

const shape = z.strictObject({
  ...groundControls,
  sight: numberControl({
    label: 'Visibility',
    unit: 'm',
    usual: [20, 2000],
    hard: [1, 100000],
    step: 10,
    hint: 'How far one can see through it; near things stay clear.',
  }),
  byDistance: percentControl('By distance', 'How much the distance decides: at 0 it lies over near and far alike.'),
})

const controls = z.strictObject({ pattern, shape })
export type FogControls = z.infer<typeof controls>

export const fog = defineEffect({
  kind: 'fog',
  family: 'weather',
  label: 'Fog',
  place: 'middle',
  shownPart: 1,
  controls,
  dials: ['pattern.density', 'pattern.scale', 'pattern.stretch', 'shape.height', 'shape.sight'],
  box: {
    paths: ['offsetX', 'offsetY', 'scale', 'stretch', 'turn'].map((key) => `pattern.${key}`),
    read: ({ pattern: { offsetX: x, offsetY: y, scale: size, stretch, turn } }) => ({ x, y, size, stretch, turn }),
    write: ({ pattern }, { x: offsetX, y: offsetY, size: scale, stretch, turn }) =>
      void Object.assign(pattern, { offsetX, offsetY, scale, stretch, turn }),
  },
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.layers} ${pattern.layers === 1 ? 'bank' : 'banks'}, seed ${pattern.seed}`,
    shape: `one can see ${Math.round(shape.sight)} m`,
  }),
  pattern: ({ pattern }, scene) => banks(pattern, scene),
  contribute({ pattern, shape }, scene) {
    const parts = [banks(pattern, scene), groundProfile(shape, scene)]
    // Nothing is known of how far things are: then it lies over all of them alike.
    if (shape.byDistance > 0 && scene.knownDistance) parts.push(thickness(shape, scene))
    return light(joinFieldsNode(parts, 'product'))
  },
})

/** Shapes that a bank drifts in a loop. */
const DRIFT = 0.7

/** Banks one behind the other. Each has a seed, a size and an angle of its own, so that no two show the same cloud. */
function banks(
  { density, layers, scale, stretch, turn, offsetX, offsetY, octaves, contrast, seed }: FogControls['pattern'],
  { phase }: EffectScene,
): GraphNode {
  const half = 0.62 - 0.46 * (contrast / 100)
  const each = Array.from({ length: layers }, (_, index) => {
    const cloud = cloudMaskNode({
      scale: scale * (1 + 0.37 * index),
      stretch,
      turn: turn + 7 * index,
      offsetX,
      offsetY,
      octaves,
      seed: layerSeed(seed, 16, 37 * index),
      low: 0.44 - half,
      high: 0.44 + half,
      phase,
      drift: DRIFT * (1 + 0.4 * index),
    })
    return scaleFieldNode(cloud, (density / 100) * (1 - 0.16 * index))
  })
  return joinFieldsNode(each, 'screen')
}

/** What the air adds over the distance, beside a veil over near and far alike, as far as the distance does not decide. */
function thickness({ sight, byDistance }: FogControls['shape'], scene: EffectScene): GraphNode {
  const air = airlightNode(scene.distance, { extinction: METEOROLOGICAL_RANGE / sight, start: 0 })
  if (byDistance >= 100) return air
  // Extinction without end is a veil that is everywhere.
  const everywhere = airlightNode(scene.distance, { extinction: 1, start: -1e6 })
  return joinFieldsNode([scaleFieldNode(everywhere, 1 - byDistance / 100), air], 'screen')
}
