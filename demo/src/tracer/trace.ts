import type { Surface } from './shapes'
import type { Intersect } from './tree'
import { add, along, basis, dot, length, multiply, normalise, reflect, scale, subtract, type Vector } from './vector'

/** A glowing ball; the lamps of a scene. Radiance in linear light. */
export interface Light {
  readonly centre: Vector
  readonly radius: number
  readonly radiance: Vector
}

export interface TracedScene {
  readonly intersect: Intersect
  readonly lights: readonly Light[]
  /** Light from infinity. */
  sky(direction: Vector): Vector
  /** Colour that the air adds over a distance, and how fast (1/m). */
  readonly air: { readonly colour: Vector; readonly density: number }
}

export type Random = () => number

const FAR = 1e6
const NEAR = 1e-3
const BOUNCES = 4
/** Panes of glass that light goes through besides. */
const PANES = 10
/** A single sample carries at most this much light after the first bounce, so that no bright dots remain. */
const BRIGHTEST_SAMPLE = 6
/** Smoother surfaces find the lights by reflection alone, rougher ones by sampling them. */
const MIRROR_UP_TO = 0.09

/** Path tracing with the lights sampled directly. Returns the light that comes along the ray, and the distance of the first hit. */
export function trace(scene: TracedScene, from: Vector, towards: Vector, random: Random): { light: Vector; distance: number } {
  let origin = from
  let direction = towards
  let weight: Vector = [1, 1, 1]
  let light: Vector = [0, 0, 0]
  let seesLights = true
  let distance = FAR
  let panes = 0
  for (let bounce = 0; bounce < BOUNCES; bounce++) {
    const hit = scene.intersect(origin, direction, NEAR, FAR)
    if (bounce === 0 && panes === 0) distance = hit?.t ?? FAR
    const clearness = Math.exp(-scene.air.density * Math.min(hit?.t ?? 4000, 4000))
    light = add(light, multiply(weight, scale(scene.air.colour, hit ? 1 - clearness : 0)))
    if (!hit) return { light: add(light, limited(multiply(weight, scene.sky(direction)), bounce)), distance }
    weight = scale(weight, clearness)
    const place = along(origin, direction, hit.t)
    const facing = dot(hit.normal, direction) > 0 ? scale(hit.normal, -1) : hit.normal
    const surface = hit.shape.material(place, facing, hit.t)
    if (surface.emission && seesLights) light = add(light, limited(multiply(weight, surface.emission), bounce))
    const normal = visibleNormal(surface.normal ?? facing, direction)
    if (surface.clear && panes < PANES && random() > schlick(surface.reflectance, 1, -dot(normal, direction))) {
      weight = multiply(weight, surface.clear)
      origin = along(place, facing, -2e-3)
      panes++
      bounce--
      continue
    }
    const step = scatter(scene, surface, place, facing, normal, direction, random)
    light = add(light, limited(multiply(weight, step.direct), bounce + 1))
    weight = multiply(weight, step.weight)
    if (Math.max(...weight) < 0.004) break
    seesLights = step.seesLights
    origin = along(place, facing, 2e-3)
    direction = step.direction
  }
  return { light, distance }
}

function limited(light: Vector, bounce: number): Vector {
  const most = Math.max(...light)
  return bounce > 0 && most > BRIGHTEST_SAMPLE ? scale(light, BRIGHTEST_SAMPLE / most) : light
}

/** A bumped normal that still faces the viewer. */
function visibleNormal(normal: Vector, direction: Vector): Vector {
  const away = dot(normal, direction)
  return away < -0.02 ? normal : normalise(along(normal, direction, -away - 0.02))
}

/** Reflectance at an angle, Schlick 1994. */
function schlick(straightOn: number, grazing: number, cosine: number): number {
  return straightOn + (grazing - straightOn) * (1 - Math.min(1, Math.max(0.02, cosine))) ** 5
}

interface Step {
  readonly direct: Vector
  readonly direction: Vector
  readonly weight: Vector
  readonly seesLights: boolean
}

function scatter(
  scene: TracedScene,
  surface: Surface,
  place: Vector,
  facing: Vector,
  normal: Vector,
  direction: Vector,
  random: Random,
): Step {
  // A rough surface shines less at grazing angles.
  const fresnel = schlick(surface.reflectance, Math.max(surface.reflectance, 1 - surface.roughness), -dot(normal, direction))
  const shine = surface.shine ?? [1, 1, 1]
  if (surface.clear) {
    // What did not go through is mirrored.
    return { direct: [0, 0, 0], direction: reflect(direction, normal), weight: shine, seesLights: true }
  }
  const mirror = surface.roughness < MIRROR_UP_TO
  const direct = directLight(scene, surface, place, facing, normal, direction, mirror ? 0 : fresnel, random)
  const chance = Math.min(0.95, Math.max(0.002, fresnel / (fresnel + Math.max(...surface.albedo) + 1e-4)))
  if (random() < chance) {
    const bumped = roughNormal(normal, surface.roughness, random)
    const out = reflect(direction, visibleNormal(bumped, direction))
    const above = dot(out, facing) > 0 ? out : reflect(direction, facing)
    const k = fresnel / chance
    return { direct, direction: above, weight: scale(shine, k), seesLights: mirror }
  }
  const k = (1 - fresnel) / (1 - chance)
  return { direct, direction: cosineDirection(normal, random), weight: scale(surface.albedo, k), seesLights: false }
}

/** One light, chosen at random, seen from a place: the matt part and, for rough surfaces, the shine (GGX, Walter et al. 2007). */
function directLight(
  scene: TracedScene,
  surface: Surface,
  place: Vector,
  facing: Vector,
  normal: Vector,
  direction: Vector,
  shine: number,
  random: Random,
): Vector {
  const count = scene.lights.length
  const light = scene.lights[Math.min(count - 1, Math.floor(random() * count))]
  if (!light) return [0, 0, 0]
  const target = along(light.centre, randomOnSphere(random), light.radius)
  const offset = subtract(target, place)
  const distance = length(offset)
  const towards = scale(offset, 1 / distance)
  const cosine = dot(normal, towards)
  if (cosine <= 0 || dot(facing, towards) <= 0) return [0, 0, 0]
  const clearness = clearWay(scene, along(place, facing, 2e-3), towards, distance - 2.2 * light.radius)
  if (!clearness) return [0, 0, 0]
  // Irradiance of a ball: radiance times its solid angle.
  const solidAngle = (Math.PI * light.radius * light.radius) / Math.max(distance * distance, light.radius * light.radius)
  const irradiance = scale(light.radiance, solidAngle * cosine * count)
  const matt = scale(surface.albedo, (1 - shine) / Math.PI)
  const half = normalise(subtract(towards, direction))
  const a2 = surface.roughness ** 4
  const d = dot(normal, half) ** 2 * (a2 - 1) + 1
  const specular = shine > 0 ? (shine * a2) / (Math.PI * d * d * 4 * Math.max(0.08, cosine * Math.max(0.1, -dot(normal, direction)))) : 0
  return multiply(multiply(irradiance, clearness), add(matt, scale(surface.shine ?? [1, 1, 1], specular)))
}

/** What gets through the glass on a way; nothing if anything else stands in it. */
function clearWay(scene: TracedScene, from: Vector, towards: Vector, far: number): Vector | undefined {
  let near = NEAR
  let clearness: Vector = [1, 1, 1]
  for (let pane = 0; pane < PANES; pane++) {
    const hit = scene.intersect(from, towards, near, far)
    if (!hit) return clearness
    const { clear } = hit.shape.material(along(from, towards, hit.t), hit.normal, hit.t)
    if (!clear) return undefined
    clearness = multiply(clearness, clear)
    near = hit.t + 5e-3
  }
  return undefined
}

function randomOnSphere(random: Random): Vector {
  const z = 2 * random() - 1
  const angle = 2 * Math.PI * random()
  const r = Math.sqrt(1 - z * z)
  return [r * Math.cos(angle), r * Math.sin(angle), z]
}

function cosineDirection(normal: Vector, random: Random): Vector {
  return normalise(along(normal, randomOnSphere(random), 0.999))
}

/** A normal of the microfacets (GGX). */
function roughNormal(normal: Vector, roughness: number, random: Random): Vector {
  const a = roughness * roughness
  const u = random()
  const cosine = Math.sqrt((1 - u) / (1 + (a * a - 1) * u))
  const sine = Math.sqrt(1 - cosine * cosine)
  const angle = 2 * Math.PI * random()
  const [x, y] = basis(normal)
  const aside = add(scale(x, Math.cos(angle)), scale(y, Math.sin(angle)))
  return normalise(blendNormal(normal, aside, cosine, sine))
}

function blendNormal(normal: Vector, aside: Vector, cosine: number, sine: number): Vector {
  return add(scale(normal, cosine), scale(aside, sine))
}
