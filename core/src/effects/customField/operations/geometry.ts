import { angleControl, lengthControl, numberControl, percentControl } from '../../../model/controls'
import { placeNode } from '../../../operations/geometry/place/place'
import { polarWrapNode } from '../../../operations/geometry/polarWrap/polarWrap'
import { operation, radius } from './fieldOperation'

// What moves a field.

export const polar = operation(
  'polar',
  'Polar wrap',
  {
    reach: radius('Reach', [50, 3000]),
    turn: angleControl('Rotation'),
    overlap: percentControl('Overlap', 'How much of the strip its seam goes over into its beginning.'),
  },
  { reach: 1600, turn: 0, overlap: 12 },
  (field, params, { x, y }) => polarWrapNode(field, { x, y, reach: params.reach, turn: params.turn, overlap: params.overlap / 100 }),
)
export const place = operation(
  'place',
  'Place',
  {
    enlarge: numberControl({ label: 'Enlarge', unit: '×', usual: [0.2, 5], hard: [0.02, 50], step: 0.05 }),
    turn: angleControl('Rotation'),
    moveX: lengthControl({ label: 'Move sideways', usual: [-1500, 1500], hard: [-30000, 30000], step: 1 }),
    moveY: lengthControl({ label: 'Move down', usual: [-1500, 1500], hard: [-30000, 30000], step: 1 }),
  },
  { enlarge: 1.5, turn: 0, moveX: 0, moveY: 0 },
  (field, params, { x, y }) => placeNode(field, { ...params, centreX: x, centreY: y }),
)
