import { fractal, hash, mixNumbers } from '../../tracer/noise'
import { box, capsule, convex, sphere, type Material, type Shape } from '../../tracer/shapes'
import type { Light } from '../../tracer/trace'
import { normalise, scale, type Vector } from '../../tracer/vector'
import { QUAY_EDGE } from './ground'
import { glassLight, iron, masonry, rope, wood } from './materials'

export function lamp(x: number, z: number, height: number, radiance: Vector): { shapes: Shape[]; light: Light } {
  const centre: Vector = [x, height, z]
  const shapes = [
    capsule([x, 0, z], [x, 0.5, z], 0.115, iron),
    capsule([x, 0.5, z], [x, 0.62, z], 0.085, iron),
    capsule([x, 0.5, z], [x, height - 0.3, z], 0.052, iron),
    capsule([x, height - 0.34, z], [x, height - 0.24, z], 0.11, iron),
    ...[0, 1, 2, 3].map((i) => {
      const a = (i + 0.5) * (Math.PI / 2)
      return capsule(
        [x + 0.12 * Math.cos(a), height - 0.26, z + 0.12 * Math.sin(a)],
        [x + 0.2 * Math.cos(a), height + 0.27, z + 0.2 * Math.sin(a)],
        0.011,
        iron,
      )
    }),
    capsule([x, height + 0.3, z], [x, height + 0.34, z], 0.2, iron),
    sphere([x, height + 0.58, z], 0.05, iron),
    capsule([x, height + 0.34, z], [x, height + 0.56, z], 0.03, iron),
    sphere(centre, 0.13, glassLight(radiance)),
  ]
  return { shapes, light: { centre, radius: 0.13, radiance } }
}

export function bollard(z: number): Shape[] {
  const x = QUAY_EDGE - 0.36
  return [
    capsule([x, 0, z], [x, 0.38, z], 0.105, iron),
    capsule([x - 0.06, 0.43, z], [x + 0.06, 0.43, z], 0.125, iron),
    capsule([x, 0.0, z], [x, 0.01, z], 0.17, iron),
  ]
}

/** A slack line between two places, as a row of rods. */
export function line(from: Vector, to: Vector, sag: number, radius: number, material: Material): Shape[] {
  const count = 14
  const at = (i: number): Vector => {
    const t = i / count
    const drop = sag * 4 * t * (1 - t)
    return [mixNumbers(from[0], to[0], t), mixNumbers(from[1], to[1], t) - drop, mixNumbers(from[2], to[2], t)]
  }
  return Array.from({ length: count }, (_, i) => capsule(at(i), at(i + 1), radius, material))
}

export function waitingHouse(): Shape[] {
  const door: Material = (place, normal, distance) => {
    const [, y, z] = place
    if (normal[0] > 0.5) {
      const inDoor = Math.abs(z - 15.2) < 0.55 && y < 2.2 && y > 0.05
      const inWindow = [12.1, 18.6].some((at) => Math.abs(z - at) < 0.5) && y > 1.15 && y < 2.25
      const bar = inWindow && [12.1, 18.6].some((at) => Math.abs(z - at) < 0.025) ? true : Math.abs(y - 1.72) < 0.02 && inWindow
      if (inWindow && !bar) {
        const level = 0.17 * (0.55 + 0.7 * fractal(z * 2.3, y * 2.1, 3, 141))
        return { albedo: [0.01, 0.01, 0.01], roughness: 0.03, reflectance: 0.04, emission: scale([1, 0.62, 0.28], level) }
      }
      if (bar) return { albedo: [0.2, 0.2, 0.19], roughness: 0.5, reflectance: 0.04 }
      if (inDoor) return { albedo: [0.03, 0.06, 0.055], roughness: 0.4, reflectance: 0.045 }
    }
    return masonry(place, normal, distance)
  }
  const slate: Material = ([x, y, z]) => {
    const row = Math.floor((x + y) / 0.22)
    const tone = 0.03 + 0.03 * hash(row, Math.floor(z / 0.3 + 0.5 * (row % 2)), 15)
    return { albedo: [tone * 0.95, tone, tone * 1.1], roughness: 0.32, reflectance: 0.045 }
  }
  const slope: Vector = normalise([0.75, 1, 0])
  const roof = convex(
    [
      { normal: slope, offset: slope[0] * -4.35 + slope[1] * 3.05 },
      { normal: [-slope[0], slope[1], 0], offset: -slope[0] * -10.6 + slope[1] * 3.05 },
      { normal: [0, -1, 0], offset: -3 },
      { normal: [0, 0, 1], offset: 22.6 },
      { normal: [0, 0, -1], offset: -9.6 },
    ],
    { least: [-10.8, 3, 9.6], most: [-4.2, 5.6, 22.6] },
    slate,
  )
  return [
    box([-10.3, 0, 10], [-4.7, 3.1, 22.2], door),
    roof,
    box([-6.2, 4.2, 12.4], [-5.6, 5.9, 13], masonry),
    capsule([-4.62, 0, 10.15], [-4.62, 3, 10.15], 0.045, iron),
  ]
}

export function cargo(): Shape[] {
  return [
    box([-3.5, 0, 7.5], [-2.65, 0.66, 8.45], wood),
    box([-3.42, 0.66, 7.62], [-2.86, 1.14, 8.2], wood),
    box([-4.35, 0, 7.9], [-3.62, 0.52, 8.7], wood),
    // A coil of rope.
    ...Array.from({ length: 40 }, (_, i) => {
      const a = i * 0.47
      const b = a + 0.47
      const r = 0.3 - 0.0015 * i
      const y = 0.04 + 0.0042 * i
      return capsule(
        [-1.9 + r * Math.cos(a), y, 6.3 + r * Math.sin(a)],
        [-1.9 + r * Math.cos(b), y + 0.0042, 6.3 + r * Math.sin(b)],
        0.032,
        rope,
      )
    }),
  ]
}
