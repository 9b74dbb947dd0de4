import { hash, mixNumbers, noise, smoothstep } from '../tracer/noise'
import type { Surface } from '../tracer/shapes'
import { normalise, type Vector } from '../tracer/vector'

/** Rounded pebbles of about 5 cm on flat ground; `offShore`, metres, is negative on land: they are wet near 0. */
export function pebbles([x, , z]: Vector, offShore: number): Surface {
  const cell = 0.055
  let best = { away: 9, tone: 0, dx: 0, dz: 0 }
  for (let a = -1; a <= 1; a++) {
    for (let b = -1; b <= 1; b++) {
      const [i, j] = [Math.floor(x / cell) + a, Math.floor(z / cell) + b]
      const dx = x / cell - i - 0.2 - 0.6 * hash(i, j, 61)
      const dz = z / cell - j - 0.2 - 0.6 * hash(i, j, 62)
      const away = Math.hypot(dx, dz) * (0.8 + 0.5 * hash(i, j, 63))
      if (away < best.away) best = { away, tone: hash(i, j, 64), dx, dz }
    }
  }
  const wet = smoothstep(-1.1, -0.1, offShore)
  const gap = smoothstep(0.42, 0.68, best.away)
  const tone = mixNumbers(0.06 + 0.13 * best.tone, 0.022, gap) * mixNumbers(1, 0.45, wet) * (0.8 + 0.4 * noise(x * 90, z * 90, 65))
  return {
    albedo: [tone * (1 + 0.12 * hash(Math.floor(best.tone * 999), 1, 2)), tone, tone * 0.95],
    roughness: mixNumbers(0.7, 0.22, wet),
    reflectance: 0.03,
    normal: normalise([best.dx * 1.1, 1, best.dz * 1.1]),
  }
}
