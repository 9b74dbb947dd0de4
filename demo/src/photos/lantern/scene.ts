import type { PhotoDefinition } from '../../photo'
import { buildTree } from '../../tracer/tree'
import { lantern } from './lantern'
import { room } from './room'
import { sky } from './sky'

// A brass ship's lantern on a chart table by a window at dusk. Decimetres; x to the right, y up, z away.

export const lanternPhoto: PhotoDefinition = {
  name: 'ship-lantern',
  scene: {
    intersect: buildTree([...room(), ...lantern()]),
    // A lamp of the room, behind the camera at the right.
    lights: [{ centre: [8.5, 7.5, -7.5], radius: 0.9, radiance: [34, 19, 9] }],
    sky,
    air: { colour: [0, 0, 0], density: 0 },
  },
  camera: { place: [-0.5, 3.1, -11], target: [0.05, 2.1, 0], fieldOfView: 39, aperture: 0.16, focus: 10.9 },
  develop: { exposure: 2.1, calm: true, flare: 0.04, noise: 1.1, balance: [0.96, 1, 1.06] },
}
