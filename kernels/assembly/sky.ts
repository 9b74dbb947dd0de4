import { clamp01, decode, splat } from './math'

/** Distance of a channel from its surface; `at` holds its twelve coefficients in the order of `skyBasis` of the core. */
// @ts-ignore: decorator
@inline
function offSurface(channel: v128, at: usize, u: f32, u2: f32, v: f32, v2: f32, glow: f32): f32 {
  const value = sqrt<f32>(max<f32>(0, f32x4.extract_lane(channel, 0)))
  const across = load<f32>(at) + load<f32>(at, 4) * u + load<f32>(at, 8) * u2
  const upwards = load<f32>(at, 12) * v + load<f32>(at, 16) * v2 + load<f32>(at, 20) * v2 * v
  const both = load<f32>(at, 24) * u * v + load<f32>(at, 28) * u2 * v + load<f32>(at, 32) * u * v2
  const low = glow * (load<f32>(at, 36) + load<f32>(at, 40) * u + load<f32>(at, 44) * u2)
  return abs<f32>(value - (across + upwards + both + low))
}

/** Mask of what lies above a horizon and on the surfaces of a sky; tones are sRGB-encoded. It falls from 1 to 0 between 0.6 and 1.4 of the tolerance. */
export function skyMask(
  red: usize, green: usize, blue: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  model: usize, photoWidth: f32, photoHeight: f32, px: f32, py: f32, upX: f32, upY: f32, tolerance: f32, out: usize,
): void {
  const edge = max<f32>(1, pitchY) / photoHeight
  for (let y = 0; y < height; y++) {
    const y1 = (<f32>(y0 + y) + 0.5) * pitchY
    for (let x = 0; x < width; x++) {
      const x1 = (<f32>(x0 + x) + 0.5) * pitchX
      const at = (<usize>(y * width + x)) << 2
      const height01 = ((x1 - px) * upX + (y1 - py) * upY) / photoHeight
      const over = min<f32>(1, max<f32>(0, height01 / edge + 0.5))
      if (over <= 0) {
        store<f32>(out + at, 0)
        continue
      }
      const u: f32 = (<f32>2 * x1) / photoWidth - 1
      const v = max<f32>(0, height01)
      const glow: f32 = 1 / (1 + 9 * v)
      const r = offSurface(decode(splat(load<f32>(red + at))), model, u, u * u, v, v * v, glow)
      const g = offSurface(decode(splat(load<f32>(green + at))), model + 48, u, u * u, v, v * v, glow)
      const b = offSurface(decode(splat(load<f32>(blue + at))), model + 96, u, u * u, v, v * v, glow)
      const t = f32x4.extract_lane(clamp01(splat((max<f32>(r, max<f32>(g, b)) / tolerance - 0.6) / 0.8)), 0)
      store<f32>(out + at, over * (1 - t * t * (3 - 2 * t)))
    }
  }
}
