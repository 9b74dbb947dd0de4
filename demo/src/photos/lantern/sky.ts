import { fractal, mixNumbers, smoothstep } from '../../tracer/noise'
import { blend, scale, type Vector } from '../../tracer/vector'

// Outside the window: dusk over the sea. Inside, behind the camera: a dim room.

const ROOM: Vector = [0.05, 0.04, 0.03]
const SEA: Vector = [0.06, 0.1, 0.14]

export function sky([x, y, z]: Vector): Vector {
  if (z < 0.05) return scale(ROOM, 0.7 + 0.6 * Math.max(0, y))
  const across = x / Math.max(0.05, z)
  const up = y / Math.max(0.05, z)
  // The horizon lies a little below the camera.
  const level = up + 0.1
  if (level < 0) return blend(SEA, [0.4, 0.3, 0.22], 0.7 * Math.exp(30 * level) * smoothstep(0.7, 0, Math.abs(across + 0.25)))
  const low: Vector = [1.7, 0.86, 0.42]
  const high: Vector = [0.34, 0.6, 1.05]
  const clouds = smoothstep(0.42, 0.75, fractal(across * 3, up * 14 + 3, 5, 911))
  const clear = blend(low, high, smoothstep(0, 0.5, level))
  const cloud: Vector = [mixNumbers(0.9, 0.45, smoothstep(0, 0.4, level)), 0.5, 0.52]
  return scale(blend(clear, cloud, 0.6 * clouds), 0.36)
}
