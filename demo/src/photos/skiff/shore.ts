import { fractal, hash, mixNumbers, smoothstep } from '../../tracer/noise'
import { implicit, terrain, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, type Vector } from '../../tracer/vector'
import { pebbles } from '../../materials/pebbles'

/** Metres out into the water from the beach; negative on it. */
function offShore(x: number, z: number): number {
  return z - 4.5 - 0.14 * x - 1.1 * (fractal(x * 0.5, 7.1, 4, 121) - 0.5)
}

/** A calm sound at night, and the shingle at the camera's feet. */
export const sound: Material = (place, _normal, distance) => {
  const off = offShore(place[0], place[2])
  return off > 0 ? water(place, distance, off) : pebbles(place, off)
}

function water([x, , z]: Vector, distance: number, off: number): ReturnType<Material> {
  const wave = (a: number, b: number): number => 0.012 * fractal(a * 0.5, b * 0.9, 3, 191) + 0.0024 * fractal(a * 3.1, b * 4.4, 3, 195)
  const breath = smoothstep(0.46, 0.66, fractal(x * 0.012 + 3, z * 0.05, 3, 197))
  const step = 0.02 + 0.002 * distance
  const here = wave(x, z)
  const fade = ((0.5 + 1.9 * breath) / (1 + 0.01 * distance)) * smoothstep(0, 0.7, off)
  return {
    albedo: blend([0.008, 0.013, 0.015], [0.05, 0.045, 0.038], Math.exp(-off / 0.9)),
    roughness: 0.04,
    reflectance: 0.021,
    normal: normalise([-((wave(x + step, z) - here) / step) * fade, 1, -((wave(x, z + step) - here) / step) * fade]),
  }
}

const dark: Material = ([x, y, z]) => {
  const tone = 0.03 + 0.03 * fractal(x * 0.05, y * 0.2 + z * 0.05, 4, 205)
  return { albedo: [tone * 0.9, tone, tone * 0.9], roughness: 0.95, reflectance: 0.01 }
}

const stone: Material = ([x, y, z], normal) => {
  const tone = 0.06 + 0.07 * fractal(x * 5, z * 5 + y * 4, 5, 207)
  const wet = smoothstep(0.2, 0.03, y)
  return {
    albedo: [tone, tone, tone * 0.96],
    roughness: mixNumbers(0.8, 0.25, wet),
    reflectance: 0.03,
    normal: normalise([
      normal[0] + 0.5 * (fractal(x * 9, z * 9, 3, 1) - 0.5),
      normal[1],
      normal[2] + 0.5 * (fractal(z * 9, y * 9, 3, 2) - 0.5),
    ]),
  }
}

/** Low wooded islands across the sound. */
export function islands(): Shape[] {
  const island = (middle: readonly [number, number], size: readonly [number, number], height: number, seed: number): Shape => {
    const surface = (x: number, z: number): number => {
      const [u, v] = [(x - middle[0]) / size[0], (z - middle[1]) / size[1]]
      const body = Math.max(0, 1 - u * u - v * v) ** 0.6 * (0.5 + 0.9 * fractal(x / (0.22 * size[0]), z / size[1], 4, seed))
      const trees = 0.2 * fractal(x / 7, z / 30, 3, seed + 3) + 0.13 * hash(Math.floor(x / 5), 1, seed)
      return height * body * (0.75 + trees) - 0.5
    }
    const least: Vector = [middle[0] - size[0], -0.3, middle[1] - size[1]]
    return terrain(surface, least, [middle[0] + size[0], height * 1.5, middle[1] + size[1]], 3, dark)
  }
  return [
    island([-330, 950], [300, 110], 34, 3),
    island([-40, 1700], [420, 160], 52, 5),
    island([620, 1350], [380, 150], 46, 7),
    island([250, 2600], [900, 200], 110, 9),
  ]
}

/** Stones at the water's edge: flattened and lumpy. */
export function stones(): Shape[] {
  return Array.from({ length: 46 }, (_, i) => {
    const x = -6 + 12 * hash(i, 1, 301)
    const z = 4.1 + 0.14 * x + 2.4 * hash(i, 2, 301) ** 1.7
    const size = 0.06 + 0.26 * hash(i, 3, 301) ** 3
    const [wide, tall, turn] = [1 + 0.7 * hash(i, 4, 301), 0.5 + 0.35 * hash(i, 5, 301), 3 * hash(i, 6, 301)]
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
    const surface = ([px, py, pz]: Vector): number => {
      const [dx, dy, dz] = [px - x, py + 0.2 * size, pz - z]
      const [u, v, w] = [(cos * dx - sin * dz) / wide, dy / tall, sin * dx + cos * dz]
      const lumps = 0.34 * size * (fractal(u / size + i, (v + w) / size, 3, 303) - 0.5)
      return 0.45 * (Math.hypot(u, v, w) - size + lumps)
    }
    const reach = 1.9 * size
    return implicit(surface, { least: [x - reach, -0.02, z - reach], most: [x + reach, size, z + reach] }, stone)
  })
}
