import { steady } from '../../../graph/steady'
import { angleControl, lengthControl, numberControl } from '../../../model/controls'
import { gaussianBlurNode } from '../../../operations/blurs/gaussianBlur/gaussianBlur'
import { morphologyNode } from '../../../operations/blurs/morphology/morphology'
import { motionBlurNode } from '../../../operations/blurs/motionBlur/motionBlur'
import { radialBlurNode } from '../../../operations/blurs/radialBlur/radialBlur'
import { highPassNode } from '../../../operations/fields/difference/difference'
import { joinFieldsNode } from '../../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../../operations/fields/levels/levels'
import { operation, radius } from './fieldOperation'

// What softens, sharpens and widens a field.

export const blur = operation('blur', 'Blur', { sigma: radius('Radius', [0, 60]) }, { sigma: 4 }, (field, { sigma }) =>
  gaussianBlurNode(field, sigma),
)
export const motion = operation(
  'motion',
  'Motion blur',
  { length: radius('Length', [0, 400]), angle: angleControl('Direction') },
  { length: 60, angle: 80 },
  (field, { length, angle }) => motionBlurNode(field, length, angle),
)
export const zoom = operation(
  'zoom',
  'Zoom blur',
  { strength: radius('Strength', [0, 900]) },
  { strength: 200 },
  (field, { strength }, { x, y }) => radialBlurNode(field, { kind: 'zoom', x, y, strength, sides: 'outward' }),
)
export const spin = operation(
  'spin',
  'Spin blur',
  { arc: numberControl({ label: 'Arc', unit: '°', usual: [0, 60], hard: [0, 360], step: 0.5 }) },
  { arc: 8 },
  (field, { arc }, { x, y }) => radialBlurNode(field, { kind: 'spin', x, y, strength: arc, sides: 'both' }),
)
const widest = lengthControl({ label: 'Radius', usual: [0, 60], hard: [0, 400], step: 0.5 })
export const maximum = operation('maximum', 'Disc maximum', { radius: widest }, { radius: 14 }, (field, params) =>
  morphologyNode(field, params.radius),
)
export const minimum = operation('minimum', 'Disc minimum', { radius: widest }, { radius: 4 }, (field, params) =>
  morphologyNode(field, -params.radius),
)
export const highPass = operation('highPass', 'High-pass', { radius: radius('Radius', [0.5, 60]) }, { radius: 8 }, (field, params) =>
  highPassNode(field, params.radius),
)
export const halo = operation(
  'halo',
  'Halo',
  {
    sigma: radius('Radius', [1, 150]),
    strength: numberControl({
      label: 'Strength',
      unit: '%',
      usual: [0, 500],
      hard: [0, 5000],
      step: 5,
      hint: 'Of the blurred copy that is laid over it.',
    }),
  },
  { sigma: 40, strength: 150 },
  (field, { sigma, strength }) => {
    if (strength === 0) return field
    const light = levelsNode(gaussianBlurNode(field, sigma), { black: 0, white: steady(100 / strength), gamma: 1 })
    return joinFieldsNode([field, light], 'screen')
  },
)
