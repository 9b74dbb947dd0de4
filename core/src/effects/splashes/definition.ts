import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { steady } from '../../graph/steady'
import { lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { degreesToRadians } from '../../model/degrees'
import { assumedHorizon } from '../../model/marks'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { streaksNode, type StreakLayer } from '../../operations/sources/streaks/streaks'
import { boundedSpecks, boundedTogether } from '../boundedSpecks'
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

/** The ground in bands, each with splashes of one size, brightest on a line on the ground and gone on those of the bands beside it. */
function inBands(pattern: SplashControls['pattern'], { into, blur }: SplashControls['shape'], scene: EffectScene): GraphNode {
  const horizon = assumedHorizon(scene.marks, scene)
  const level = horizon ?? { y: LIKELY_GROUND * scene.height, turn: 0 }
  const depth = Math.max(0.15 * scene.height, scene.height - level.y)
  const radians = degreesToRadians(level.turn)
  const [downX, downY] = [steady(Math.sin(radians)), steady(Math.cos(radians))]
  /** How far down lies the line on the ground on which things look so large. */
  const at = (size: number): number => steady(0.5 * scene.width * downX + level.y * downY + size * depth)
  // Seen over the whole width of a level that leans.
  const leans = scene.width * Math.abs(Math.tan(radians))
  const heightOf = (size: number): number => level.y + size * depth * downY
  // As sharp as the eye sees them, however small; what is smaller than the blur is not drawn.
  const seen = BANDS.filter((size) => size === 1 || size * pattern.height > 0.3 * blur)
  const layers = seen.flatMap((size, index) => {
    const further = BANDS[index + 1] ?? 0.04
    const nearer = BANDS[index - 1]
    const band = {
      x: downX,
      y: downY,
      from: at(further),
      full: at(size),
      to: nearer === undefined ? null : at(nearer),
      rows: { from: steady(heightOf(further) - leans), to: steady((nearer === undefined ? scene.height : heightOf(nearer)) + leans) },
    }
    const strength = index === 0 ? 1 : Math.min(1, Math.max(0, (into / 100) * (seen.length - 1) - (index - 1)))
    return strength === 0 ? [] : ofOneSize(pattern, size, level.turn, strength, scene).map((layer) => ({ ...layer, band }))
  })
  const all = streaksNode(boundedTogether(layers))
  if (horizon) return all
  const softly = lineMaskNode({ x: scene.width / 2, y: heightOf(1), toX: scene.width / 2, toY: level.y })
  return joinFieldsNode([all, scaleFieldNode(softly, 1)], 'product')
}

/** Jets, droplets and ripples of splashes of one size. */
function ofOneSize(
  { density, height, droplets, ripples, seed }: SplashControls['pattern'],
  size: number,
  turn: number,
  strength: number,
  scene: EffectScene,
): StreakLayer[] {
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
  ): StreakLayer => ({
    seed: layerSeed(seed, 41 + Math.round(100 * size), 11 * index + set),
    ...boundedSpecks({ spacing: spacing / Math.sqrt(Math.max(1e-3, more)), sigma: sigma * high, blur: 0, length: length * high }, scene),
    lengthVariation: 0.7,
    taper: 0.8,
    angle: upright ? 90 : turn,
    bend: upright ? 28 : 0,
    gustScale: Math.max(1, 0.8 * spacing),
    brightness: steady(brightness),
    brightnessVariation: 0.6,
    shiftX: 0,
    shiftY: 0,
    turn: 0,
    centreX: scene.width / 2,
    centreY: scene.height / 2,
  })
  const sets = Array.from({ length: SETS }, (_, set) => {
    // How far the moment of this set is away, as parts of the loop; at 0 the first is seen alone.
    const off = Math.abs(((scene.phase - set / SETS + 1.5) % 1) - 0.5)
    return { set, weight: strength * Math.max(0, 1 - SETS * off) }
  }).filter(({ weight }) => weight > 0)
  return sets.flatMap(({ set, weight }) => [
    layer(0, set, 1, 0.06, 0.7, true, 1.2 * weight),
    ...(droplets > 0 ? [layer(1, set, (6 * droplets) / 100, 0.05, 0.1, true, 1.3 * weight)] : []),
    ...(ripples > 0 ? [layer(2, set, 1.2, 0.04, 0.9, false, (0.9 * weight * ripples) / 100)] : []),
  ])
}
