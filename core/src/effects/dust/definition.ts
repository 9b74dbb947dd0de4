import { z } from 'zod'
import { lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { discsNode } from '../../operations/sources/discs/discs'
import { levelsNode } from '../../operations/fields/levels/levels'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { boundedDiscs } from '../boundedSpecks'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { layerSeed } from '../layerSeed'
import { placingBox, placingControls } from '../placing'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  density: numberControl({ label: 'Density', unit: '', usual: [0, 100], hard: [0, 1000], step: 1, hint: 'Motes in the frame, in tens.' }),
  size: lengthControl({ label: 'Size', usual: [2, 60], hard: [0.5, 600], step: 0.5, hint: 'Radius of a mote.' }),
  sizeSpread: percentControl('Size variation'),
  softness: percentControl('Softness'),
  seed: seedControl(),
})

const shape = z.strictObject({
  drift: lengthControl({ label: 'Drift', usual: [0, 60], hard: [0, 1500], step: 0.5, hint: 'Smear while the shutter is open.' }),
  direction: numberControl({ label: 'Direction', unit: '°', usual: [-180, 180], hard: [-360, 360], step: 1 }),
  gamma: numberControl({ label: 'Gamma', unit: '', usual: [0.3, 3], hard: [0.1, 10], step: 0.05 }),
  ...placingControls,
})

const controls = z.strictObject({ pattern, shape })
export type DustControls = z.infer<typeof controls>

export const dust = defineEffect({
  kind: 'dust',
  family: 'weather',
  label: 'Dust',
  place: 'lens',
  shownPart: 0.6,
  controls,
  dials: ['pattern.density', 'pattern.size', 'pattern.sizeSpread', 'pattern.softness', 'shape.drift'],
  applies: (path, { shape }) => path !== 'shape.direction' || shape.drift > 0,
  startingLooks,
  box: placingBox(() => true),
  direction: { label: 'Direction of drift', path: 'shape.direction', arrow: (angle) => angle, value: (arrow) => arrow },
  summary: ({ pattern, shape }) => ({
    pattern: `motes of ${Math.round(pattern.size)} px, seed ${pattern.seed}`,
    shape: shape.drift > 0 ? `drift ${Math.round(shape.drift)} px at ${Math.round(shape.direction)}°` : 'at rest',
  }),
  pattern: (controls, scene) => motes(controls, scene, 0),
  contribute: (controls, scene) =>
    light(levelsNode(motes(controls, scene, controls.shape.drift), { black: 0, white: 1, gamma: controls.shape.gamma })),
})

/** A mote floats about twice its size, and a little more lest rounding matters where nothing is bounded. */
const MOST_SWAY = 2.001

/** Two depths of motes: a few large ones near the lens, more small ones behind. */
function motes({ pattern, shape }: DustControls, scene: EffectScene, drift: number) {
  const enlarge = shape.enlarge / 100
  const layer = (index: number, size: number, share: number, brightness: number) => {
    const bounded = boundedDiscs(
      {
        spacing: enlarge * Math.sqrt((scene.width * scene.height) / Math.max(pattern.density * 10 * share, 0.01)),
        radius: enlarge * (pattern.size * size),
        length: enlarge * (drift * size),
      },
      scene,
    )
    return discsNode({
      seed: layerSeed(pattern.seed, 16, 5 * index + 11),
      ...bounded,
      radiusVariation: pattern.sizeSpread / 100 / 1.1,
      softness: Math.max(0.05, pattern.softness / 100),
      rim: 0.25,
      angle: shape.direction,
      brightness,
      brightnessVariation: 0.85,
      shiftX: shape.moveX,
      shiftY: shape.moveY,
      // A loop leaves a mote where it was: it floats in a circle.
      loop: { rows: 0, shift: 0, phase: scene.phase },
      // All that may come into a tile is looked at, so what is bounded floats no farther than its size says.
      sway: Math.min(enlarge * ((2 * pattern.size + 2 * drift) * size), MOST_SWAY * (bounded.radius + bounded.length)),
    })
  }
  return sumFieldsNode([layer(0, 1, 0.25, 0.4), layer(1, 0.38, 0.75, 0.75)])
}
