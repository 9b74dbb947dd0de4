import { fractal, mixNumbers, noise, smoothstep } from '../../tracer/noise'
import type { Material } from '../../tracer/shapes'
import { blend, normalise, type Vector } from '../../tracer/vector'

/** How far a place lies out in the water, metres from the wandering edge of the last wave; negative on the sand. */
function offShore(x: number, z: number): number {
  return z - 9.2 - 0.16 * x - 2.6 * (fractal(x * 0.16 + 3, 8.3, 4, 33) - 0.5) - 0.35 * (noise(x * 1.3, 2, 34) - 0.5)
}

/** Wet sand that runs out into the sea; one surface, so that the edge of the wave is thin. */
export const shore: Material = (place, normal, distance) => {
  const out = offShore(place[0], place[2])
  return out > 0 ? water(place, distance, out) : sand(place, normal, out)
}

function sand([x, , z]: Vector, _normal: Vector, out: number): ReturnType<Material> {
  const height = (a: number, b: number): number =>
    0.012 * Math.sin(b * 9 + 5 * fractal(a * 0.8, b * 0.5, 3, 41)) + 0.03 * fractal(a * 3, b * 3, 4, 43) + 0.004 * noise(a * 70, b * 70, 45)
  const step = 0.012
  const here = height(x, z)
  const wet = Math.exp(out / 2.4) * 0.75 + 0.25 * smoothstep(0.42, 0.6, fractal(x * 0.5, z * 0.7, 4, 47))
  const bump = mixNumbers(1, 0.22, Math.min(1, wet))
  const grain = 0.75 + 0.5 * noise(x * 160, z * 160, 48)
  const shells = noise(x * 23, z * 23, 49) > 0.93 ? 1.7 : 1
  const tone = 0.085 * grain * shells * mixNumbers(1.15, 0.5, Math.min(1, wet))
  return {
    albedo: [tone * 1.12, tone, tone * 0.84],
    roughness: mixNumbers(0.62, 0.13, Math.min(1, wet)),
    reflectance: 0.028,
    normal: normalise([(-(height(x + step, z) - here) / step) * bump, 1, (-(height(x, z + step) - here) / step) * bump]),
  }
}

function water([x, , z]: Vector, distance: number, out: number): ReturnType<Material> {
  const deep = smoothstep(0, 14, out)
  const wave = (a: number, b: number): number =>
    (0.03 + 0.17 * deep) * fractal(a * 0.22, b * 0.62, 3, 91) + 0.02 * fractal(a * 1.7, b * 2.4, 3, 95) + 0.006 * noise(a * 7, b * 9, 97)
  const step = 0.02 + 0.002 * distance
  const here = wave(x, z)
  const fade = 1 / (1 + 0.006 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  const lace = fractal(x * 2.2, z * 3.4, 4, 51)
  const edge = Math.exp(-out / 0.35) * smoothstep(0.28, 0.5, lace + 0.2)
  const roller = smoothstep(0.05, 0, Math.abs(out - 4.4 - 1.4 * noise(x * 0.22, 5, 52)) - 0.25) * smoothstep(0.45, 0.62, lace)
  const foam = Math.min(1, edge + 0.8 * roller)
  return {
    albedo: blend([0.012, 0.02, 0.021], [0.62, 0.6, 0.58], foam),
    roughness: mixNumbers(0.06, 0.8, foam),
    reflectance: 0.022,
    normal: normalise([-slopeX, 1, -slopeZ]),
  }
}
