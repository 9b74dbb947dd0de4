import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { lengthControl, levelControls, numberControl, percentControl, seedControl } from '../../model/controls'
import { within180 } from '../../model/degrees'
import { discsNode } from '../../operations/sources/discs/discs'
import { levelsNode } from '../../operations/fields/levels/levels'
import { streaksNode } from '../../operations/sources/streaks/streaks'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { snowInWords } from '../../weather/snowFlakes'
import { boundedDiscs, boundedSpecks } from '../boundedSpecks'
import { layerSeed } from '../layerSeed'
import { appliesToCamera, cameraControls, shutterInWords } from '../camera'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { fallLoop, layerDistances } from '../fallLoop'
import { placingBox, placingControls } from '../placing'
import { cameraFlakes, snowVeil } from './cameraFlakes'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  density: numberControl({
    label: 'Density',
    unit: '',
    usual: [0, 100],
    hard: [0, 400],
    step: 1,
    hint: 'Hundreds of flakes in the frame, in the middle distance.',
  }),
  flakeSize: lengthControl({
    label: 'Flake size',
    usual: [0.5, 8],
    hard: [0.2, 100],
    step: 0.1,
    hint: 'Radius of a flake in the middle distance.',
  }),
  layers: numberControl({
    label: 'Depth layers',
    unit: '',
    usual: [1, 4],
    hard: [1, 4],
    step: 1,
    whole: true,
    hint: 'Far snow, two layers of flakes, and large soft ones in front.',
  }),
  focus: percentControl('Out of focus', 'How much larger and softer the nearest flakes are.'),
  sizeVariation: percentControl('Size variation'),
  seed: seedControl(),
  ...cameraControls,
  snowfall: numberControl({
    label: 'Snowfall',
    unit: 'mm/h',
    usual: [0.1, 5],
    hard: [0, 50],
    step: 0.1,
    hint: 'As water: light snow below 0.5, heavy from 2.',
  }).default(1),
})

const shape = z.strictObject({
  wind: numberControl({
    label: 'Wind',
    unit: '°',
    usual: [-80, 80],
    hard: [-90, 90],
    step: 1,
    hint: '0 falls straight down; above 0 the wind blows from the right.',
  }),
  drift: percentControl('Drift', 'How far single flakes stray from the common way.'),
  length: lengthControl({
    label: 'Motion',
    usual: [0, 60],
    hard: [0, 1500],
    step: 0.5,
    hint: 'Smear of a flake in the middle distance.',
  }),
  ...levelControls,
  ...placingControls,
})

const controls = z.strictObject({ pattern, shape })
export type SnowControls = z.infer<typeof controls>

/** Size, number, brightness of a layer against the middle distance. */
const flakeLayers = [
  { size: 0.42, drops: 5, brightness: 0.5 },
  { size: 1, drops: 1, brightness: 0.85 },
  { size: 1.9, drops: 0.24, brightness: 0.95 },
] as const

const BY_EYE = [
  ...['density', 'flakeSize', 'layers', 'focus'].map((key) => `pattern.${key}`),
  'shape.length',
  ...['enlarge', 'moveX', 'moveY'].map((key) => `shape.${key}`),
]
const GREATEST_BEND = 24

export const snow = defineEffect({
  kind: 'snow',
  family: 'weather',
  label: 'Snow',
  place: 'near',
  shownPart: 0.4,
  controls,
  dials: [
    ...['pattern.density', 'pattern.snowfall', 'pattern.flakeSize', 'pattern.focus'],
    ...['pattern.aperture', 'pattern.shutter', 'shape.wind', 'shape.drift'],
  ],
  box: placingBox<SnowControls>(({ pattern }) => pattern.by === 'eye'),
  // Flakes fall along a line that leans as far as the wind.
  direction: { label: 'Direction of fall', path: 'shape.wind', arrow: (wind) => 270 - wind, value: (arrow) => within180(270 - arrow) },
  applies: (path, { pattern }) =>
    // Only the fourth layer lies before the lens.
    path === 'pattern.focus' && pattern.layers < 4 ? false : appliesToCamera(path, pattern.by, BY_EYE, 'pattern.snowfall'),
  inWords: ({ pattern }) =>
    pattern.by === 'camera' ? `${snowInWords(pattern.snowfall)} at ${shutterInWords(pattern.shutter)}, f/${pattern.aperture}` : '',
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern:
      pattern.by === 'camera'
        ? `${snowInWords(pattern.snowfall)}, ${Number(pattern.snowfall.toPrecision(2))} mm/h`
        : `flakes in ${pattern.layers} ${pattern.layers === 1 ? 'layer' : 'layers'}, seed ${pattern.seed}`,
    shape:
      shape.length > 0 && pattern.by === 'eye'
        ? `smear ${Math.round(shape.length)} px, wind ${Math.round(shape.wind)}°`
        : `wind ${Math.round(shape.wind)}°`,
  }),
  pattern: (controls, scene) => fallen(controls, scene, false),
  contribute(controls, scene) {
    const { black, white, gamma } = controls.shape
    const flakes = levelsNode(fallen(controls, scene, true), { black: black / 100, white: white / 100, gamma })
    return light(controls.pattern.by === 'camera' ? sumFieldsNode([flakes, snowVeil(controls, scene)]) : flakes)
  },
})

function fallen(controls: SnowControls, scene: EffectScene, moving: boolean): GraphNode {
  if (controls.pattern.by === 'camera') return cameraFlakes(controls, scene, moving)
  return flakes(controls, scene, moving ? controls.shape.length : 0)
}

/** All layers, each with its own seed: fine far snow and flakes as soft specks, the nearest as discs. */
function flakes({ pattern, shape }: SnowControls, scene: EffectScene, length: number): GraphNode {
  const angle = 90 - shape.wind
  const enlarge = shape.enlarge / 100
  const spacingFor = (part: number): number =>
    enlarge * Math.sqrt((scene.width * scene.height) / Math.max(pattern.density * 100 * part, 0.01))
  const layers = flakeLayers.slice(0, pattern.layers).map(({ size, drops, brightness }, index) => {
    // A soft speck is as wide as a disc of twice its standard deviation.
    const specks = { spacing: spacingFor(drops), sigma: (enlarge * (pattern.flakeSize * size)) / 2, blur: 0 }
    const drawn = boundedSpecks({ ...specks, length: enlarge * Math.max(length * size, 0.2 * pattern.flakeSize * size) }, scene)
    return {
      seed: layerSeed(pattern.seed, 16, 7 * index + 3),
      ...drawn,
      lengthVariation: 0.4 * (pattern.sizeVariation / 100),
      taper: 0.1,
      angle,
      bend: (GREATEST_BEND * shape.drift) / 100,
      gustScale: enlarge * (Math.max(60, pattern.flakeSize * 40) * size),
      // A flake that moves spreads its light along the way.
      brightness: brightness * Math.max(0.3, (2 * pattern.flakeSize) / (2 * pattern.flakeSize + 0.5 * length)),
      brightnessVariation: 0.3 + 0.6 * (pattern.sizeVariation / 100),
      shiftX: 41 * index * enlarge + shape.moveX,
      shiftY: -23 * index * enlarge + shape.moveY,
      turn: 0,
      centreX: scene.width / 2,
      centreY: scene.height / 2,
      loop: fallLoop(drawn.spacing, angle, scene, index + 1),
      ...layerDistances(pattern, index, pattern.layers),
    }
  })
  const soft = streaksNode(layers, scene.knownDistance)
  return pattern.layers > 3 ? sumFieldsNode([soft, nearestFlakes({ pattern, shape }, scene, spacingFor(0.014), length, angle)]) : soft
}

/** A few flakes before the lens, out of focus: large, faint, with a soft rim. */
function nearestFlakes({ pattern, shape }: SnowControls, scene: EffectScene, spacing: number, length: number, angle: number): GraphNode {
  const focus = pattern.focus / 100
  const enlarge = shape.enlarge / 100
  const drawn = boundedDiscs(
    { spacing, radius: enlarge * (pattern.flakeSize * (2.4 + 8 * focus)), length: enlarge * (length * 2.6) },
    scene,
  )
  const params = {
    seed: layerSeed(pattern.seed, 16, 29),
    ...drawn,
    radiusVariation: 0.25 + 0.4 * (pattern.sizeVariation / 100),
    softness: 0.75 - 0.35 * focus,
    rim: 0.3 * focus,
    angle,
    brightness: 0.8 - 0.55 * focus,
    brightnessVariation: 0.6,
    shiftX: shape.moveX,
    shiftY: shape.moveY,
    loop: fallLoop(drawn.spacing, angle, scene, 4),
    ...layerDistances(pattern, 3, 4),
  }
  return discsNode(params, scene.knownDistance)
}
