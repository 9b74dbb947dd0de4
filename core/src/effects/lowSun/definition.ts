import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { lengthControl, numberControl, percentControl } from '../../model/controls'
import { burstsNode } from '../../operations/sources/burst/burst'
import { gainByMaskNode } from '../../operations/colour/gainByMask/gainByMask'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../operations/fields/levels/levels'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { mirrorNode } from '../../operations/geometry/mirror/mirror'
import { mixNode } from '../../operations/mixing/mix/mix'
import { bandMaskNode } from '../../operations/masks/shapeMasks/bandMask'
import { mapRgb, type Rgb } from '../../colour/hex'
import { horizonOf, waterlineOf } from '../../model/marks'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { gainOfLight } from '../gainOfLight'
import { originControls, originOf, originPlace } from '../origin'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  ...originControls,
  sun: lengthControl({ label: 'Sun', usual: [2, 150], hard: [0, 5000], step: 1, hint: 'Radius of what is overexposed.' }),
  glow: lengthControl({ label: 'Glow', usual: [40, 1200], hard: [1, 30000], step: 5 }),
  airHeight: lengthControl({
    label: 'Air height',
    usual: [50, 1500],
    hard: [1, 30000],
    step: 5,
    hint: 'Of the lifted air over the horizon.',
  }),
  ridge: percentControl('Ridge', 'What is darker than this stands in front of the sun.'),
})

const shape = z.strictObject({
  strength: percentControl('Sun strength'),
  air: percentControl('Lifted air'),
  rim: percentControl('Rim', 'Warm light on the edge of what stands in front.'),
  rimWidth: lengthControl({ label: 'Rim width', usual: [1, 40], hard: [0.3, 2000], step: 0.5 }),
  rest: numberControl({ label: 'Darken the rest', unit: 'EV', usual: [0, 2], hard: [0, 8], step: 0.05 }),
  warmth: percentControl('Warmth', 'How much the rest takes the colour of the light.'),
  reflection: percentControl('Reflection', 'In the water below the waterline mark.'),
  ripple: lengthControl({ label: 'Ripple', usual: [0, 60], hard: [0, 1000], step: 1 }),
})

const controls = z.strictObject({ pattern, shape })
export type LowSunControls = z.infer<typeof controls>

export const lowSun = defineEffect({
  kind: 'lowSun',
  family: 'light',
  label: 'Low sun',
  place: 'far',
  shownPart: 1,
  controls,
  dials: ['pattern.sun', 'pattern.glow', 'shape.air', 'shape.rim', 'shape.rest', 'shape.reflection'],
  places: [{ ...originPlace, label: 'Sun' }],
  startsAtLight: () => true,
  showsItsLight: true,
  startingLooks,
  inWords: ({ shape }, { marks }) =>
    shape.reflection > 0 && !waterlineOf(marks) ? 'With a waterline in Marks it is seen in the water too.' : '',
  summary: ({ pattern, shape }) => ({
    pattern: `sun of ${Math.round(pattern.sun)} px, glow ${Math.round(pattern.glow)} px`,
    shape: `rim ${Math.round(shape.rim)} %, the rest ${Number(shape.rest.toFixed(2))} EV darker`,
  }),
  pattern: (controls, scene) => sunField(controls, scene),
  contribute(controls, scene, tint) {
    const inAir = (): GraphNode => withAir(darkened(controls, scene, tint), controls, scene, tint)
    const picture = (): GraphNode => withSun(withRim(inAir(), controls, scene, tint), sunField(controls, scene), controls, scene, tint)
    return { gives: 'correction', field: constantFieldNode(1), picture }
  },
})

/** The sun and its glow. */
function sunField({ pattern }: LowSunControls, { marks, phase }: EffectScene): GraphNode {
  return glowAbout(originOf(pattern, marks), pattern.sun, 0.6, pattern.glow / 2, phase)
}

function glowAbout({ x, y }: { x: number; y: number }, core: number, halo: number, haloSize: number, phase: number): GraphNode {
  const none = { count: 0, strength: 0, reach: 0 }
  return burstsNode(
    [
      {
        x,
        y,
        core,
        halo,
        haloSize,
        spikes: { ...none, thickness: 1, uneven: 0, turn: 0, paired: false },
        rays: { ...none, low: 0, high: 1 },
        seed: 0,
      },
    ],
    phase,
  )
}

/** Open where the photo is bright: there is nothing in front of the sun. */
function openSky({ ridge }: LowSunControls['pattern'], { picture }: EffectScene): GraphNode {
  const at = ridge / 100
  return luminosityMaskNode(picture, {
    channel: 'encodedLuma',
    curve: 'range',
    handles: [Math.max(0, at - 0.13), Math.min(1, at + 0.13), 1, 1],
    steepness: 0,
  })
}

/** Away from the sun everything is darker, and has some of its colour. */
function darkened({ pattern, shape }: LowSunControls, { beneath, marks, phase }: EffectScene, tint: Rgb): GraphNode {
  const gain = gainOfLight(tint, -shape.rest, (0.45 * shape.warmth) / 100)
  const far = invertedNode(scaleFieldNode(glowAbout(originOf(pattern, marks), 0, 1, 1.2 * pattern.glow, phase), 0.8))
  return gainByMaskNode(beneath, far, { outside: [1, 1, 1], inside: gain })
}

function withAir(under: GraphNode, { pattern, shape }: LowSunControls, scene: EffectScene, tint: Rgb): GraphNode {
  if (shape.air === 0) return under
  const { x, y } = originOf(pattern, scene.marks)
  const level = horizonOf(scene.marks) ?? { y, turn: 0 }
  const band = bandMaskNode({ x: scene.width / 2, y: level.y, turn: level.turn, width: 0, softness: pattern.airHeight })
  const near = glowAbout({ x, y }, 0, 1, 1.6 * pattern.glow, scene.phase)
  const air = joinFieldsNode([band, near, invertedNode(scaleFieldNode(invertedNode(openSky(pattern, scene)), 0.75))], 'product')
  return mixNode(under, scaleFieldNode(air, (0.75 * shape.air) / 100), undefined, {
    mode: 'screen',
    amount: 1,
    linear: false,
    colour: tint,
  })
}

/** Light creeps around the edge of what is in front, the more the nearer the sun. */
function withRim(under: GraphNode, { pattern, shape }: LowSunControls, scene: EffectScene, tint: Rgb): GraphNode {
  if (shape.rim === 0) return under
  const sky = openSky(pattern, scene)
  const creeping = levelsNode(gaussianBlurNode(sky, shape.rimWidth), { black: 0.05, white: 0.75, gamma: 1 })
  const near = glowAbout(originOf(pattern, scene.marks), 0, 1, pattern.glow, scene.phase)
  const rim = joinFieldsNode([creeping, invertedNode(sky), near], 'product')
  return mixNode(under, scaleFieldNode(rim, shape.rim / 100), undefined, { mode: 'screen', amount: 1, linear: false, colour: tint })
}

const WHITE_HOT: Rgb = [1, 0.97, 0.88]

function withSun(under: GraphNode, sun: GraphNode, { pattern, shape }: LowSunControls, scene: EffectScene, tint: Rgb): GraphNode {
  const amount = shape.strength / 100
  const colour = mapRgb(tint, (channel, index) => 0.5 * (channel + WHITE_HOT[index]))
  const shining = mixNode(under, sun, openSky(pattern, scene), { mode: 'screen', amount, linear: false, colour })
  const water = waterlineOf(scene.marks)
  if (!water || shape.reflection === 0) return shining
  const mirrored = mirrorNode(sun, {
    x: scene.width / 2,
    y: water.y,
    turn: water.turn,
    stretch: 1.6,
    ripple: shape.ripple,
    rippleLength: 4 * shape.ripple + 4,
    seed: 7,
    phase: scene.phase,
    fade: 0.7 * scene.height,
  })
  return mixNode(shining, mirrored, undefined, { mode: 'screen', amount: (amount * shape.reflection) / 100, linear: false, colour: tint })
}
