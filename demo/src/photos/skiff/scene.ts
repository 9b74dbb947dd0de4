import type { PhotoDefinition } from '../../photo'
import { floor, type Shape } from '../../tracer/shapes'
import { buildTree } from '../../tracer/tree'
import { skiff } from './boat'
import { islands, sound, stones } from './shore'
import { sky } from './sky'

// A skiff moored off a shingle beach, an hour and a half after sunset, under a clear sky. Metres; x to the right, y up, z away.

const shapes: Shape[] = [floor(0, [-4000, -12], [4000, 9000], sound), ...skiff(), ...islands(), ...stones()]

export const skiffPhoto: PhotoDefinition = {
  name: 'moored-skiff',
  scene: {
    intersect: buildTree(shapes),
    // The moon, behind the camera at the left.
    lights: [{ centre: [-9000, 7600, -9000], radius: 380, radiance: [80, 84, 94] }],
    sky,
    air: { colour: [0.05, 0.055, 0.065], density: 0.00012 },
  },
  camera: { place: [0, 1.25, -0.4], target: [0.1, 2.75, 9], fieldOfView: 66, aperture: 0.004, focus: 9.2 },
  develop: { exposure: 2.6, flare: 0.03, noise: 1.6, balance: [1, 1, 1.03] },
}
