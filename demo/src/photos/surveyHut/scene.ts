import type { PhotoDefinition } from '../../photo'
import { buildTree } from '../../tracer/tree'
import { hut, WINDOW } from './hut'
import { sky } from './sky'
import { slope, snowHeight } from './slope'

// The red survey hut on a snow slope late on a grey afternoon, a lamp lit inside. Metres; x to the right, y up, z away.

const eye = snowHeight(-4.4, 0.9) + 1.62

export const surveyHut: PhotoDefinition = {
  name: 'survey-hut',
  scene: {
    intersect: buildTree([...slope(), ...hut()]),
    lights: [{ centre: [WINDOW[0], WINDOW[1], WINDOW[2] - 0.28], radius: 0.22, radiance: [2.1, 1.2, 0.48] }],
    sky,
    air: { colour: [0.42, 0.47, 0.54], density: 0.0011 },
  },
  camera: { place: [-3.4, eye, -0.6], target: [0.5, eye + 0.75, 14], fieldOfView: 56, aperture: 0.004, focus: 13.5 },
  develop: { exposure: 0.95, flare: 0.04, noise: 0.9, balance: [1, 1, 1.02] },
}
