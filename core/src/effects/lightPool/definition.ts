import { z } from 'zod'
import type { Rgb } from '../../colour/hex'
import type { GraphNode } from '../../graph/node'
import { lengthControl, numberControl, percentControl } from '../../model/controls'
import { adjustNode } from '../../operations/colour/adjust/adjust'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { fadeTonesNode } from '../../operations/mixing/fadeTones/fadeTones'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { mixNode } from '../../operations/mixing/mix/mix'
import { steady } from '../../graph/steady'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { gainOfLight } from '../gainOfLight'
import { neutral, startingLooks } from './startingLooks'

const signed = { unit: '%', usual: [-100, 100], hard: [-100, 100], step: 1 } as const

const pattern = z.strictObject({
  shadows: numberControl({ label: 'Shadows', ...signed }),
  highlights: numberControl({ label: 'Highlights', ...signed }),
  exposure: numberControl({ label: 'Exposure', unit: 'EV', usual: [-2, 2], hard: [-8, 8], step: 0.05 }),
  warmth: percentControl('Colour', 'How much of its colour the light has.'),
})

const shape = z.strictObject({
  rest: numberControl({
    label: 'Darken the rest',
    unit: 'EV',
    usual: [0, 2],
    hard: [0, 8],
    step: 0.05,
    hint: 'How much darker it gets outside of the pool.',
  }),
  softening: percentControl('Softening', 'Takes local contrast out of what is lit.'),
  softeningRadius: lengthControl({ label: 'Softening radius', usual: [2, 60], hard: [0, 2000], step: 0.5 }),
  haze: percentControl('Haze', 'A little air in the light.'),
})

const controls = z.strictObject({ pattern, shape })
export type LightPoolControls = z.infer<typeof controls>

export const lightPool = defineEffect({
  kind: 'lightPool',
  family: 'light',
  label: 'Light pool',
  place: 'near',
  shownPart: 1,
  controls,
  dials: ['pattern.shadows', 'pattern.highlights', 'pattern.exposure', 'pattern.warmth', 'shape.rest', 'shape.haze'],
  pulls: ['pattern.exposure', 'pattern.warmth'],
  region: {
    label: 'Pool',
    step: 'pattern',
    hint: 'What is lit, by any masks; without one the whole picture.',
  },
  applies: (path, { shape }) => path !== 'shape.softeningRadius' || shape.softening > 0,
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.exposure >= 0 ? '+' : ''}${Number(pattern.exposure.toFixed(2))} EV`,
    shape: shape.rest > 0 ? `the rest ${Number(shape.rest.toFixed(2))} EV darker` : 'the rest as it is',
  }),
  pattern: (_, { region }) => (region ? scaleFieldNode(region, 1) : constantFieldNode(1)),
  contribute: (controls, scene, tint) => ({ gives: 'correction', field: constantFieldNode(1), picture: () => lit(controls, scene, tint) }),
})

/** The picture with the pool in it. */
function lit({ pattern, shape }: LightPoolControls, { beneath, region }: EffectScene, tint: Rgb): GraphNode {
  const gain = gainOfLight(tint, pattern.exposure, (0.55 * pattern.warmth) / 100)
  const exposed = adjustNode(beneath, { gain, shadows: pattern.shadows / 100, highlights: pattern.highlights / 100 })
  const soft =
    shape.softening > 0
      ? fadeTonesNode(exposed, gaussianBlurNode(exposed, shape.softeningRadius), undefined, {
          amount: (0.6 * shape.softening) / 100,
          linear: false,
        })
      : exposed
  const air =
    shape.haze > 0
      ? mixNode(soft, constantFieldNode((0.35 * shape.haze) / 100), undefined, { mode: 'screen', amount: 1, linear: false, colour: tint })
      : soft
  if (!region) return air
  const dark = steady(Math.pow(2, -shape.rest))
  const rest = shape.rest > 0 ? adjustNode(beneath, { gain: [dark, dark, dark] }) : beneath
  return fadeTonesNode(rest, air, region, { amount: 1, linear: false })
}
