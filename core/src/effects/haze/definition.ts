import { z } from 'zod'
import { METEOROLOGICAL_RANGE } from '../../colour/visibility'
import { choiceControl, numberControl, percentControl } from '../../model/controls'
import { airlightNode } from '../../operations/distance/airlight/airlight'
import { encodedOf, linearOf, mapRgb, type Rgb } from '../../colour/hex'
import type { GraphNode } from '../../graph/node'
import { cloudMaskNode } from '../../operations/masks/cloudMask/cloudMask'
import { distanceCurveNode } from '../../operations/distance/distanceCurve/distanceCurve'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { rampNode } from '../../operations/colour/ramp/ramp'
import { steady } from '../../graph/steady'
import { levelsNode } from '../../operations/fields/levels/levels'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { groundControls, groundProfile } from '../groundProfile'
import { CURVE_FROM, CURVE_TO, curveControls, curveKeys } from './curve'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  does: choiceControl('Haze is', { add: 'Laid over the photo', clear: 'Taken out of it' }).default('add'),
  by: choiceControl('By distance', { visibility: 'As air does', curve: 'As set below' }).default('visibility'),
  visibility: numberControl({
    label: 'Visibility',
    unit: 'm',
    usual: [100, 20000],
    hard: [1, 1000000],
    step: 50,
    hint: 'Contrast falls to 5 % there: fog below 1 km, mist to 5 km.',
  }),
  start: numberControl({ label: 'Clear up to', unit: 'm', usual: [0, 500], hard: [0, 100000], step: 1 }),
  ...curveControls,
})

const shape = z.strictObject({
  ...groundControls,
  blueing: percentControl('Blueing', 'How much bluer the air is the farther one looks through it.').default(0),
  kept: percentControl(
    'Air left',
    'How much of the darkest colour of each place stays air, so that skies turn neither gaudy nor black. At 0 all is taken out.',
  ).default(0),
  unevenness: percentControl('Variation', 'How much slow banks of air thin it out.'),
  gamma: numberControl({ label: 'Gamma', unit: '', usual: [0.3, 3], hard: [0.1, 10], step: 0.05 }),
})

const controls = z.strictObject({ pattern, shape })
export type HazeControls = z.infer<typeof controls>

export const haze = defineEffect({
  kind: 'haze',
  family: 'weather',
  label: 'Haze',
  place: 'far',
  shownPart: 1,
  controls,
  dials: ['pattern.visibility', 'pattern.start', 'shape.height', 'shape.unevenness'],
  startingLooks,
  applies: (path, { pattern }) => {
    if (path === 'shape.kept') return pattern.does === 'clear'
    if (path === 'shape.blueing') return pattern.does !== 'clear'
    if (path === 'pattern.visibility' || path === 'pattern.start') return pattern.by === 'visibility'
    return !curveKeys.some((key) => path === `pattern.${key}`) || pattern.by === 'curve'
  },
  inWords: ({ pattern }) => (pattern.by === 'visibility' ? visibilityInWords(pattern.visibility) : ''),
  summary: ({ pattern, shape }) => ({
    pattern: pattern.by === 'curve' ? 'set for each distance' : visibilityInWords(pattern.visibility),
    shape: shape.unevenness > 0 ? `uneven by ${Math.round(shape.unevenness)} %` : 'even',
  }),
  pattern: ({ pattern }, scene) => air(pattern, scene),
  contribute({ pattern, shape }, scene, tint) {
    const parts = [air(pattern, scene), groundProfile(shape, scene)]
    if (shape.unevenness > 0) parts.push(banksOfAir(shape.unevenness / 100, scene))
    const field = levelsNode(joinFieldsNode(parts, 'product'), { black: 0, white: 1, gamma: shape.gamma })
    if (pattern.does === 'clear') return { gives: 'clearing', field, kept: shape.kept / 100 }
    return light(field, () => (shape.blueing > 0 ? blueing(pattern, shape.blueing / 100, scene, tint) : undefined))
  },
})

/** The tint, bluer the farther one looks through it. */
function blueing({ visibility, start }: HazeControls['pattern'], amount: number, { distance }: EffectScene, tint: Rgb): GraphNode {
  const blue = mapRgb(BLUE, (channel, index) => Math.min(1, channel * tint[index]))
  const share = airlightNode(distance, { extinction: 1 / visibility, start })
  const [near, far] = [linearOf(tint), linearOf(blue)]
  const bluest = mapRgb(near, (channel, index) => steady(encodedOf((1 - amount) * channel + amount * far[index])))
  return rampNode(
    share,
    [
      { at: 0, colour: tint },
      { at: 1, colour: bluest },
    ],
    true,
  )
}

/** Encoded channels of far air against near air: molecules scatter blue the most (Rayleigh; the strength is common practice, no source). */
const BLUE: Rgb = [0.72, 0.9, 1.14]

/** Aerial perspective: photo t + air (1 - t), t = e^(-extinction distance); the field is 1 - t. Koschmieder 1924 (from memory). */
function air(pattern: HazeControls['pattern'], scene: EffectScene) {
  const { visibility, start } = pattern
  if (pattern.by === 'curve') {
    const values = curveKeys.map((key) => pattern[key] / 100)
    return distanceCurveNode(scene.distance, { near: CURVE_FROM, far: CURVE_TO, values })
  }
  return airlightNode(scene.distance, { extinction: METEOROLOGICAL_RANGE / visibility, start })
}

/** 1 where the air is thick, less where a slow cloud thins it. */
function banksOfAir(unevenness: number, scene: EffectScene) {
  const scale = 0.5 * scene.width
  const noise = { scale, stretch: 3, turn: 0, offsetX: 0, offsetY: 0, octaves: 4, seed: 23, low: 0.1, high: 0.8 }
  const cloud = cloudMaskNode({ ...noise, phase: scene.phase, drift: 0.5 })
  const everywhere = airlightNode(scene.distance, { extinction: 1, start: -1e6 })
  return joinFieldsNode([scaleFieldNode(everywhere, 1 - unevenness), cloud], 'screen')
}

/** Classes of visibility as forecasts use them: fog below 1 km, mist to 5 km (WMO; from memory). */
function visibilityInWords(metres: number): string {
  const seen = metres < 1000 ? `${Math.round(metres)} m` : `${(metres / 1000).toFixed(metres < 10000 ? 1 : 0)} km`
  const kind = metres < 1000 ? 'fog' : metres < 5000 ? 'mist' : metres < 20000 ? 'haze' : 'clear air'
  return `${kind}: one can see ${seen}`
}
