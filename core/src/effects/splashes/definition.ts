import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { steady } from '../../graph/steady'
import { lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { degreesToRadians } from '../../model/degrees'
import { assumedHorizon } from '../../model/marks'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { combineMasksNode } from '../../operations/masks/combineMasks/combineMasks'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { streaksNode } from '../../operations/sources/streaks/streaks'
import { boundedSpecks } from '../boundedSpecks'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { layerSeed } from '../layerSeed'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  density: numberControl({
    label: 'Density',
    unit: '',
    usual: [0, 100],
    hard: [0, 1000],
    step: 1,
    hint: 'Splashes on the nearest ground, in tens.',
  }),
  height: lengthControl({
    label: 'Height',
    usual: [4, 80],
    hard: [0.5, 1000],
    step: 0.5,
    hint: 'Of the nearest; they get smaller towards the horizon.',
  }),
  droplets: percentControl('Droplets', 'What is thrown up about each splash.'),
  ripples: percentControl('Ripples', 'Rings on the wet ground, seen from the side.'),
  seed: seedControl(),
})

const shape = z.strictObject({
  into: percentControl('Into the distance', 'How far towards the horizon they are seen.'),
  blur: lengthControl({ label: 'Blur', usual: [0, 5], hard: [0, 200], step: 0.1 }),
})

const controls = z.strictObject({ pattern, shape })
export type SplashControls = z.infer<typeof controls>

/** Where rain strikes the ground. */
export const splashes = defineEffect({
  kind: 'splashes',
  family: 'weather',
  label: 'Splashes',
  place: 'near',
  shownPart: 0.7,
  controls,
  dials: ['pattern.density', 'pattern.height', 'pattern.droplets', 'pattern.ripples', 'shape.into'],
  startingLooks,
  inWords: (_, { marks }) =>
    assumedHorizon(marks, { height: 1 })
      ? ''
      : 'No horizon is known: they thin out upwards. Draw it in Marks, so that they lie on the ground.',
  summary: ({ pattern, shape }) => ({
    pattern: `up to ${Math.round(pattern.height)} px high, seed ${pattern.seed}`,
    shape: shape.blur > 0 ? `blur ${Number(shape.blur.toFixed(1))} px` : 'sharp',
  }),
  pattern: ({ pattern }, scene) => inBands(pattern, { into: 100, blur: 0 }, scene),
  contribute: ({ pattern, shape }, scene) => light(gaussianBlurNode(inBands(pattern, shape, scene), shape.blur)),
})

/** How much smaller those of a band are than the nearest ones, for each band. */
const BANDS = [1, 0.5, 0.25, 0.12]
/** Without a horizon the ground is taken to begin at this part of the height, and to come up softly. */
const LIKELY_GROUND = 0.3
/** In a loop there are so many sets of splashes, of which two at most are seen. */
const SETS = 4

/** The ground in bands, each with splashes of one size. */
function inBands(pattern: SplashControls['pattern'], { into, blur }: SplashControls['shape'], scene: EffectScene): GraphNode {
  const horizon = assumedHorizon(scene.marks, scene)
  const level = horizon ?? { y: LIKELY_GROUND * scene.height, turn: 0 }
  const depth = Math.max(0.15 * scene.height, scene.height - level.y)
  const radians = degreesToRadians(level.turn)
  /** The line on the ground on which things look so large. */
  const at = (size: number): { readonly x: number; readonly y: number } => ({
    x: steady(scene.width / 2 + size * depth * Math.sin(radians)),
    y: steady(level.y + size * depth * Math.cos(radians)),
  })
  /** Open below the line of `to`, shut above that of `from`. */
  const below = (from: number, to: number): GraphNode => {
    const [open, shut] = [at(to), at(from)]
    return lineMaskNode({ x: open.x, y: open.y, toX: shut.x, toY: shut.y })
  }
  // As sharp as the eye sees them, however small; what is smaller than the blur is not drawn.
  const seen = BANDS.filter((size) => size === 1 || size * pattern.height > 0.3 * blur)
  const bands = seen.map((size, index) => {
    const further = BANDS[index + 1] ?? 0.04
    const nearer = BANDS[index - 1]
    const rises = below(further, size)
    const mask = nearer === undefined ? rises : combineMasksNode(rises, below(size, nearer), { join: 'subtract', strength: 1 })
    // Seen over the whole width of a level that leans.
    const leans = scene.width * Math.abs(Math.tan(radians))
    const rows = { from: at(further).y - leans, to: (nearer === undefined ? scene.height : at(nearer).y) + leans }
    const strength = index === 0 ? 1 : Math.min(1, Math.max(0, (into / 100) * (seen.length - 1) - (index - 1)))
    return joinFieldsNode([times(ofOneSize(pattern, size, level.turn, rows, scene), strength), scaleFieldNode(mask, 1)], 'product')
  })
  const all = sumFieldsNode(bands)
  if (horizon) return all
  return joinFieldsNode([all, scaleFieldNode(below(0, 1), 1)], 'product')
}

function times(field: GraphNode, factor: number): GraphNode {
  return factor === 1 ? field : scaleFieldNode(field, factor)
}

/** Jets, droplets and ripples of splashes of one size. */
function ofOneSize(
  { density, height, droplets, ripples, seed }: SplashControls['pattern'],
  size: number,
  turn: number,
  rows: { readonly from: number; readonly to: number },
  scene: EffectScene,
): GraphNode {
  const high = height * size
  // The same ground is seen as a smaller part of the photo: what lies on it is as much denser.
  const spacing = size * Math.sqrt((scene.width * scene.height) / Math.max(10 * density, 0.01))
  const layer = (
    index: number,
    set: number,
    more: number,
    sigma: number,
    length: number,
    upright: boolean,
    brightness: number,
  ): GraphNode =>
    streaksNode({
      seed: layerSeed(seed, 41 + Math.round(100 * size), 11 * index + set),
      ...boundedSpecks({ spacing: spacing / Math.sqrt(Math.max(1e-3, more)), sigma: sigma * high, blur: 0, length: length * high }, scene),
      lengthVariation: 0.7,
      taper: 0.8,
      angle: upright ? 90 : turn,
      bend: upright ? 28 : 0,
      gustScale: Math.max(1, 0.8 * spacing),
      brightness,
      brightnessVariation: 0.6,
      shiftX: 0,
      shiftY: 0,
      turn: 0,
      centreX: scene.width / 2,
      centreY: scene.height / 2,
      rows: { from: steady(rows.from), to: steady(rows.to) },
    })
  const sets = Array.from({ length: SETS }, (_, set) => {
    // How far the moment of this set is away, as parts of the loop; at 0 the first is seen alone.
    const off = Math.abs(((scene.phase - set / SETS + 1.5) % 1) - 0.5)
    return { set, weight: Math.max(0, 1 - SETS * off) }
  }).filter(({ weight }) => weight > 0)
  return sumFieldsNode(
    sets.map(({ set, weight }) =>
      times(
        sumFieldsNode([
          layer(0, set, 1, 0.06, 0.7, true, 1.2),
          ...(droplets > 0 ? [layer(1, set, (6 * droplets) / 100, 0.05, 0.1, true, 1.3)] : []),
          ...(ripples > 0 ? [layer(2, set, 1.2, 0.04, 0.9, false, (0.9 * ripples) / 100)] : []),
        ]),
        weight,
      ),
    ),
  )
}
