import { z } from 'zod'
import { numberControl, percentControl } from '../../model/controls'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { hueMaskNode } from '../../operations/masks/hueMask/hueMask'
import { vividNode } from '../../operations/colour/vivid/vivid'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  hue: numberControl({
    label: 'Hue',
    unit: '°',
    usual: [0, 360],
    hard: [0, 360],
    step: 1,
    hint: 'Which colours are changed; pick one on the photo.',
  }),
  width: numberControl({ label: 'Width', unit: '°', usual: [10, 180], hard: [1, 360], step: 1, hint: 'How many hues about it.' }),
  softness: numberControl({ label: 'Fall-off', unit: '°', usual: [0, 90], hard: [0, 180], step: 1 }),
  pale: percentControl('Leaves greys', 'What has less colour than this is left alone.'),
})

const shape = z.strictObject({
  shift: numberControl({ label: 'Hue shift', unit: '°', usual: [-60, 60], hard: [-180, 180], step: 1 }),
  saturation: numberControl({ label: 'Saturation', unit: '%', usual: [-100, 100], hard: [-100, 400], step: 1 }),
  lightness: numberControl({ label: 'Lightness', unit: '%', usual: [-100, 100], hard: [-100, 100], step: 1 }),
})

const controls = z.strictObject({ pattern, shape })
export type OneHueControls = z.infer<typeof controls>

/** Chroma in OKLab that 100 % stands for. */
const PALEST = 0.2
const SOFT = 0.02

export const oneHue = defineEffect({
  kind: 'oneHue',
  family: 'finish',
  label: 'One hue',
  place: 'finish',
  shownPart: 1,
  controls,
  ownColours: 'those of the picture',
  dials: ['pattern.hue', 'pattern.width', 'shape.shift', 'shape.saturation', 'shape.lightness'],
  pulls: ['shape.lightness', 'shape.saturation'],
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `hues about ${Math.round(pattern.hue)}°`,
    shape: `saturation ${Math.round(shape.saturation)}, lightness ${Math.round(shape.lightness)}`,
  }),
  pattern: ({ pattern }, scene) => ofThatHue(pattern, scene),
  contribute: ({ pattern, shape }, scene) => ({
    gives: 'correction',
    field: ofThatHue(pattern, scene),
    picture: () =>
      vividNode(scene.beneath, { turn: shape.shift, saturation: 1 + shape.saturation / 100, lightness: shape.lightness / 100 }),
  }),
})

function ofThatHue({ hue, width, softness, pale }: OneHueControls['pattern'], { beneath }: EffectScene) {
  const radians = Math.PI / 180
  return scaleFieldNode(
    hueMaskNode(beneath, {
      hue: hue * radians,
      halfWidth: (width / 2) * radians,
      hueSoftness: softness * radians,
      chromaFrom: (PALEST * pale) / 100,
      chromaTo: 1,
      chromaSoftness: SOFT,
    }),
    1,
  )
}
