import { z } from 'zod'
import { linearOf, rgbFromHex, type Rgb } from '../../colour/hex'
import type { GraphNode } from '../../graph/node'
import { choiceControl, colourControl, lengthControl, numberControl, percentControl, placeControl, seedControl } from '../../model/controls'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { nearToNode } from '../../operations/distance/nearTo/nearTo'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { lampFieldNode, litByLampNode } from '../../operations/light/lamp/lamp'
import { mixNode } from '../../operations/mixing/mix/mix'
import { shaftsNode } from '../../operations/sources/shafts/shafts'
import { steady } from '../../graph/steady'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { originControls, originOf, originPlace } from '../origin'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  ...originControls,
  toX: placeControl('x', 'Aim', { byHand: true }),
  toY: placeControl('y', 'Aim', { byHand: true }),
  height: lengthControl({
    label: 'Height',
    usual: [50, 1500],
    hard: [1, 60000],
    step: 5,
    hint: 'How far the lamp is in front of the picture.',
  }),
  inner: numberControl({
    label: 'Full within',
    unit: '°',
    usual: [0, 60],
    hard: [0, 89],
    step: 0.5,
    hint: 'Half angle of the cone that is fully lit.',
  }),
  outer: numberControl({ label: 'Nothing beyond', unit: '°', usual: [2, 80], hard: [0.5, 89.5], step: 0.5 }),
  falloff: percentControl('Fall-off', 'How much it weakens with the square of the distance.'),
  depth: percentControl('By depth', 'How much what is nearer or farther than where it shines is left out.').default(0),
})

const shape = z.strictObject({
  strength: numberControl({ label: 'Strength', unit: '%', usual: [0, 400], hard: [0, 5000], step: 1 }),
  ambient: percentControl('Ambient', 'Light that is there without the lamp.'),
  sheen: numberControl({
    label: 'Sheen',
    unit: '%',
    usual: [0, 200],
    hard: [0, 2000],
    step: 1,
    hint: 'How much what is bright shines in it.',
  }),
  sharpness: numberControl({ label: 'Sheen sharpness', unit: '', usual: [1, 12], hard: [0.5, 100], step: 0.1 }),
  sheenBy: choiceControl('Sheen', { lamp: 'In the colour of the lamp', own: 'In a colour of its own' }).default('lamp'),
  sheenTint: colourControl('Sheen colour').default('#ffffff'),
  cone: percentControl('Visible cone', 'Light that shows in the air.'),
  fog: percentControl('Fog in the cone'),
  fogSize: lengthControl({ label: 'Fog size', usual: [20, 600], hard: [1, 20000], step: 5 }),
  seed: seedControl(),
})

const controls = z.strictObject({ pattern, shape })
export type LampControls = z.infer<typeof controls>

export const lamp = defineEffect({
  kind: 'lamp',
  family: 'light',
  label: 'Lamp',
  place: 'near',
  shownPart: 1,
  controls,
  dials: ['shape.strength', 'shape.ambient', 'pattern.outer', 'pattern.falloff', 'shape.sheen', 'shape.cone'],
  places: [
    { ...originPlace, label: 'Lamp' },
    { label: 'Where it shines', x: 'pattern.toX', y: 'pattern.toY' },
  ],
  applies: (path, { shape }) => {
    if (path === 'shape.sheenTint') return shape.sheenBy === 'own'
    if (path === 'shape.fog') return shape.cone > 0
    return (path !== 'shape.fogSize' && path !== 'shape.seed') || (shape.cone > 0 && shape.fog > 0)
  },
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `cone of ${Math.round(pattern.outer)}°`,
    shape: `ambient ${Math.round(shape.ambient)} %`,
  }),
  pattern: ({ pattern }, scene) => lampOf(pattern, scene),
  contribute(controls, scene, tint) {
    const { strength, ambient, sheen, sharpness, sheenBy, sheenTint } = controls.shape
    const colour = linearOf(tint)
    const sheenColour = sheenBy === 'lamp' ? colour : linearOf(rgbFromHex(sheenTint))
    const params = { ambient: ambient / 100, strength: strength / 100, colour, sheen: sheen / 100, sharpness, sheenColour }
    // A lamp that is out, in full other light, changes no code.
    const isOut = strength === 0 && ambient === 100
    const lit = (): GraphNode => (isOut ? scene.beneath : litByLampNode(scene.beneath, lampOf(controls.pattern, scene), params))
    return { gives: 'correction', field: constantFieldNode(1), picture: () => inTheAir(lit(), controls, scene, tint) }
  },
})

/** What falls on each place; where the scene knows distances, less on what is not as far away as the place it shines on. */
function lampOf(pattern: LampControls['pattern'], { marks, knownDistance, width }: EffectScene): GraphNode {
  const { follows, x, y, toX, toY, height, inner, outer, falloff, depth } = pattern
  const lamp = lampFieldNode({ ...originOf({ follows, x, y }, marks), toX, toY, height, inner, outer, falloff: falloff / 100 })
  if (depth === 0 || !knownDistance) return lamp
  const near = nearToNode(knownDistance, { x: toX, y: toY, about: width / AIM_PARTS, decline: MOST_DECLINE * (depth / 100) ** 2 })
  return joinFieldsNode([lamp, near], 'product')
}

/** Over so small a part of the width the distance of where it shines is meant. */
const AIM_PARTS = 120
/** At twice the distance a fifth of the light is left. */
const MOST_DECLINE = 4

/** The cone as it shows in misty air: as wide at the aim as what is lit there. */
function inTheAir(lit: GraphNode, { pattern, shape }: LampControls, { marks, phase }: EffectScene, tint: Rgb): GraphNode {
  if (shape.cone === 0) return lit
  const { x, y } = originOf(pattern, marks)
  const [dx, dy] = [pattern.toX - x, pattern.toY - y]
  const way = Math.max(1, Math.hypot(dx, dy))
  const half = 0.02 * way + 2
  const wide = Math.tan((Math.PI / 180) * Math.min(80, 0.5 * (pattern.inner + pattern.outer))) * 1.3 * way
  const cone = shaftsNode({
    x,
    y,
    half: steady(half),
    angle: steady((Math.atan2(-dy, dx) * 180) / Math.PI),
    length: steady(1.3 * way),
    opening: steady(Math.max(1, wide / half)),
    count: 1,
    uneven: 0,
    soft: 1,
    fade: 0.85,
    noise: shape.fog / 100,
    noiseSize: shape.fogSize,
    seed: shape.seed,
    phase,
  })
  return mixNode(lit, scaleFieldNode(gaussianBlurNode(cone, steady(0.012 * way)), shape.cone / 100), undefined, {
    mode: 'screen',
    amount: 1,
    linear: false,
    colour: tint,
  })
}
