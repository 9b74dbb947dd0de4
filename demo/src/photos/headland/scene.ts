import type { PhotoDefinition } from '../../photo'
import { floor, type Shape } from '../../tracer/shapes'
import { buildTree } from '../../tracer/tree'
import { along } from '../../tracer/vector'
import { headland, rocks } from './headland'
import { shore } from './shore'
import { sky, towardsSun } from './sky'
import { trestle } from './trestle'

// The headland with the signal mast and the coal pier, the low sun behind them. Metres; x to the right, y up, z away.

const shapes: Shape[] = [floor(0, [-900, -20], [900, 6000], shore), ...headland(), ...trestle(), ...rocks()]

const SUN_DISTANCE = 20000
const SUN_RADIUS = 0.0047 * SUN_DISTANCE

export const headlandPhoto: PhotoDefinition = {
  name: 'headland',
  scene: {
    intersect: buildTree(shapes),
    lights: [{ centre: along([0, 0, 0], towardsSun, SUN_DISTANCE), radius: SUN_RADIUS, radiance: [26000, 13500, 5200] }],
    sky,
    air: { colour: [0.5, 0.29, 0.17], density: 0.0011 },
  },
  camera: { place: [1.2, 1.75, -1], target: [-3, 3.8, 40], fieldOfView: 62, aperture: 0.003, focus: 45 },
  develop: { exposure: 0.86, flare: 0.07, noise: 0.8, balance: [1, 1, 1.02] },
}
