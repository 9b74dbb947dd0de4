import { fractal, smoothstep } from '../../tracer/noise'
import { blend, dot, normalise, scale, add, type Vector } from '../../tracer/vector'

/** Towards the low sun: a little to the left of the view, under three degrees above the water. */
export const towardsSun: Vector = normalise([-0.052, 0.047, 1])

/** Angular radius of the disc as it is seen; a little larger than the real one, as haze makes it. */
const DISC = 0.0062

export function sky(direction: Vector): Vector {
  const [x, y, z] = direction
  const up = Math.max(y, 0)
  const towards = Math.max(-1, Math.min(1, dot(direction, towardsSun)))
  const angle = Math.acos(towards)
  const sunward = smoothstep(2.4, 0, angle)
  let colour = blend([0.17, 0.24, 0.36], [0.045, 0.085, 0.19], smoothstep(0.05, 0.75, up))
  colour = blend(colour, blend([0.3, 0.23, 0.25], [0.98, 0.46, 0.17], sunward), Math.exp(-up * 6.2) * (0.35 + 0.65 * sunward))
  colour = add(colour, scale([1, 0.6, 0.26], 0.55 * Math.exp(-angle * 6.5) + 1.9 * Math.exp(-angle * 26)))
  colour = blend(colour, cloudLight(sunward, up, angle), 0.82 * clouds(x, z, up))
  const disc = smoothstep(DISC * 1.12, DISC * 0.9, angle)
  return blend(colour, [46, 30, 14], disc)
}

/** Long banks of cloud, seen from below. */
function clouds(x: number, z: number, up: number): number {
  const flat = 1 / (up + 0.1)
  const cover = fractal(x * flat * 0.34 + 11.4, z * flat * 1.05 + 4.2, 6, 15)
  const veil = fractal(x * flat * 0.9 + 2, z * flat * 2.6 + 7, 5, 19)
  return smoothstep(0.5, 0.72, cover * 0.8 + veil * 0.24) * smoothstep(0.015, 0.12, up)
}

/** The undersides catch the sun near it and are grey-violet away from it. */
function cloudLight(sunward: number, up: number, angle: number): Vector {
  const lit: Vector = [1.15 + 1.4 * Math.exp(-angle * 8), 0.5 + 0.7 * Math.exp(-angle * 8), 0.27 + 0.25 * Math.exp(-angle * 8)]
  return blend([0.1, 0.105, 0.15], lit, sunward ** 2.2 * Math.exp(-up * 2.3))
}
