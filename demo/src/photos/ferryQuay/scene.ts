import type { PhotoDefinition } from '../../photo'
import { box, floor, type Shape } from '../../tracer/shapes'
import { buildTree } from '../../tracer/tree'
import { scale, type Vector } from '../../tracer/vector'
import { ferry } from './ferry'
import { QUAY_EDGE, water, wetStone } from './ground'
import { masonry, rope } from './materials'
import { bollard, cargo, lamp, line, waitingHouse } from './quayside'
import { sky } from './sky'

// The Marrow Sound night ferry at its quay, at blue hour after rain. Metres; x to the right, y up, z away.

const WATER_LEVEL = -1.35
const WARM: Vector = [1, 0.6, 0.25]

const lamps = [lamp(-1.35, 10.6, 3.9, scale(WARM, 230)), lamp(-1.1, 24.5, 3.9, scale(WARM, 230))]

const shapes: Shape[] = [
  floor(0, [-40, -4], [QUAY_EDGE, 74], wetStone),
  box([-40, -3, -4], [QUAY_EDGE - 0.001, -0.01, 74], masonry),
  floor(WATER_LEVEL, [-400, -50], [900, 1600], water),
  ...lamps.flatMap((one) => one.shapes),
  ...[7.2, 14.5, 22, 30].flatMap(bollard),
  ...line([QUAY_EDGE - 0.36, 0.36, 7.2], [4.7, 1.42, 13.6], 0.42, 0.034, rope),
  ...line([QUAY_EDGE - 0.36, 0.36, 14.5], [4.3, 1.4, 18.5], 0.3, 0.034, rope),
  ...ferry(),
  ...waitingHouse(),
  ...cargo(),
]

export const ferryQuay: PhotoDefinition = {
  name: 'ferry-quay',
  scene: {
    intersect: buildTree(shapes),
    lights: lamps.map((one) => one.light),
    sky,
    air: { colour: [0.034, 0.048, 0.088], density: 0.0012 },
  },
  camera: { place: [-0.35, 1.62, 0], target: [0.95, 1.86, 14], fieldOfView: 64, aperture: 0.004, focus: 13 },
  develop: { exposure: 2.45, flare: 0.04, noise: 1, balance: [0.98, 1, 1.04] },
}
