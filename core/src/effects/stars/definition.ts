import { z } from 'zod'
import { COUNT_GROWTH, starsPerSquareDegree, trailDegrees } from '../../astronomy/stars'
import { mapRgb, type Rgb } from '../../colour/hex'
import type { GraphNode } from '../../graph/node'
import { angleControl, lengthControl, numberControl, percentControl, placeControl, seedControl } from '../../model/controls'
import { cloudMaskNode } from '../../operations/masks/cloudMask/cloudMask'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { bandMaskNode } from '../../operations/masks/shapeMasks/bandMask'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { starColoursNode, starsNode, type StarParameters } from '../../operations/sources/stars/stars'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { focalPixels, pinpointSeconds } from '../../optics/lens'
import { steady } from '../../graph/steady'
import { leastSpacing } from '../boundedSpecks'
import { horizonOf } from '../../model/marks'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { layerSeed } from '../layerSeed'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  density: numberControl({
    label: 'Density',
    unit: '%',
    usual: [0, 300],
    hard: [0, 2000],
    step: 1,
    hint: 'At 100 % as many stars as the real sky has.',
  }),
  faintest: numberControl({
    label: 'Faintest',
    unit: '',
    usual: [3, 9.5],
    hard: [-1, 11],
    step: 0.1,
    hint: 'Magnitude of the faintest stars: the eye sees to 6, a camera to 9.',
  }),
  white: numberControl({
    label: 'White from',
    unit: '',
    usual: [0, 7],
    hard: [-3, 10],
    step: 0.1,
    hint: 'Magnitude of a star whose middle is just white; brighter ones grow.',
  }),
  size: lengthControl({ label: 'Size', usual: [0.5, 3], hard: [0.3, 20], step: 0.05, hint: 'Standard deviation of a star’s middle.' }),
  colour: percentControl('Colour', 'How much the stars show their temperatures.'),
  halo: percentControl('Halo'),
  spikes: percentControl('Spikes', 'Four points on the brightest stars.'),
  focalLength: numberControl({
    label: 'Focal length',
    unit: 'mm',
    usual: [12, 135],
    hard: [4, 1200],
    step: 1,
    hint: 'For a frame 36 mm wide: how much sky the photo shows.',
  }),
  seed: seedControl(),
  band: percentControl('Milky Way', 'How much denser and brighter the galaxy is than the rest.'),
  bandX: placeControl('x', 'Milky Way'),
  bandY: placeControl('y', 'Milky Way'),
  bandTurn: angleControl('Band slope'),
  bandWidth: lengthControl({ label: 'Band width', usual: [100, 1200], hard: [5, 20000], step: 10 }),
})

const shape = z.strictObject({
  trails: numberControl({
    label: 'Trails',
    unit: 'min',
    usual: [0, 180],
    hard: [0, 1440],
    step: 0.5,
    hint: 'While the shutter is open the sky turns by 15.041° an hour.',
  }),
  poleX: placeControl('x', 'Pole'),
  poleY: placeControl('y', 'Pole'),
  thinning: percentControl('Thinning', 'How much the air low down dims the stars; 50 is a clear night.'),
  twinkle: percentControl('Twinkle', 'How much the stars flicker while the scene plays.'),
})

const controls = z.strictObject({ pattern, shape })
export type StarControls = z.infer<typeof controls>

const CLOUD_COLOUR: Rgb = [0.86, 0.83, 0.88]
/** Magnitudes for a thickness of air on a clear night (common practice, no source). */
const CLEAR_NIGHT = 0.25
const TRAILS_MEAN = 0.2

export const stars = defineEffect({
  kind: 'stars',
  family: 'weather',
  label: 'Stars',
  ownColours: 'of their temperatures; the band in the tint',
  place: 'sky',
  shownPart: 0.5,
  controls,
  dials: ['pattern.density', 'pattern.faintest', 'pattern.size', 'pattern.colour', 'pattern.band', 'shape.trails'],
  places: [
    { label: 'Pole of the sky', x: 'shape.poleX', y: 'shape.poleY' },
    { label: 'Middle of the band', x: 'pattern.bandX', y: 'pattern.bandY' },
  ],
  applies: (path, { pattern, shape }) => {
    if (path.startsWith('pattern.band') && path !== 'pattern.band') return pattern.band > 0
    if (path === 'pattern.spikes') return shape.trails <= TRAILS_MEAN
    if (path.startsWith('shape.pole')) return shape.trails > TRAILS_MEAN
    return true
  },
  startingLooks,
  inWords: ({ pattern, shape }) => {
    const longest = pinpointSeconds(pattern.focalLength)
    const length = trailDegrees(shape.trails)
    return shape.trails > TRAILS_MEAN
      ? `The sky turns ${Number(length.toFixed(1))}° in ${Number(shape.trails.toFixed(1))} min`
      : `Points, as in ${Math.round(longest)} s and less at ${Math.round(pattern.focalLength)} mm`
  },
  summary: ({ pattern, shape }) => ({
    pattern: `to magnitude ${Number(pattern.faintest.toFixed(1))}, seed ${pattern.seed}`,
    shape: shape.trails > TRAILS_MEAN ? `trails of ${Math.round(shape.trails)} min` : 'points',
  }),
  pattern: (controls, scene) => sky(controls, scene, { ...controls.shape, trails: 0 }),
  contribute(controls, scene, tint) {
    const between = mapRgb(CLOUD_COLOUR, (channel, index) => channel * (controls.pattern.band > 0 ? tint[index] : 1))
    const params = starParameters(controls, scene, controls.shape)
    const glow = controls.pattern.band > 0 ? galaxy(controls, scene) : undefined
    const colours = (): GraphNode => starColoursNode(params, { saturation: controls.pattern.colour / 100, between }, glow)
    return light(sky(controls, scene, controls.shape), colours)
  },
})

function sky(controls: StarControls, scene: EffectScene, shape: StarControls['shape']): GraphNode {
  const points = starsNode(starParameters(controls, scene, shape))
  return controls.pattern.band > 0 ? sumFieldsNode([points, galaxy(controls, scene)]) : points
}

function starParameters({ pattern }: StarControls, scene: EffectScene, shape: StarControls['shape']): StarParameters {
  const focal = focalPixels(pattern.focalLength, scene.width)
  const pixelsPerDegree = (focal * Math.PI) / 180
  const density = (pattern.density / 100) * (starsPerSquareDegree(pattern.faintest) / pixelsPerDegree ** 2)
  const band = (3.5 * pattern.band) / 100
  const level = horizonOf(scene.marks) ?? { y: scene.height, turn: 0 }
  // As long as the way of a star across the frame may be.
  const trail = Math.min(2, (trailDegrees(shape.trails) * Math.PI) / 180) * Math.max(scene.width, scene.height)
  const trailed = Math.max(leastSpacing(trail, 8 * pattern.size, scene), farTrailSpacing(pattern.size, shape, scene))
  return {
    seed: pattern.seed,
    spacing: steady(Math.max(2, trailed, 1 / Math.sqrt(Math.max(1e-12, density * (1 + band))))),
    faintest: pattern.faintest,
    growth: COUNT_GROWTH,
    white: pattern.white,
    sigma: pattern.size,
    halo: pattern.halo / 100,
    spikes: pattern.spikes / 100,
    band: { x: pattern.bandX, y: pattern.bandY, turn: pattern.bandTurn, width: pattern.bandWidth / 2, density: band },
    air: { x: scene.width / 2, y: level.y, turn: level.turn, extinction: (CLEAR_NIGHT * shape.thinning) / 50, focal: steady(focal) },
    trail: { turn: shape.trails > 0 ? steady(trailDegrees(shape.trails)) : 0, x: shape.poleX, y: shape.poleY },
    phase: scene.phase,
    twinkle: (0.6 * shape.twinkle) / 100,
  }
}

/** How often trails about a pole far outside the frame may cover the sky: far beyond white, and what a tile draws within a second. */
const MOST_COVER = 600

/** Least spacing of stars whose trails are long arcs about a far pole: all of them that lie along the arc through a place cross it. */
function farTrailSpacing(size: number, { trails, poleX, poleY }: StarControls['shape'], { width, height }: EffectScene): number {
  const [x, y] = [Math.max(Math.abs(poleX), Math.abs(poleX - width)), Math.max(Math.abs(poleY), Math.abs(poleY - height))]
  const arc = Math.min(2 * Math.PI, (trailDegrees(trails) * Math.PI) / 180) * Math.sqrt(x * x + y * y)
  return Math.sqrt((arc * 8 * size) / MOST_COVER)
}

/** The glow of stars that are too faint to be seen singly: a soft band, mottled, with dark clouds before it. */
function galaxy({ pattern }: StarControls, scene: EffectScene): GraphNode {
  const { bandX, bandY, bandTurn, bandWidth, seed } = pattern
  const low = horizonOf(scene.marks) && aboveHorizon(scene)
  // A band `width` wide and soft, with clouds of their own in it.
  const mottled = (
    width: number,
    softness: number,
    cloud: { scale: number; stretch: number; own: number; low: number; high: number },
  ): GraphNode => {
    const band = bandMaskNode({ x: bandX, y: bandY, turn: bandTurn, width: width * bandWidth, softness: softness * bandWidth })
    const within = low ? joinFieldsNode([band, low], 'product') : band
    const { own, scale, ...rest } = cloud
    const noise = { turn: bandTurn, offsetX: 0, offsetY: 0, octaves: 7, ...rest, scale: scale * bandWidth, seed: layerSeed(seed, 8, own) }
    return joinFieldsNode([within, cloudMaskNode(noise, within)], 'product')
  }
  const strength = pattern.band / 100
  const wide = scaleFieldNode(mottled(0, 1.5, { scale: 0.8, stretch: 1.7, own: 1, low: -0.1, high: 0.95 }), 0.34 * strength)
  const core = scaleFieldNode(mottled(0.05, 0.7, { scale: 0.4, stretch: 1.5, own: 2, low: 0.15, high: 0.85 }), 0.3 * strength)
  // Dark lanes lie along the middle.
  const lanes = mottled(0, 0.6, { scale: 0.55, stretch: 1.9, own: 3, low: 0.42, high: 0.74 })
  return joinFieldsNode([joinFieldsNode([wide, core], 'screen'), opposite(lanes, 0.75)], 'product')
}

/** 1 less a part of a field: 1 - k f = (1 - k) + k (1 - f). */
function opposite(field: GraphNode, part: number): GraphNode {
  return invertedNode(scaleFieldNode(field, part))
}

/** Fades into the air low over the horizon. */
function aboveHorizon({ marks, width, height }: EffectScene): GraphNode {
  const { y, turn } = horizonOf(marks) ?? { y: height, turn: 0 }
  const radians = (turn * Math.PI) / 180
  const rise = 0.28 * height
  return lineMaskNode({ x: width / 2 - steady(rise * Math.sin(radians)), y: y - steady(rise * Math.cos(radians)), toX: width / 2, toY: y })
}
