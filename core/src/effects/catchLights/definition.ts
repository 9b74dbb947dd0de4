import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { lengthControl, numberControl, percentControl } from '../../model/controls'
import { differenceNode } from '../../operations/fields/difference/difference'
import { airlightNode } from '../../operations/distance/airlight/airlight'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../operations/fields/levels/levels'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { towardsNode } from '../../operations/geometry/towards/towards'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { originControls, originOf, originPlace } from '../origin'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  ...originControls,
  size: lengthControl({
    label: 'Size',
    usual: [1, 40],
    hard: [0.5, 1000],
    step: 0.5,
    hint: 'How wide the edges are that catch the light.',
  }),
  tones: percentControl('Threshold', 'Only what is brighter than this catches light.'),
})

const shape = z.strictObject({
  strength: numberControl({ label: 'Strength', unit: '%', usual: [0, 300], hard: [0, 2000], step: 1 }),
  evenness: percentControl('Evenness', 'Lifts the faint ones towards the strong ones.'),
  blur: lengthControl({ label: 'Blur', usual: [0, 20], hard: [0, 500], step: 0.1 }),
  near: percentControl('Only near', 'How much it weakens with the distance: the sky and far hills catch none.').default(0),
})

const controls = z.strictObject({ pattern, shape })
export type CatchLightControls = z.infer<typeof controls>

export const catchLights = defineEffect({
  kind: 'catchLights',
  family: 'light',
  label: 'Catch-lights',
  place: 'near',
  shownPart: 1,
  controls,
  dials: ['pattern.size', 'pattern.tones', 'shape.strength', 'shape.evenness', 'shape.blur'],
  places: [{ ...originPlace, label: 'Where the light is' }],
  startsAtLight: () => true,
  takesBrights: { from: 'pattern.tones', strength: 'shape.strength', rises: 0 },
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `edges of ${Math.round(pattern.size)} px that face the light`,
    shape: `strength ${Math.round(shape.strength)} %`,
  }),
  pattern: ({ pattern }, scene) => facing(pattern, scene),
  contribute({ pattern, shape }, scene) {
    const white = 25 / Math.max(1, shape.strength)
    const caught = levelsNode(facing(pattern, scene), { black: 0.004, white, gamma: 1 + shape.evenness / 100 })
    return light(nearer(gaussianBlurNode(caught, shape.blur), shape.near, scene))
  },
})

/** Weakened as the air hides what lies far away; as it is where the scene knows no distances. */
function nearer(field: GraphNode, percent: number, { knownDistance }: EffectScene): GraphNode {
  if (percent === 0 || !knownDistance) return field
  const far = scaleFieldNode(airlightNode(knownDistance, { extinction: 1 / CLEAR_FOR, start: 0 }), percent / 100)
  return joinFieldsNode([field, invertedNode(far)], 'product')
}

/** Metres at which a third of it is left. */
const CLEAR_FOR = 60

/** What is brighter than the place a step nearer to the light: the sides of things that face it. Only in the brights. */
function facing({ follows, x, y, size, tones }: CatchLightControls['pattern'], { picture, marks }: EffectScene): GraphNode {
  const luma = luminosityMaskNode(picture, { channel: 'encodedLuma', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })
  const smooth = gaussianBlurNode(luma, 0.6 * size)
  const edges = differenceNode(smooth, towardsNode(smooth, { ...originOf({ follows, x, y }, marks), step: size }), true)
  const from = Math.min(0.95, tones / 100)
  const brights = luminosityMaskNode(picture, {
    channel: 'encodedLuma',
    curve: 'range',
    handles: [from, Math.min(1, from + 0.3), 1, 1],
    steepness: 0,
  })
  return joinFieldsNode([levelsNode(edges, { black: 0, white: 1, gamma: 1 }), brights], 'product')
}
