import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../operations/fields/levels/levels'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { ellipseMaskNode } from '../../operations/masks/shapeMasks/ellipseMask'
import { streaksNode, type StreakLayer } from '../../operations/sources/streaks/streaks'
import { turbulenceNode } from '../../operations/sources/turbulence/turbulence'
import { middleOf } from '../../model/frame'
import { boundedSpecks, boundedTogether } from '../boundedSpecks'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { layerSeed } from '../layerSeed'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  scratches: numberControl({ label: 'Scratches', unit: '', usual: [0, 200], hard: [0, 2000], step: 1, whole: true }),
  length: lengthControl({ label: 'Length', usual: [50, 2000], hard: [1, 20000], step: 10, hint: 'Of the longest scratches.' }),
  angle: numberControl({
    label: 'Direction',
    unit: '°',
    usual: [0, 180],
    hard: [-360, 360],
    step: 1,
    hint: 'Of the scratches; 90 is upright.',
  }),
  specks: numberControl({ label: 'Specks', unit: '', usual: [0, 200], hard: [0, 5000], step: 1, hint: 'In the frame, in tens.' }),
  size: lengthControl({ label: 'Size', usual: [0.5, 6], hard: [0.1, 100], step: 0.1, hint: 'Of specks; scratches are half as wide.' }),
  paper: percentControl('Paper', 'How much the fibres of paper are seen.'),
  stains: percentControl('Stains', 'Large clouds, as of damp and of hands.'),
  seed: seedControl(),
})

const shape = z.strictObject({
  borders: percentControl('At the borders', 'How much more of it there is towards the borders of the frame.'),
  blur: lengthControl({ label: 'Blur', usual: [0, 3], hard: [0, 100], step: 0.1 }),
})

const controls = z.strictObject({ pattern, shape })
export type WearControls = z.infer<typeof controls>

export const wear = defineEffect({
  kind: 'wear',
  family: 'finish',
  label: 'Wear',
  place: 'finish',
  shownPart: 1,
  controls,
  dials: ['pattern.scratches', 'pattern.specks', 'pattern.size', 'pattern.paper', 'pattern.stains', 'shape.borders'],
  direction: { label: 'Direction of scratches', path: 'pattern.angle', arrow: (angle) => angle, value: (arrow) => arrow },
  applies: (path, { pattern }) => (path !== 'pattern.length' && path !== 'pattern.angle') || pattern.scratches > 0,
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.scratches} scratches, ${Math.round(10 * pattern.specks)} specks`,
    shape: shape.borders > 0 ? 'more towards the borders' : 'alike all over',
  }),
  pattern: (controls, scene) => marks(controls, scene),
  contribute: (controls, scene) => light(towardsBorders(controls, gaussianBlurNode(marks(controls, scene), controls.shape.blur), scene)),
})

/** Scratches, specks, fibres and stains over one another. */
function marks({ pattern }: WearControls, scene: EffectScene): GraphNode {
  const { scratches, length, angle, specks, size, paper, stains, seed } = pattern
  const { x, y } = middleOf(scene.frame)
  const layer = (index: number, count: number, sigma: number, long: number, brightness: number): StreakLayer => ({
    seed: layerSeed(seed, 31, 7 * index + 3),
    ...boundedSpecks({ spacing: Math.sqrt((scene.width * scene.height) / Math.max(count, 0.01)), sigma, blur: 0, length: long }, scene),
    lengthVariation: 0.85,
    taper: 0.4,
    angle,
    bend: long > 0 ? 3 : 0,
    gustScale: Math.max(1, 3 * long),
    brightness,
    brightnessVariation: 0.8,
    shiftX: 0,
    shiftY: 0,
    turn: 0,
    centreX: x,
    centreY: y,
  })
  const layers = [
    ...(scratches > 0
      ? [layer(0, 0.7 * scratches, 0.5 * size, length, 0.7), layer(1, 0.3 * scratches, 0.9 * size, 0.5 * length, 0.35)]
      : []),
    ...(specks > 0 ? [layer(2, 8 * specks, 0.7 * size, 0, 0.9), layer(3, 2 * specks, 1.6 * size, 5 * size, 0.6)] : []),
  ]
  const clouds = (index: number, scale: number, octaves: number, type: 'smooth' | 'billowed', stretch = 1): GraphNode =>
    turbulenceNode({
      type,
      frequencyX: 1 / scale,
      frequencyY: 1 / (scale * stretch),
      octaves,
      seed: layerSeed(seed, 32, index),
      channel: 'red',
      tile: null,
    })
  const parts = [
    ...(layers.length > 0 ? [streaksNode(boundedTogether(layers))] : []),
    ...(paper > 0 ? [scaleFieldNode(clouds(1, 9 * size, 3, 'billowed', 0.6), (0.5 * paper) / 100)] : []),
    ...(stains > 0
      ? [
          scaleFieldNode(
            levelsNode(clouds(2, 0.28 * scene.width, 5, 'smooth'), { black: 0.5, white: 0.78, gamma: 1 }),
            (0.6 * stains) / 100,
          ),
        ]
      : []),
  ]
  return sumFieldsNode(parts.length > 0 ? parts : [streaksNode([])])
}

/** How far from the middle it is as much again as without this, against half of the frame. */
const INSIDE = 1.15

function towardsBorders({ shape }: WearControls, field: GraphNode, { frame }: EffectScene): GraphNode {
  if (shape.borders === 0) return field
  const { x, y } = middleOf(frame)
  const inside = ellipseMaskNode({
    x,
    y,
    radiusX: INSIDE * (frame.width / 2),
    radiusY: INSIDE * (frame.height / 2),
    turn: -frame.turn,
    softness: 1,
  })
  const outside = invertedNode(scaleFieldNode(inside, shape.borders / 100))
  return joinFieldsNode([field, outside], 'product')
}
