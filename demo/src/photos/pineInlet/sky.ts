import { fractal, smoothstep } from '../../tracer/noise'
import { blend, type Vector } from '../../tracer/vector'

/** An overcast morning: bright low down where the sun stands behind the cloud, grey-blue above. */
export function sky([x, y, z]: Vector): Vector {
  const up = Math.max(y, 0)
  const flat = 1 / (up + 0.14)
  const cover = fractal(x * flat * 0.5 + 5.2, z * flat * 0.9 + 1.3, 6, 7)
  const sunward = smoothstep(0.1, 1, z * 0.9 + x * 0.42)
  let colour = blend([0.86, 0.84, 0.8], [0.36, 0.42, 0.5], smoothstep(0, 0.7, up))
  colour = blend(colour, [1.12, 1.0, 0.84], 0.5 * sunward * Math.exp(-up * 4))
  return blend(colour, [0.5, 0.53, 0.57], 0.55 * smoothstep(0.42, 0.72, cover) * smoothstep(0.02, 0.25, up))
}
