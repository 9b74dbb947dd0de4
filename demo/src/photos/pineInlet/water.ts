import { pebbles } from '../../materials/pebbles'
import { fractal, hash, mixNumbers, smoothstep } from '../../tracer/noise'
import { sphere, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, type Vector } from '../../tracer/vector'

/** Metres out into the water from the pebbles; negative on them. */
function offShore(x: number, z: number): number {
  return z - 5.6 + 0.28 * x - 1.3 * (fractal(x * 0.4, 3.1, 4, 21) - 0.5)
}

/** Still water that carries the far shore upside down, and the pebbles at the camera's feet. */
export const inlet: Material = (place, _normal, distance) => {
  const off = offShore(place[0], place[2])
  return off > 0 ? water(place, distance) : pebbles(place, off)
}

function water([x, , z]: Vector, distance: number): ReturnType<Material> {
  const wave = (a: number, b: number): number => 0.011 * fractal(a * 0.35, b * 0.6, 3, 91) + 0.0016 * fractal(a * 2.6, b * 3.4, 3, 95)
  // A breath of wind roughens some stretches.
  const breath = smoothstep(0.5, 0.66, fractal(x * 0.008 + 3, z * 0.03, 3, 97))
  const step = 0.02 + 0.002 * distance
  const here = wave(x, z)
  const fade = (0.55 + 1.6 * breath) / (1 + 0.008 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  const shallow = Math.exp(-offShore(x, z) / 1.6)
  return {
    albedo: blend([0.008, 0.014, 0.013], [0.05, 0.047, 0.036], shallow),
    roughness: 0.04,
    reflectance: 0.021,
    normal: normalise([-slopeX, 1, -slopeZ]),
  }
}

const boulder: Material = ([x, y, z], normal) => {
  const height = (a: number, b: number): number => 0.05 * fractal(a * 6, b * 6 + y, 5, 83)
  const step = 0.02
  const here = height(x, z)
  const moss = smoothstep(0.5, 0.9, normal[1]) * smoothstep(0.45, 0.6, fractal(x * 3, z * 3, 4, 84))
  const tone = 0.075 + 0.06 * fractal(x * 4, z * 4 + y * 3, 5, 85)
  return {
    albedo: blend([tone * 1.02, tone, tone * 0.95], [0.035, 0.046, 0.012], moss),
    roughness: mixNumbers(0.75, 0.3, smoothstep(0.22, 0.05, y)),
    reflectance: 0.03,
    normal: normalise([normal[0] - (height(x + step, z) - here) / step, normal[1], normal[2] - (height(x, z + step) - here) / step]),
  }
}

/** Rounded rocks at the water's edge. */
export function boulders(): Shape[] {
  const places: readonly (readonly [number, number, number])[] = [
    [-2.7, 5.4, 0.55],
    [-3.5, 6.1, 0.38],
    [-1.9, 6.3, 0.24],
    [3.4, 5.2, 0.34],
    [4.4, 7.2, 0.5],
    [1.2, 8.1, 0.2],
    [-5.6, 9.2, 0.7],
  ]
  return places.flatMap(([x, z, size], i) => [
    sphere([x, -0.12 * size, z], size, boulder),
    sphere([x + 0.5 * size, -0.25 * size, z + 0.3 * size * (hash(i, 1, 4) - 0.5)], 0.8 * size, boulder),
    sphere([x - 0.45 * size, -0.3 * size, z - 0.2 * size], 0.72 * size, boulder),
  ])
}
