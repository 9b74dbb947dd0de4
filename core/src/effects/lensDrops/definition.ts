import { z } from 'zod'
import { lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import type { LensDropParameters } from '../../operations/optics/lensDrops/drops'
import { lensDropsNode, refractionNode } from '../../operations/optics/lensDrops/lensDrops'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  count: numberControl({ label: 'Drops', unit: '', usual: [1, 400], hard: [0, 5000], step: 1, whole: true }),
  radius: lengthControl({ label: 'Radius', usual: [4, 150], hard: [0.5, 3000], step: 0.5, hint: 'Of the largest.' }),
  spread: percentControl('Size variation', 'How much smaller most of them are.'),
  uneven: percentControl('Shape variation', 'How far from round they are.'),
  running: percentControl('Running', 'How many have run down the glass and drawn themselves long.'),
  seed: seedControl(),
})

const shape = z.strictObject({
  blur: lengthControl({ label: 'Out of focus', usual: [0.5, 40], hard: [0, 500], step: 0.1, hint: 'Half the width of their outlines.' }),
  view: numberControl({
    label: 'Shows',
    unit: '×',
    usual: [2, 12],
    hard: [0, 40],
    step: 0.5,
    hint: 'How much of the picture a drop shows, upside down.',
  }),
  rim: percentControl('Dark rim'),
  glint: percentControl('Glint', 'How bright the light is that they reflect.'),
})

const controls = z.strictObject({ pattern, shape })
export type LensDropControls = z.infer<typeof controls>

/** In a drop the picture is so far out of focus as its outline is, but for this part; and no sharper than this part of the radius. */
const BLUR_INSIDE = 0.35
const BLUR_OF_RADIUS = 1 / 24

export const lensDrops = defineEffect({
  kind: 'lensDrops',
  family: 'weather',
  label: 'Drops on the lens',
  place: 'lens',
  shownPart: 0.6,
  controls,
  ownColours: 'those of the picture',
  dials: ['pattern.count', 'pattern.radius', 'pattern.spread', 'pattern.running', 'shape.blur', 'shape.view'],
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.count} drops up to ${Number((2 * pattern.radius).toFixed(1))} px wide`,
    shape: shape.blur > 0 ? `out of focus by ${Number(shape.blur.toFixed(1))} px` : 'sharp',
  }),
  pattern: (controls, scene) => lensDropsNode(dropsOf(controls, scene)),
  contribute(controls, scene) {
    const { view, rim, glint, blur } = controls.shape
    const drops = dropsOf(controls, scene)
    const inside = Math.max(BLUR_INSIDE * blur, BLUR_OF_RADIUS * drops.radius)
    return {
      gives: 'correction',
      field: lensDropsNode(drops),
      picture: () =>
        refractionNode(gaussianBlurNode(scene.beneath, Math.max(1, view) * inside), { ...drops, view, rim: rim / 100, glint: glint / 100 }),
    }
  },
})

function dropsOf({ pattern, shape }: LensDropControls, { frame }: EffectScene): LensDropParameters {
  const { seed, count, radius, spread, uneven, running } = pattern
  // Larger ones than the frame cannot be told from one that fills it.
  const most = Math.max(frame.width, frame.height)
  return {
    seed,
    count,
    radius: Math.min(most, radius),
    spread: spread / 100,
    uneven: uneven / 100,
    running: running / 100,
    blur: shape.blur,
    frame,
  }
}
