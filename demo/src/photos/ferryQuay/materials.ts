import { fractal, hash, mixNumbers, noise, smoothstep } from '../../tracer/noise'
import type { Material } from '../../tracer/shapes'
import { blend, normalise, scale, type Vector } from '../../tracer/vector'

export const iron: Material = ([x, y, z]) => {
  const rust = smoothstep(0.55, 0.75, fractal(x * 9 + z * 5, y * 9, 4, 101))
  return { albedo: blend([0.016, 0.018, 0.021], [0.07, 0.032, 0.016], rust), roughness: mixNumbers(0.34, 0.7, rust), reflectance: 0.05 }
}

export const rope: Material = ([x, y, z]) => {
  const lay = 0.5 + 0.5 * Math.sin(90 * (x + y + z))
  return { albedo: scale([0.17, 0.13, 0.08], 0.5 + 0.5 * lay), roughness: 0.9, reflectance: 0.02 }
}

export const wood: Material = ([x, y, z]) => {
  const grain = fractal(x * 3 + y * 40, z * 3 + y * 6, 4, 111)
  const board = Math.floor(y / 0.16)
  const gap = smoothstep(0.0, 0.012, Math.abs(y / 0.16 - board - 0.5) * -0.16 + 0.08)
  const tone = (0.4 + 0.9 * grain) * (0.75 + 0.5 * hash(board, 2, 2)) * (0.25 + 0.75 * gap)
  return { albedo: scale([0.1, 0.07, 0.046], tone), roughness: 0.5, reflectance: 0.035 }
}

/** Rubble masonry of the waiting house. */
export const masonry: Material = ([x, y, z], normal) => {
  const along = Math.abs(normal[0]) > 0.5 ? z : x
  const row = Math.floor(y / 0.31)
  const shifted = along + 0.33 * hash(row, 3, 6)
  const column = Math.floor(shifted / 0.62)
  const u = shifted / 0.62 - column
  const v = y / 0.31 - row
  const edge = Math.min(u * 0.62, (1 - u) * 0.62, v * 0.31, (1 - v) * 0.31) + 0.012 * (noise(along * 30, y * 30, 7) - 0.5)
  const mortar = 1 - smoothstep(0.008, 0.028, edge)
  const damp = smoothstep(1.6, 0, y + 0.8 * fractal(along * 1.2, 3, 3, 8))
  const tone = (0.075 + 0.09 * hash(column, row, 12)) * (0.6 + 0.8 * fractal(along * 14, y * 14, 4, 13)) * (1 - 0.5 * damp)
  const stone: Vector = [tone * 1.06, tone, tone * 0.92]
  const bump = 3.2 * (fractal(along * 14 + 0.05, y * 14, 3, 13) - fractal(along * 14, y * 14, 3, 13))
  const tilt: Vector = Math.abs(normal[0]) > 0.5 ? [normal[0], bump * 0.4, bump] : [bump, bump * 0.4, normal[2]]
  return {
    albedo: blend(stone, [0.1, 0.096, 0.09], mortar * 0.7),
    roughness: 0.75 - 0.3 * damp,
    reflectance: 0.03,
    normal: normalise(tilt),
  }
}

export const glassLight =
  (radiance: Vector): Material =>
  () => ({ albedo: [0, 0, 0], roughness: 1, reflectance: 0, emission: radiance })
