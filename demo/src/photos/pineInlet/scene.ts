import type { PhotoDefinition } from '../../photo'
import { floor, type Shape } from '../../tracer/shapes'
import { buildTree } from '../../tracer/tree'
import { normalise, scale } from '../../tracer/vector'
import { shores } from './shores'
import { sky } from './sky'
import { boulders, inlet } from './water'

// A pine inlet on a still, overcast morning: ridges one behind the other. Metres; x to the right, y up, z away.

const shapes: Shape[] = [floor(0, [-6000, -12], [6000, 9000], inlet), ...shores(), ...boulders()]

const DISTANCE = 20000

export const pineInlet: PhotoDefinition = {
  name: 'pine-inlet',
  scene: {
    intersect: buildTree(shapes),
    // The sun behind thin cloud: a wide, weak light.
    lights: [{ centre: scale(normalise([0.45, 0.5, 0.72]), DISTANCE), radius: 0.16 * DISTANCE, radiance: [7, 6.4, 5.4] }],
    sky,
    air: { colour: [0.56, 0.6, 0.65], density: 0.000045 },
  },
  camera: { place: [0, 1.65, -1], target: [1.5, 4.6, 60], fieldOfView: 60, aperture: 0.003, focus: 30 },
  crop: 0.115,
  develop: { exposure: 0.86, flare: 0.03, noise: 0.8, balance: [1, 1, 1.02] },
}
