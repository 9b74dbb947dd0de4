import { decode, splat } from './math'

/** The twelve coefficients, in the order of `skyBasis` of the core, each for red, green and blue side by side. */
const surfaces = memory.data(12 * 16)

function layOut(model: usize): void {
  for (let k: usize = 0; k < 12; k++) {
    const at = model + (k << 2)
    const to = surfaces + (k << 4)
    store<f32>(to, load<f32>(at))
    store<f32>(to, load<f32>(at, 48), 4)
    store<f32>(to, load<f32>(at, 96), 8)
    store<f32>(to, 0, 12)
  }
}

/** A coefficient of all channels times what stands at it. */
// @ts-ignore: decorator
@inline
function term(k: usize, factor: f32): v128 {
  return f32x4.mul(v128.load(surfaces + (k << 4)), splat(factor))
}

/** Distances of red, green and blue from their surfaces. */
// @ts-ignore: decorator
@inline
function offSurfaces(tones: v128, u: f32, u2: f32, v: f32, v2: f32, glow: f32): v128 {
  const values = f32x4.sqrt(f32x4.pmax(splat(0), decode(tones)))
  const across = f32x4.add(f32x4.add(v128.load(surfaces), term(1, u)), term(2, u2))
  const upwards = f32x4.add(f32x4.add(term(3, v), term(4, v2)), f32x4.mul(term(5, v2), splat(v)))
  const both = f32x4.add(f32x4.add(f32x4.mul(term(6, u), splat(v)), f32x4.mul(term(7, u2), splat(v))), f32x4.mul(term(8, u), splat(v2)))
  const low = f32x4.mul(splat(glow), f32x4.add(f32x4.add(v128.load(surfaces + 144), term(10, u)), term(11, u2)))
  return f32x4.abs(f32x4.sub(values, f32x4.add(f32x4.add(f32x4.add(across, upwards), both), low)))
}

/** Mask of what lies above a horizon and on the surfaces of a sky; tones are sRGB-encoded. It falls from 1 to 0 between 0.6 and 1.4 of the tolerance. */
export function skyMask(
  red: usize, green: usize, blue: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  model: usize, photoWidth: f32, photoHeight: f32, px: f32, py: f32, upX: f32, upY: f32, tolerance: f32, out: usize,
): void {
  layOut(model)
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
      const tones = f32x4.replace_lane(f32x4.replace_lane(splat(load<f32>(red + at)), 1, load<f32>(green + at)), 2, load<f32>(blue + at))
      const off = offSurfaces(tones, u, u * u, v, v * v, glow)
      const most = max<f32>(f32x4.extract_lane(off, 0), max<f32>(f32x4.extract_lane(off, 1), f32x4.extract_lane(off, 2)))
      const t = min<f32>(1, max<f32>(0, (most / tolerance - 0.6) / 0.8))
      store<f32>(out + at, over * (1 - t * t * (3 - 2 * t)))
    }
  }
}
