import { fractal, smoothstep } from '../../tracer/noise'
import { blend, scale, type Vector } from '../../tracer/vector'

/** A clear sky long after sunset: the last glow low down over the water, deep blue above. */
export function sky([x, y, z]: Vector): Vector {
  const up = Math.max(y, 0)
  const sunward = smoothstep(-0.2, 1, 0.88 * z - 0.46 * x)
  let colour = blend([0.034, 0.052, 0.078], [0.0036, 0.0062, 0.0135], smoothstep(0, 0.5, up) ** 0.55)
  const glow = sunward * (0.25 + 0.75 * sunward)
  colour = blend(colour, [0.27, 0.14, 0.066], 0.8 * glow * Math.exp(-up * 17))
  colour = blend(colour, [0.085, 0.09, 0.092], 0.45 * glow * Math.exp(-up * 7.5))
  // One low bank of cloud far out.
  const bank = smoothstep(0.5, 0.62, fractal(x * 3.2 + 2.4, y * 46, 5, 37)) * smoothstep(0.005, 0.02, up) * smoothstep(0.085, 0.04, up)
  return blend(colour, scale([0.05, 0.052, 0.064], 1), 0.72 * bank)
}
