import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { angleControl, choiceControl, lengthControl, levelControls, numberControl, percentControl, seedControl } from '../../model/controls'
import { evenFit, fitLengths, lengthFactor } from '../../model/lengths'
import { combineMasksNode } from '../../operations/masks/combineMasks/combineMasks'
import { bendNode } from '../../operations/geometry/bend/bend'
import { lineAtHalfNode } from '../../operations/fields/lineAtHalf/lineAtHalf'
import { forkNode } from '../../operations/fields/fork/fork'
import { curveNode } from '../../operations/fields/curve/curve'
import { highPassNode } from '../../operations/fields/difference/difference'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../operations/fields/levels/levels'
import { morphologyNode } from '../../operations/blurs/morphology/morphology'
import { motionBlurNode } from '../../operations/blurs/motionBlur/motionBlur'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { fieldAsMaskNode } from '../../operations/fields/fieldAsMask/fieldAsMask'
import { lightFieldNode } from '../../operations/light/lightOfTones/lightOfTones'
import { maskAsTonesNode } from '../../operations/masks/maskAsTones/maskAsTones'
import { mixNode } from '../../operations/mixing/mix/mix'
import { modeLabels } from '../../operations/mixing/mix/mixModes'
import { placeNode } from '../../operations/geometry/place/place'
import { polarWrapNode } from '../../operations/geometry/polarWrap/polarWrap'
import { radialBlurNode } from '../../operations/blurs/radialBlur/radialBlur'
import { ellipseMaskNode } from '../../operations/masks/shapeMasks/ellipseMask'
import { turbulenceNode } from '../../operations/sources/turbulence/turbulence'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import type { Size } from '../../planes/grid'
import { steady } from '../../graph/steady'

/** The place that operations about a place share, photo px, and the size of the photo. */
interface Centre {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** One kind of operation: its words, its numbers, what it starts with for 6 megapixels, and what it does to a field. */
interface FieldOperation<K extends string, S extends z.ZodRawShape> {
  readonly kind: K
  readonly label: string
  readonly schema: z.ZodObject<{ kind: z.ZodLiteral<K> } & S>
  readonly start: z.infer<z.ZodObject<S>>
  apply(field: GraphNode, params: z.infer<z.ZodObject<S>>, centre: Centre): GraphNode
}

function operation<K extends string, S extends z.ZodRawShape>(
  kind: K,
  label: string,
  numbers: S,
  start: z.infer<z.ZodObject<S>>,
  apply: FieldOperation<K, S>['apply'],
): FieldOperation<K, S> {
  return {
    kind,
    label,
    schema: z.strictObject({ kind: z.literal(kind), ...numbers }) as unknown as FieldOperation<K, S>['schema'],
    start,
    apply,
  }
}

const radius = (label: string, usual: [number, number], hint?: string) =>
  lengthControl({ label, usual, hard: [0, 6000], step: 0.5, ...(hint ? { hint } : {}) })
const level = (label: string) => numberControl({ label, unit: '%', usual: [0, 100], hard: [-100, 200], step: 1 })

const blur = operation('blur', 'Blur', { sigma: radius('Radius', [0, 60]) }, { sigma: 4 }, (field, { sigma }) =>
  gaussianBlurNode(field, sigma),
)
const motion = operation(
  'motion',
  'Motion blur',
  { length: radius('Length', [0, 400]), angle: angleControl('Angle') },
  { length: 60, angle: 80 },
  (field, { length, angle }) => motionBlurNode(field, length, angle),
)
const zoom = operation(
  'zoom',
  'Zoom blur',
  { strength: radius('Strength', [0, 900]) },
  { strength: 200 },
  (field, { strength }, { x, y }) => radialBlurNode(field, { kind: 'zoom', x, y, strength, sides: 'outward' }),
)
const spin = operation(
  'spin',
  'Spin blur',
  { arc: numberControl({ label: 'Arc', unit: '°', usual: [0, 60], hard: [0, 360], step: 0.5 }) },
  { arc: 8 },
  (field, { arc }, { x, y }) => radialBlurNode(field, { kind: 'spin', x, y, strength: arc, sides: 'both' }),
)
const widest = lengthControl({ label: 'Radius', usual: [0, 60], hard: [0, 400], step: 0.5 })
const maximum = operation('maximum', 'Disc maximum', { radius: widest }, { radius: 14 }, (field, params) =>
  morphologyNode(field, params.radius),
)
const minimum = operation('minimum', 'Disc minimum', { radius: widest }, { radius: 4 }, (field, params) =>
  morphologyNode(field, -params.radius),
)
const levels = operation('levels', 'Levels', levelControls, { black: 30, white: 70, gamma: 1 }, (field, { black, white, gamma }) =>
  levelsNode(field, { black: black / 100, white: white / 100, gamma }),
)
const curve = operation(
  'curve',
  'Curve',
  { at0: level('At 0'), at25: level('At 25'), at50: level('At 50'), at75: level('At 75'), at100: level('At 100') },
  { at0: 0, at25: 15, at50: 50, at75: 85, at100: 100 },
  (field, params) =>
    curveNode(
      field,
      [params.at0, params.at25, params.at50, params.at75, params.at100].map((y, index) => ({ x: index / 4, y: y / 100 })),
    ),
)
const polar = operation(
  'polar',
  'Polar wrap',
  {
    reach: radius('Reach', [50, 3000]),
    turn: angleControl('Rotation'),
    overlap: percentControl('Overlap', 'How much of the strip its seam goes over into its beginning.'),
  },
  { reach: 1600, turn: 0, overlap: 12 },
  (field, params, { x, y }) => polarWrapNode(field, { x, y, reach: params.reach, turn: params.turn, overlap: params.overlap / 100 }),
)
const place = operation(
  'place',
  'Place',
  {
    enlarge: numberControl({ label: 'Enlarge', unit: '×', usual: [0.2, 5], hard: [0.02, 50], step: 0.05 }),
    turn: angleControl('Turn'),
    moveX: lengthControl({ label: 'Move sideways', usual: [-1500, 1500], hard: [-30000, 30000], step: 1 }),
    moveY: lengthControl({ label: 'Move down', usual: [-1500, 1500], hard: [-30000, 30000], step: 1 }),
  },
  { enlarge: 1.5, turn: 0, moveX: 0, moveY: 0 },
  (field, params, { x, y }) => placeNode(field, { ...params, centreX: x, centreY: y }),
)
const highPass = operation('highPass', 'High-pass', { radius: radius('Radius', [0.5, 60]) }, { radius: 8 }, (field, params) =>
  highPassNode(field, params.radius),
)
function inverted(mask: GraphNode): GraphNode {
  return combineMasksNode(undefined, mask, { join: 'subtract', strength: 1 })
}

/** Whole until `from` and nothing from `to` on, along a direction: 0 % where the photo begins and 100 % where it ends. */
function fadesBetween(turn: number, from: number, to: number, { width, height }: Size): GraphNode {
  const [dx, dy] = [Math.cos((turn * Math.PI) / 180), -Math.sin((turn * Math.PI) / 180)]
  const half = (Math.abs(dx) * width + Math.abs(dy) * height) / 2
  const at = (percent: number): [number, number] => {
    const way = half * (percent / 50 - 1)
    return [steady(width / 2 + dx * way), steady(height / 2 + dy * way)]
  }
  const [[x, y], [toX, toY]] = [at(from), at(to)]
  return lineMaskNode({ x, y, toX, toY })
}

const invert = operation('invert', 'Invert', {}, {}, (field) => inverted(scaleFieldNode(field, 1)))
const fade = operation(
  'fade',
  'Fade along a line',
  { turn: angleControl('Direction'), from: level('Full until'), to: level('Gone at') },
  { turn: 90, from: 30, to: 90 },
  (field, { turn, from, to }, { width, height }) => {
    const mask = fadesBetween(turn, Math.min(from, to), Math.max(from, to), { width, height })
    return joinFieldsNode([field, from <= to ? mask : inverted(mask)], 'product')
  },
)
const round = operation(
  'round',
  'Fade from the centre',
  { radius: radius('Radius', [20, 3000]), softness: percentControl('Softness') },
  { radius: 900, softness: 100 },
  (field, { radius: reach, softness }, { x, y }) =>
    joinFieldsNode(
      [field, ellipseMaskNode({ x, y, radiusX: Math.max(0.5, reach), radiusY: Math.max(0.5, reach), turn: 0, softness: softness / 100 })],
      'product',
    ),
)

const { normal, multiply, screen, overlay, darken, lighten, difference, exclusion, subtract } = modeLabels
/** Those of the mix modes that have a meaning without colours. */
const fieldModes = {
  ...{ normal, multiply, screen, overlay, darken, lighten, difference, exclusion, subtract },
  'color-dodge': modeLabels['color-dodge'],
  'color-burn': modeLabels['color-burn'],
  'hard-light': modeLabels['hard-light'],
  'soft-light': modeLabels['soft-light'],
  'plus-lighter': modeLabels['plus-lighter'],
  'linear-light': modeLabels['linear-light'],
}

/** Noise that an operation has of its own. */
const ownNoise = {
  type: choiceControl('Noise', { smooth: 'Smooth', billowed: 'Billowed' }),
  sizeX: lengthControl({ label: 'Across', usual: [2, 1500], hard: [0.5, 100000], step: 1, hint: 'At 100 000 it is the same all across.' }),
  sizeY: lengthControl({ label: 'Down', usual: [2, 1500], hard: [0.5, 100000], step: 1, hint: 'At 100 000 it is the same all down.' }),
  octaves: numberControl({ label: 'Octaves', unit: '', usual: [1, 8], hard: [1, 10], step: 1, whole: true }),
  seed: seedControl(),
}

const WITHOUT_END = 100000

function ownNoiseNode({ type, sizeX, sizeY, octaves, seed }: z.infer<z.ZodObject<typeof ownNoise>>): GraphNode {
  const frequency = (size: number): number => (size >= WITHOUT_END ? 0 : steady(1 / size))
  return turbulenceNode({ type, frequencyX: frequency(sizeX), frequencyY: frequency(sizeY), octaves, seed, channel: 'red', tile: null })
}

const second = operation(
  'second',
  'Another noise',
  { mode: choiceControl('Joined by', fieldModes), amount: percentControl('Amount'), ...ownNoise },
  { mode: 'multiply', amount: 100, type: 'smooth', sizeX: 400, sizeY: 400, octaves: 4, seed: 5 },
  (field, { mode, amount, ...noise }) => {
    const grey = (one: GraphNode): GraphNode => maskAsTonesNode(fieldAsMaskNode(one))
    const how = { mode, amount: amount / 100, linear: false, colour: [1, 1, 1] } as const
    return lightFieldNode(mixNode(grey(field), constantFieldNode(1), undefined, how, grey(ownNoiseNode(noise))))
  },
)

const bent = operation(
  'bend',
  'Bend by noise',
  {
    reach: lengthControl({
      label: 'Reach',
      usual: [0, 300],
      hard: [0, 1000],
      step: 1,
      hint: 'How far it is moved at most, to either side.',
    }),
    angle: angleControl('Direction'),
    ...ownNoise,
  },
  { reach: 120, angle: 0, type: 'smooth', sizeX: 400, sizeY: 400, octaves: 4, seed: 9 },
  (field, { reach, angle, ...noise }) => bendNode(field, ownNoiseNode(noise), { reach, angle }),
)
const fork = operation(
  'fork',
  'Fork',
  {
    from: level('Parts at'),
    to: level('Gone at'),
    aside: numberControl({
      label: 'Aside',
      unit: '%',
      usual: [-30, 30],
      hard: [-200, 200],
      step: 0.5,
      hint: 'Of the field: how far from the line at 50 % the arm is where it is gone.',
    }),
    width: numberControl({ label: 'Width', unit: '%', usual: [0, 100], hard: [0, 400], step: 1, hint: 'Of the arm where it begins.' }),
  },
  { from: 30, to: 70, aside: 10, width: 60 },
  (field, { from, to, aside, width }, size) =>
    // Downwards, as a bolt or a twig grows.
    forkNode(field, fadesBetween(-90, Math.min(from, to), Math.max(from, to), size), { aside: aside / 100, width: width / 100 }),
)
const line = operation(
  'line',
  'Line at 50 %',
  {
    width: numberControl({
      label: 'Width',
      unit: '%',
      usual: [0.02, 5],
      hard: [0.001, 100],
      step: 0.02,
      hint: 'How much of the field it covers: thin where the field is steep.',
    }),
  },
  { width: 0.5 },
  (field, { width }) => lineAtHalfNode(field, steady(width / 100)),
)
const halo = operation(
  'halo',
  'Halo',
  {
    sigma: radius('Radius', [1, 150]),
    strength: numberControl({
      label: 'Strength',
      unit: '%',
      usual: [0, 500],
      hard: [0, 5000],
      step: 5,
      hint: 'Of the blurred copy that is laid over it.',
    }),
  },
  { sigma: 40, strength: 150 },
  (field, { sigma, strength }) => {
    if (strength === 0) return field
    const light = levelsNode(gaussianBlurNode(field, sigma), { black: 0, white: steady(100 / strength), gamma: 1 })
    return joinFieldsNode([field, light], 'screen')
  },
)

/** What can be done to a field, in the order in which it is offered. */
export const fieldOperations = [
  blur,
  motion,
  zoom,
  spin,
  maximum,
  minimum,
  levels,
  curve,
  polar,
  place,
  second,
  bent,
  fork,
  line,
  halo,
  highPass,
  invert,
  fade,
  round,
] as const

export const fieldOperationSchema = z.discriminatedUnion('kind', [
  blur.schema,
  motion.schema,
  zoom.schema,
  spin.schema,
  maximum.schema,
  minimum.schema,
  levels.schema,
  curve.schema,
  polar.schema,
  place.schema,
  second.schema,
  bent.schema,
  fork.schema,
  line.schema,
  halo.schema,
  highPass.schema,
  invert.schema,
  fade.schema,
  round.schema,
])
export type FieldStep = z.infer<typeof fieldOperationSchema>

/** One step done to a field. */
export function applyStep(field: GraphNode, step: FieldStep, centre: Centre): GraphNode {
  const found = fieldOperations.find(({ kind }) => kind === step.kind) as unknown as FieldOperation<string, z.ZodRawShape> | undefined
  if (!found) throw new Error(`There is no operation “${step.kind}” on fields.`)
  return found.apply(field, step, centre)
}

/** An operation as it starts, its lengths fitted to the photo. */
export function newFieldStep(kind: FieldStep['kind'], photo: Size): FieldStep {
  const found = fieldOperations.find((one) => one.kind === kind)
  if (!found) throw new Error(`There is no operation “${kind}” on fields.`)
  const fitted = fitLengths<FieldStep>(fieldOperationSchema, { kind, ...found.start } as FieldStep, evenFit(lengthFactor(photo)))
  const rounded = Object.entries(fitted).map(([key, value]: [string, unknown]) => [
    key,
    typeof value === 'number' ? Number(value.toFixed(2)) : value,
  ])
  return fieldOperationSchema.parse(Object.fromEntries(rounded))
}
