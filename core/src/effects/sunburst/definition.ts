import { z } from 'zod'
import {
  angleControl,
  choiceControl,
  lengthControl,
  numberControl,
  percentControl,
  seedControl,
  strengthControl,
} from '../../model/controls'
import { burstsNode, type Burst } from '../../operations/sources/burst/burst'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { originControls, originOf, originPlace } from '../origin'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  by: choiceControl('Made of', { spikes: 'Spikes', rays: 'Rays of noise', blades: 'Blades of a diaphragm' }),
  ...originControls,
  count: numberControl({
    label: 'Count',
    unit: '',
    usual: [3, 40],
    hard: [0, 360],
    step: 1,
    whole: true,
    hint: 'Spikes around the turn; features of the noise.',
  }),
  blades: numberControl({
    label: 'Blades',
    unit: '',
    usual: [3, 12],
    hard: [3, 40],
    step: 1,
    whole: true,
    hint: 'Even numbers give as many spikes, odd ones twice as many.',
  }),
  reach: lengthControl({ label: 'Reach', usual: [50, 2500], hard: [0, 30000], step: 5 }),
  strength: strengthControl('Strength'),
  thickness: lengthControl({ label: 'Thickness', usual: [0.5, 20], hard: [0.2, 1000], step: 0.1, hint: 'Of a spike where it begins.' }),
  uneven: percentControl('Irregularity'),
  turn: angleControl('Rotation', { noise: 'rotation' }),
  contrast: percentControl('Contrast', 'How clearly the rays of noise stand apart.'),
  seed: seedControl(),
})

const shape = z.strictObject({
  core: lengthControl({ label: 'Core', usual: [0, 120], hard: [0, 5000], step: 0.5, hint: 'Radius of the overexposed middle.' }),
  halo: strengthControl('Halo'),
  haloSize: lengthControl({ label: 'Halo size', usual: [10, 600], hard: [1, 20000], step: 1 }),
  softness: lengthControl({ label: 'Softness', usual: [0, 20], hard: [0, 500], step: 0.1 }),
})

const controls = z.strictObject({ pattern, shape })
export type SunburstControls = z.infer<typeof controls>

/** Spikes of a diaphragm: as many as it has blades, or twice as many if their number is odd. */
function spikesOf(blades: number): number {
  return blades % 2 === 0 ? blades : 2 * blades
}

const BY_KIND: Readonly<Record<SunburstControls['pattern']['by'], readonly string[]>> = {
  spikes: ['pattern.blades', 'pattern.contrast'],
  rays: ['pattern.blades', 'pattern.thickness', 'pattern.uneven'],
  blades: ['pattern.count', 'pattern.contrast', 'pattern.uneven'],
}

export const sunburst = defineEffect({
  kind: 'sunburst',
  family: 'light',
  label: 'Sunburst',
  place: 'far',
  shownPart: 1,
  controls,
  dials: ['pattern.strength', 'pattern.reach', 'pattern.count', 'pattern.blades', 'shape.core', 'shape.halo'],
  places: [originPlace],
  startsAtLight: () => true,
  showsItsLight: true,
  applies: (path, { pattern }) => {
    // Of spikes only their unevenness is random, of blades nothing.
    if (path === 'pattern.seed') return pattern.by === 'rays' || (pattern.by === 'spikes' && pattern.uneven > 0)
    return !BY_KIND[pattern.by].includes(path)
  },
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern:
      pattern.by === 'rays'
        ? `rays of noise, ${Math.round(pattern.reach)} px`
        : `${spikeCount(pattern)} spikes of ${Math.round(pattern.reach)} px`,
    shape: `core ${Math.round(shape.core)} px, halo ${Math.round(shape.halo)} %`,
  }),
  pattern: (controls, scene) => burstsNode([burstOf({ ...controls, shape: { ...controls.shape, core: 0, halo: 0 } }, scene)], scene.phase),
  contribute: (controls, scene) => light(gaussianBlurNode(burstsNode([burstOf(controls, scene)], scene.phase), controls.shape.softness)),
})

function spikeCount({ by, count, blades }: SunburstControls['pattern']): number {
  if (by === 'rays') return 0
  return by === 'blades' ? spikesOf(blades) : count
}

function burstOf({ pattern, shape }: SunburstControls, { marks }: EffectScene): Burst {
  const low = 0.5 - 0.5 * (1 - pattern.contrast / 100) - 0.05
  return {
    ...originOf(pattern, marks),
    core: shape.core,
    halo: shape.halo / 100,
    haloSize: shape.haloSize,
    spikes: {
      count: spikeCount(pattern),
      reach: pattern.reach,
      strength: pattern.strength / 100,
      thickness: pattern.thickness,
      uneven: pattern.by === 'blades' ? 0 : pattern.uneven / 100,
      turn: pattern.turn,
      paired: pattern.by === 'blades',
    },
    rays: {
      count: pattern.by === 'rays' ? pattern.count : 0,
      strength: pattern.strength / 100,
      reach: pattern.reach,
      low,
      high: Math.max(low + 0.05, 1 - low),
    },
    seed: pattern.seed,
  }
}
