import { z } from 'zod'
import { lengthControl, levelControls, numberControl, seedControl } from '../../model/controls'
import { within180 } from '../../model/degrees'
import { turnedPlace } from '../../model/patternBox'
import { levelsNode } from '../../operations/fields/levels/levels'
import { streaksNode } from '../../operations/sources/streaks/streaks'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import type { GraphNode } from '../../graph/node'
import type { Size } from '../../planes/grid'
import { rainInWords } from '../../weather/rainDrops'
import { boundedSpecks, boundedTogether } from '../boundedSpecks'
import { layerSeed } from '../layerSeed'
import { appliesToCamera, cameraControls, shutterInWords } from '../camera'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { fallLoop, layerDistances } from '../fallLoop'
import { placingBox, placingControls } from '../placing'
import { cameraDrops, rainVeil } from './cameraDrops'
import { startingLooks } from './startingLooks'

const percent = { unit: '%', hard: [0, 100], usual: [0, 100], step: 1 } as const

const layer = z.strictObject({
  drops: numberControl({
    label: 'Drops',
    unit: '%',
    usual: [0, 300],
    hard: [0, 2000],
    step: 1,
    hint: 'Part of Density that falls in this layer.',
  }),
  size: numberControl({ label: 'Size', unit: '×', usual: [0.3, 6], hard: [0.1, 20], step: 0.05 }),
  stretch: numberControl({
    label: 'Stretch',
    unit: '×',
    usual: [0.3, 6],
    hard: [0, 20],
    step: 0.05,
    hint: 'Streak length against Length.',
  }),
  brightness: numberControl({ label: 'Brightness', ...percent, hard: [0, 400] }),
  shiftX: lengthControl({ label: 'Shift sideways', usual: [-500, 500], hard: [-10000, 10000], step: 1 }),
  shiftY: lengthControl({ label: 'Shift down', usual: [-500, 500], hard: [-10000, 10000], step: 1 }),
})

const pattern = z.strictObject({
  density: numberControl({
    label: 'Density',
    unit: '',
    usual: [0, 100],
    hard: [0, 400],
    step: 1,
    hint: 'Hundreds of drops in the frame, for a layer at 100 %.',
  }),
  layers: numberControl({
    label: 'Depth layers',
    unit: '',
    usual: [1, 4],
    hard: [1, 4],
    step: 1,
    whole: true,
    hint: 'From far to near; the near drops are larger, longer and softer.',
  }),
  dropSize: lengthControl({
    label: 'Drop size',
    usual: [0.3, 4],
    hard: [0.2, 60],
    step: 0.05,
    hint: 'Standard deviation of the round speck that is smeared.',
  }),
  evenness: numberControl({ label: 'Evenness', ...percent, hint: 'At 100 % all drops of a layer are equally bright.' }),
  seed: seedControl(),
  ...cameraControls,
  rate: numberControl({
    label: 'Rainfall',
    unit: 'mm/h',
    usual: [0.2, 60],
    hard: [0, 300],
    step: 0.1,
    hint: 'Drizzle below 0.5, moderate from 2.5, heavy from 10, violent from 50.',
  }).default(8),
  perLayer: z.array(layer).length(4),
})

const shape = z.strictObject({
  length: lengthControl({ label: 'Length', usual: [0, 120], hard: [0, 1500], step: 0.5 }),
  angle: numberControl({
    label: 'Direction',
    unit: '°',
    usual: [45, 135],
    hard: [-360, 360],
    step: 0.5,
    hint: '90° falls straight down; below 90° the streaks lean to the right.',
  }),
  windVariation: numberControl({
    label: 'Wind variation',
    ...percent,
    hint: 'Gusts bend the fall, at 100 % by up to 15°.',
  }),
  lengthVariation: numberControl({ label: 'Length variation', ...percent }),
  taper: numberControl({ label: 'Soft ends', ...percent, usual: [0, 40] }),
  blur: lengthControl({ label: 'Blur', usual: [0, 10], hard: [0, 300], step: 0.1 }),
  ...levelControls,
  enlarge: placingControls.enlarge,
  turn: numberControl({ label: 'Rotation', unit: '°', usual: [-45, 45], hard: [-360, 360], step: 0.5 }),
  moveX: placingControls.moveX,
  moveY: placingControls.moveY,
})

const controls = z.strictObject({ pattern, shape })
export type RainControls = z.infer<typeof controls>

const BY_EYE = [
  ...['density', 'layers', 'dropSize', 'evenness', 'perLayer'].map((key) => `pattern.${key}`),
  ...['length', 'lengthVariation', 'blur', 'enlarge', 'turn', 'moveX', 'moveY'].map((key) => `shape.${key}`),
]
const GREATEST_BEND = 15
const GUST_IN_LENGTHS = 9

const placing = placingBox<RainControls>(({ pattern }) => pattern.by === 'eye')

function middleOf({ width, height }: Size): { readonly x: number; readonly y: number } {
  return { x: width / 2, y: height / 2 }
}

export const rain = defineEffect({
  kind: 'rain',
  family: 'weather',
  label: 'Rain',
  place: 'near',
  shownPart: 0.4,
  controls,
  dials: ['pattern.density', 'pattern.rate', 'shape.length', 'pattern.shutter', 'shape.angle', 'shape.windVariation', 'pattern.layers'],
  box: {
    paths: ['enlarge', 'turn', 'moveX', 'moveY'].map((key) => `shape.${key}`),
    lacks: ['stretch'],
    read(controls, scene) {
      const placed = placing.read(controls, scene)
      const { turn } = controls.shape
      return placed && { ...placed, ...turnedPlace(middleOf(scene), turn, placed), turn }
    },
    write(controls, placed, scene) {
      const still = turnedPlace(middleOf(scene), placed.turn, { x: 0, y: 0 })
      placing.write(controls, { ...placed, x: placed.x - still.x, y: placed.y - still.y }, scene)
      controls.shape.turn = placed.turn
    },
  },
  // Streaks lie along the angle; what falls points down along it.
  direction: { label: 'Direction of fall', path: 'shape.angle', arrow: (angle) => angle + 180, value: (arrow) => within180(arrow - 180) },
  applies: (path, { pattern }) => appliesToCamera(path, pattern.by, BY_EYE, 'pattern.rate'),
  inWords: ({ pattern }) =>
    pattern.by === 'camera'
      ? `${rainInWords(pattern.rate)} at ${shutterInWords(pattern.shutter)} with ${Math.round(pattern.focalLength)} mm`
      : '',
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern:
      pattern.by === 'camera'
        ? `${rainInWords(pattern.rate)}, ${Number(pattern.rate.toPrecision(2))} mm/h`
        : `specks in ${pattern.layers} ${pattern.layers === 1 ? 'layer' : 'layers'}, seed ${pattern.seed}`,
    shape:
      pattern.by === 'camera'
        ? `falling at ${Math.round(shape.angle)}° for ${shutterInWords(pattern.shutter)}`
        : `smear ${Math.round(shape.length)} px at ${Math.round(shape.angle)}°`,
  }),
  pattern: (controls, scene) =>
    controls.pattern.by === 'camera'
      ? cameraDrops(controls, scene, false)
      : drops(controls, scene, { length: 0, blur: 0, enlarge: 100, turn: 0, moveX: 0, moveY: 0 }),
  contribute(controls, scene) {
    const { pattern, shape } = controls
    const levels = { black: shape.black / 100, white: shape.white / 100, gamma: shape.gamma }
    if (pattern.by === 'eye') return light(levelsNode(drops(controls, scene, shape), levels))
    return light(sumFieldsNode([levelsNode(cameraDrops(controls, scene, true), levels), rainVeil(controls, scene)]))
  },
})

type Shaping = Pick<RainControls['shape'], 'length' | 'blur' | 'enlarge' | 'turn' | 'moveX' | 'moveY'>

/** All layers as specks, each of them smeared, blurred and placed as `shaping` says. */
function drops({ pattern, shape }: RainControls, scene: EffectScene, shaping: Shaping): GraphNode {
  const enlarge = shaping.enlarge / 100
  const layers = pattern.perLayer.slice(0, pattern.layers).map((layer, index) => {
    const count = pattern.density * 100 * (layer.drops / 100)
    const drawn = boundedSpecks(
      {
        spacing: enlarge * Math.sqrt((scene.width * scene.height) / Math.max(count, 0.01)),
        sigma: pattern.dropSize * layer.size * enlarge,
        blur: shaping.blur * enlarge,
        length: shaping.length * layer.stretch * enlarge,
      },
      scene,
    )
    return {
      seed: layerSeed(pattern.seed, 16, index),
      ...drawn,
      lengthVariation: shape.lengthVariation / 100,
      taper: shape.taper / 100,
      angle: shape.angle,
      bend: (GREATEST_BEND * shape.windVariation) / 100,
      gustScale: Math.max(shape.length, 20) * layer.stretch * GUST_IN_LENGTHS * enlarge,
      brightness: layer.brightness / 100,
      brightnessVariation: 1 - pattern.evenness / 100,
      shiftX: layer.shiftX * enlarge + shaping.moveX,
      shiftY: layer.shiftY * enlarge + shaping.moveY,
      turn: shaping.turn,
      centreX: scene.width / 2,
      centreY: scene.height / 2,
      loop: fallLoop(drawn.spacing, shape.angle, scene, index + 1),
      ...layerDistances(pattern, index, pattern.layers),
    }
  })
  return streaksNode(boundedTogether(layers), scene.knownDistance)
}
