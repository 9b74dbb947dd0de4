import type { PhotoDefinition } from './photo'
import { add, length, multiply, scale, subtract, type Vector } from './tracer/vector'

/** Another look at a scene: how the camera is turned and moved, degrees and parts of its height, and what light there is. */
interface Change {
  readonly yaw: number
  readonly pitch: number
  readonly roll: number
  readonly fieldOfView: number
  /** Metres that the camera is raised; in a room a tenth of that. */
  readonly lift: number
  readonly light: keyof typeof lights
}

/** Factors of the light of sky and lamps, and of the exposure. */
const lights = {
  asItIs: { sky: [1, 1, 1], lamps: 1, exposure: 1 },
  dusk: { sky: [0.2, 0.26, 0.42], lamps: 0.6, exposure: 2 },
  bright: { sky: [1.5, 1.5, 1.5], lamps: 1, exposure: 1 },
  warm: { sky: [1.2, 0.85, 0.6], lamps: 1, exposure: 1.1 },
} as const satisfies Record<string, { readonly sky: Vector; readonly lamps: number; readonly exposure: number }>

const changes: readonly Change[] = [
  { yaw: 0, pitch: 0, roll: 0, fieldOfView: 48, lift: 0, light: 'warm' },
  { yaw: -22, pitch: 1, roll: 0, fieldOfView: 62, lift: 0.4, light: 'asItIs' },
  { yaw: 20, pitch: -3, roll: 3, fieldOfView: 50, lift: 1.5, light: 'dusk' },
  { yaw: 4, pitch: 7, roll: -2, fieldOfView: 75, lift: 0, light: 'bright' },
  { yaw: -10, pitch: -9, roll: 1, fieldOfView: 66, lift: 4, light: 'dusk' },
  { yaw: 38, pitch: 2, roll: -4, fieldOfView: 45, lift: 0.8, light: 'warm' },
  { yaw: 12, pitch: -42, roll: 0, fieldOfView: 50, lift: 2, light: 'asItIs' },
  { yaw: -34, pitch: 30, roll: 5, fieldOfView: 60, lift: 0, light: 'bright' },
]

/** How many small views there are of every scene. */
export const VIEWS = changes.length
const ROOM = 'ship-lantern'

/** A scene as another camera sees it, in another light. */
export function viewOf(photo: PhotoDefinition, index: number): PhotoDefinition {
  const change = changes[index]
  if (!change) throw new Error(`There is no view ${index}.`)
  const { sky, lamps, exposure } = lights[change.light]
  const { scene, camera, develop } = photo
  const place = add(camera.place, [0, change.lift * (photo.name === ROOM ? 0.1 : 1), 0])
  const ahead = subtract(camera.target, camera.place)
  return {
    name: `${photo.name}-${index}`,
    scene: {
      ...scene,
      lights: scene.lights.map((light) => ({ ...light, radiance: scale(light.radiance, lamps) })),
      sky: (direction) => multiply(scene.sky(direction), sky),
      air: { ...scene.air, colour: multiply(scene.air.colour, sky) },
    },
    camera: { ...camera, place, target: add(place, turned(ahead, change)), fieldOfView: change.fieldOfView, roll: change.roll },
    develop: { ...develop, exposure: develop.exposure * exposure },
  }
}

/** A direction after a turn about the vertical, and then up or down. */
function turned([x, y, z]: Vector, { yaw, pitch }: Change): Vector {
  const across = Math.atan2(x, z) + (yaw * Math.PI) / 180
  const far = length([x, y, z])
  const height = Math.asin(y / far) + (pitch * Math.PI) / 180
  return [far * Math.cos(height) * Math.sin(across), far * Math.sin(height), far * Math.cos(height) * Math.cos(across)]
}
