import { z } from 'zod'
import type { Rgb } from '../../colour/hex'
import type { GraphNode } from '../../graph/node'
import { angleControl, choiceControl, lengthControl, numberControl, percentControl, placeControl, seedControl } from '../../model/controls'
import { listOf, withRoles } from '../../model/roles'
import { burstsNode, type Burst } from '../../operations/sources/burst/burst'
import { constantTonesNode } from '../../operations/sources/constantTones/constantTones'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { lightColoursNode } from '../../operations/light/lightOfTones/lightOfTones'
import { mixNode } from '../../operations/mixing/mix/mix'
import { drawnForBlur, mostReach } from '../boundedSpecks'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { glintsOf, type Glint } from './glints'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  by: choiceControl('Where they are', { placed: 'At places of their own', many: 'Many, all over' }),
  /** Places of the glints; `size` in percent of the others, `turn` beside their common rotation. */
  places: withRoles(
    listOf(
      z.strictObject({
        x: placeControl('x'),
        y: placeControl('y'),
        size: numberControl({ label: 'Size', unit: '%', usual: [10, 300], hard: [1, 1000], step: 1 }),
        turn: angleControl('Own rotation').default(0),
      }),
      400,
      'glints',
    ),
    { byHand: true },
  ),
  count: numberControl({ label: 'Count', unit: '', usual: [1, 200], hard: [0, 5000], step: 1, whole: true }),
  reach: lengthControl({ label: 'Reach', usual: [5, 200], hard: [0.5, 5000], step: 0.5, hint: 'Length of the longest points.' }),
  core: lengthControl({ label: 'Core', usual: [0.5, 12], hard: [0, 500], step: 0.1 }),
  points: numberControl({ label: 'Points', unit: '', usual: [2, 12], hard: [0, 64], step: 1, whole: true }),
  uneven: percentControl('Point variation', 'How much the points of a glint differ.'),
  turn: angleControl('Rotation', { noise: 'rotation' }),
  sizeSpread: percentControl('Size variation'),
  seed: seedControl(),
})

const shape = z.strictObject({
  halo: percentControl('Halo'),
  tintScatter: percentControl('Scatter of tints', 'How far the colours of the glints lie apart.'),
  turnScatter: percentControl('Scatter of rotation'),
  blur: lengthControl({ label: 'Blur', usual: [0, 5], hard: [0, 200], step: 0.1 }),
})

const controls = z.strictObject({ pattern, shape })
export type SparkleControls = z.infer<typeof controls>

/** Glints come in so many tints. */
const TINTS = 3

export const sparkles = defineEffect({
  kind: 'sparkles',
  family: 'light',
  label: 'Sparkles',
  place: 'near',
  shownPart: 0.7,
  controls,
  dials: ['pattern.reach', 'pattern.core', 'pattern.points', 'pattern.uneven', 'pattern.sizeSpread', 'pattern.count'],
  applies: (path, { pattern }) => path !== 'pattern.count' || pattern.by === 'many',
  startingLooks,
  inWords: ({ pattern }) =>
    pattern.by === 'placed' && pattern.places.length === 0 ? 'Open Pattern: place glints by hand, or let them be found.' : '',
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.by === 'many' ? pattern.count : pattern.places.length} glints of ${pattern.points} points`,
    shape: shape.blur > 0 ? `blur ${Number(shape.blur.toFixed(1))} px` : 'sharp',
  }),
  pattern: (controls, scene) => burstsNode(burstsOf(controls, scene), scene.phase),
  contribute(controls, scene, tint) {
    const tints = controls.shape.tintScatter > 0 ? TINTS : 1
    const fields = inGroups(controls, scene, tints).map((own) => gaussianBlurNode(burstsNode(own, scene.phase), controls.shape.blur))
    return light(sumFieldsNode(fields), () => (tints > 1 ? scattered(fields, controls.shape.tintScatter / 100, tint) : undefined))
  },
})

/** All glints of an effect. */
function burstsOf(controls: SparkleControls, scene: EffectScene): Burst[] {
  const glints = glintsOf(controls, scene)
  // A glint of many points costs as much as several of few.
  const most = mostReach(glints.length * Math.max(1, controls.pattern.points / 6) * drawnForBlur(controls.shape.blur), scene)
  return glints.map((glint) => burstOf(glint, controls, most))
}

function burstOf({ x, y, size, turn, seed }: Glint, { pattern, shape }: SparkleControls, most: number): Burst {
  const reach = Math.min(most, pattern.reach * size)
  const core = Math.min(most / 4, pattern.core * Math.sqrt(size))
  return {
    x,
    y,
    core,
    halo: shape.halo / 100,
    haloSize: Math.max(0.5, 0.16 * reach),
    spikes: {
      count: pattern.points,
      reach,
      strength: 0.95,
      thickness: Math.max(0.4, 0.55 * core),
      uneven: pattern.uneven / 100,
      turn: pattern.turn + turn,
      paired: false,
    },
    rays: { count: 0, strength: 0, reach: 0, low: 0, high: 1 },
    seed,
  }
}

/** All glints of an effect, in so many groups. */
function inGroups(controls: SparkleControls, scene: EffectScene, count: number): Burst[][] {
  const bursts = burstsOf(controls, scene)
  return Array.from({ length: count }, (_, index) => bursts.filter(({ seed }) => Math.abs(seed) % count === index))
}

/** Colours of groups of glints whose tints lie around the tint: warmer, as it is, cooler. */
function scattered(fields: readonly GraphNode[], by: number, tint: Rgb): GraphNode {
  const light = fields.reduce(
    (beneath, field, index) => {
      const colour = shiftedTint(tint, (index - 1) * by)
      return mixNode(beneath, field, undefined, { mode: 'plus-lighter', amount: 1, linear: false, colour })
    },
    constantTonesNode([0, 0, 0]),
  )
  return lightColoursNode(light)
}

function shiftedTint([red, green, blue]: Rgb, by: number): Rgb {
  const within = (value: number): number => Math.min(1, Math.max(0, value))
  return [within(red * (1 + 0.25 * by)), within(green * (1 - 0.1 * Math.abs(by))), within(blue * (1 - 0.6 * by))]
}
