import { fractal, hash, smoothstep } from '../../tracer/noise'
import { blend, type Vector } from '../../tracer/vector'

function ridge(angle: number, scaleOf: number, height: number, seed: number): number {
  return height * (0.35 + 0.65 * fractal(angle * scaleOf + 40, 3.7, 5, seed))
}

export function sky(direction: Vector): Vector {
  const [x, y, z] = direction
  const up = Math.max(y, -0.02)
  const west = smoothstep(-0.2, 0.9, z * 0.8 - x * 0.45)
  let colour = blend([0.062, 0.098, 0.19], [0.01, 0.022, 0.062], smoothstep(0, 0.75, up))
  const glow = Math.exp(-up * 11) * west
  colour = [colour[0] + 0.2 * glow, colour[1] + 0.1 * glow, colour[2] + 0.045 * glow]
  const flat = 1 / (up + 0.09)
  const cover = fractal(x * flat * 0.62 + 3.1, z * flat * 1.15 + 1.7, 6, 5)
  const cloud = smoothstep(0.46, 0.74, cover) * smoothstep(-0.01, 0.09, up)
  const lit = blend([0.018, 0.027, 0.054], [0.13, 0.078, 0.07], Math.exp(-up * 6) * west)
  colour = blend(colour, lit, 0.75 * cloud)
  const angle = Math.atan2(x, z)
  const far = ridge(angle, 5, 0.075, 11)
  const near = ridge(angle, 9, 0.036, 23)
  if (y < far) colour = blend(colour, [0.034, 0.048, 0.088], smoothstep(0, 0.003, far - y))
  if (y < near) colour = blend(colour, [0.013, 0.018, 0.032], smoothstep(0, 0.002, near - y))
  return y < near ? addShoreLights(colour, angle, y) : colour
}

/** Houses on the other shore: small warm points close above the water. */
function addShoreLights(colour: Vector, angle: number, y: number): Vector {
  const cell = 0.011
  const i = Math.floor(angle / cell)
  if (hash(i, 7, 3) > 0.3) return colour
  const dx = angle - (i + 0.2 + 0.6 * hash(i, 1, 4)) * cell
  const dy = y - (0.003 + 0.011 * hash(i, 2, 4))
  const glow = 2.6 * hash(i, 3, 4) * Math.exp(-(dx * dx + dy * dy) / (2 * 0.0011 ** 2))
  const warm = hash(i, 4, 4)
  return [colour[0] + glow, colour[1] + glow * (0.55 + 0.25 * warm), colour[2] + glow * (0.25 + 0.35 * warm)]
}
