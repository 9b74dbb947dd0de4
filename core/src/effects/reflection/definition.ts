import { z } from 'zod'
import { lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { waterlineOf } from '../../model/marks'
import { referenceTo, withRoles } from '../../model/roles'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { mirrorNode, type MirrorParameters } from '../../operations/geometry/mirror/mirror'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  /** Id of the effect that is mirrored. */
  of: withRoles(referenceTo('effect'), { byHand: true }),
  stretch: numberControl({
    label: 'Stretch',
    unit: '×',
    usual: [0.5, 2],
    hard: [0.1, 10],
    step: 0.05,
    hint: 'How much longer it is in the water.',
  }),
})

const shape = z.strictObject({
  ripple: lengthControl({ label: 'Ripple', usual: [0, 60], hard: [0, 1000], step: 1, hint: 'How far waves shift what is seen in them.' }),
  rippleLength: lengthControl({ label: 'Waves', usual: [10, 200], hard: [2, 5000], step: 1 }),
  fade: percentControl('Fade', 'How quickly it weakens away from the waterline.'),
  blur: lengthControl({ label: 'Blur', usual: [0, 20], hard: [0, 300], step: 0.1 }),
  seed: seedControl(),
})

const controls = z.strictObject({ pattern, shape })
export type ReflectionControls = z.infer<typeof controls>

/** Where the water begins in a photo without any mark of it. */
const LIKELY_WATERLINE = 0.62

/** What another effect draws, seen in the water: without that effect's mask, with a mask and an amount of its own. */
export const reflection = defineEffect({
  kind: 'reflection',
  family: 'weather',
  label: 'Reflection',
  ownColours: 'of the effect that it mirrors',
  place: 'middle',
  shownPart: 1,
  madeFromEffect: true,
  controls,
  dials: ['pattern.stretch', 'shape.ripple', 'shape.rippleLength', 'shape.fade', 'shape.blur'],
  startingLooks,
  inWords: (_, { marks }) => (waterlineOf(marks) ? '' : 'Draw the waterline in Marks, so that it lies where the water begins.'),
  summary: ({ pattern, shape }) => ({
    pattern: pattern.of === null ? 'no effect chosen' : `mirrored, ${Math.round(100 * pattern.stretch)} % as long`,
    shape: shape.ripple > 0 ? `ripples of ${Math.round(shape.ripple)} px` : 'still water',
  }),
  pattern: ({ pattern, shape }, scene) => mirrored(scene, { pattern, shape: { ...shape, ripple: 0, fade: 0 } }),
  contribute(controls, scene) {
    const source = scene.otherEffect(controls.pattern.of)
    const field = gaussianBlurNode(mirrored(scene, controls), controls.shape.blur)
    return light(field, () => source && mirrorNode(source.colours(), mirrorOf(scene, controls)))
  },
})

function mirrored(scene: EffectScene, controls: ReflectionControls) {
  const source = scene.otherEffect(controls.pattern.of)
  return source ? mirrorNode(source.field, mirrorOf(scene, controls)) : constantFieldNode(0)
}

function mirrorOf(scene: EffectScene, { pattern, shape }: ReflectionControls): MirrorParameters {
  const level = waterlineOf(scene.marks) ?? scene.marks.horizon ?? { y: LIKELY_WATERLINE * scene.height, turn: 0 }
  return {
    x: scene.width / 2,
    y: level.y,
    turn: level.turn,
    stretch: pattern.stretch,
    ripple: shape.ripple,
    rippleLength: shape.rippleLength,
    seed: shape.seed,
    phase: scene.phase,
    fade: shape.fade > 0 ? (scene.height * 30) / (shape.fade * 1.5) : 0,
  }
}
