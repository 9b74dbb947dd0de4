import { levelControls } from '../../../model/controls'
import { curveNode } from '../../../operations/fields/curve/curve'
import { scaleFieldNode } from '../../../operations/fields/joinFields/joinFields'
import { levelsNode } from '../../../operations/fields/levels/levels'
import { invertedNode } from '../../../operations/masks/combineMasks/combineMasks'
import { level, operation } from './fieldOperation'

// What changes the values of a field.

export const levels = operation('levels', 'Levels', levelControls, { black: 30, white: 70, gamma: 1 }, (field, { black, white, gamma }) =>
  levelsNode(field, { black: black / 100, white: white / 100, gamma }),
)
export const curve = operation(
  'curve',
  'Curve',
  { at0: level('At 0'), at25: level('At 25'), at50: level('At 50'), at75: level('At 75'), at100: level('At 100') },
  { at0: 0, at25: 15, at50: 50, at75: 85, at100: 100 },
  (field, params) =>
    curveNode(
      field,
      [params.at0, params.at25, params.at50, params.at75, params.at100].map((y, index) => ({ x: index / 4, y: y / 100 })),
    ),
)
export const invert = operation('invert', 'Invert', {}, {}, (field) => invertedNode(scaleFieldNode(field, 1)))
