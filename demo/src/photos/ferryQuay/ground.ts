import { fractal, hash, mixNumbers, noise, smoothstep } from '../../tracer/noise'
import type { Material } from '../../tracer/shapes'
import { normalise, scale, type Vector } from '../../tracer/vector'

/** Where the quay ends and the water begins, metres to the right. */
export const QUAY_EDGE = 3.1

/** Height of the paving: rows of worn setts with joints. Returns the height, the joint (0-1) and the stone's number. */
function paving(x: number, z: number): { height: number; joint: number; stone: number } {
  const coping = x > QUAY_EDGE - 0.62
  const depth = coping ? 1.15 : 0.165
  const wide = coping ? 0.66 : 0.245
  const shiftedX = coping ? x - QUAY_EDGE + 0.62 : x + 0.012 * (noise(x * 3, z * 3, 2) - 0.5)
  const row = Math.floor(z / depth)
  const offset = coping ? 0 : (row % 2) * 0.5 * wide + 0.05 * (hash(row, 5, 1) - 0.5)
  const column = Math.floor((shiftedX + offset) / wide)
  const u = (shiftedX + offset) / wide - column
  const v = z / depth - row
  const stone = hash(column, row, coping ? 9 : 8)
  const edge = Math.min(u * wide, (1 - u) * wide, v * depth, (1 - v) * depth)
  const rough = 0.006 * (noise(x * 60, z * 60, 14) - 0.5)
  const joint = 1 - smoothstep(0.003, coping ? 0.012 : 0.016, edge + rough)
  const dome = (coping ? 0.004 : 0.016) * smoothstep(0, coping ? 0.05 : 0.07, edge)
  const grain = 0.005 * fractal(x * 34, z * 34, 4, 31) + 0.0016 * noise(x * 190, z * 190, 33)
  return { height: dome + grain + 0.007 * stone - 0.012 * joint, joint, stone }
}

export const wetStone: Material = ([x, , z], _normal, distance) => {
  const here = paving(x, z)
  const step = 0.0025 + 0.0009 * distance
  const slopeX = (paving(x + step, z).height - here.height) / step
  const slopeZ = (paving(x, z + step).height - here.height) / step
  // Water stands where the ground is low and in the worn tracks.
  const hollow = fractal(x * 0.42 + 7, z * 0.3 + 2, 4, 51) + 0.16 * smoothstep(1.4, 0, Math.abs(x + 0.1 + 0.35 * Math.sin(z * 0.35)))
  const level = smoothstep(0.61, 0.76, hollow)
  const puddle = smoothstep(0.35, 0.75, level + 0.5 * (level > 0 ? here.joint - here.height * 18 : 0))
  const film = 0.55 + 0.45 * fractal(x * 2.6, z * 2.6, 3, 61)
  const tone = (0.05 + 0.085 * here.stone) * (0.7 + 0.6 * fractal(x * 21, z * 21, 4, 71)) * (1 - 0.7 * here.joint)
  const hue = hash(Math.floor(here.stone * 997), 3, 2)
  const dry: Vector = [tone * (1.02 + 0.1 * hue), tone, tone * (0.98 - 0.1 * hue)]
  const bump = ((1 - puddle) * (1 - 0.25 * film)) / (1 + 0.035 * distance)
  const rippleX = 0.02 * (noise(x * 5, z * 5, 81) - noise(x * 5 + 0.4, z * 5, 81)) * puddle
  return {
    albedo: scale(dry, mixNumbers(0.62, 0.34, puddle)),
    roughness: mixNumbers(mixNumbers(0.42, 0.24, film), 0.03, puddle),
    reflectance: mixNumbers(0.035, 0.026, puddle),
    normal: normalise([-slopeX * bump + rippleX, 1, -slopeZ * bump]),
  }
}

export const water: Material = ([x, , z], _normal, distance) => {
  const wave = (a: number, b: number): number => 0.05 * fractal(a * 0.55, b * 0.34, 3, 91) + 0.014 * fractal(a * 2.6, b * 1.9, 3, 95)
  const step = 0.03 + 0.002 * distance
  const here = wave(x, z)
  const fade = 1 / (1 + 0.012 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  return { albedo: [0.006, 0.011, 0.014], roughness: 0.05, reflectance: 0.021, normal: normalise([-slopeX, 1, -slopeZ]) }
}
