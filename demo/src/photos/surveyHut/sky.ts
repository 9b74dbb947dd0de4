import { fractal, smoothstep } from '../../tracer/noise'
import { blend, type Vector } from '../../tracer/vector'

/** Snow cloud late in the day: even and grey-blue, a little lighter where the sun went. */
export function sky([x, y, z]: Vector): Vector {
  const up = Math.max(y, 0)
  const flat = 1 / (up + 0.2)
  const cover = fractal(x * flat * 0.7 + 1.2, z * flat * 0.7 + 4.3, 5, 57)
  const lighter = smoothstep(-0.3, 1, 0.8 * x + 0.4 * z)
  let colour = blend([0.42, 0.48, 0.57], [0.26, 0.31, 0.39], smoothstep(0, 0.6, up))
  colour = blend(colour, [1.25, 1.15, 1.06], 0.6 * lighter * Math.exp(-up * 2.2))
  return blend(colour, [0.36, 0.4, 0.47], 0.5 * smoothstep(0.4, 0.7, cover))
}
