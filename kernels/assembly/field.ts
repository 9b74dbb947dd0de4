import { clamp01, power, splat } from './math'

// A field is a plane of intensities. At a reduced scale it may carry a second plane, the variance inside
// each pixel ("spread"): a pixel of mean m and spread s is read as a part c = m^2 / (m^2 + s) of it
// covered by the intensity p = (m^2 + s) / m, the rest empty. What is not linear is applied to p, not to m.

// @ts-ignore: decorator
@inline
function level(v: v128, black: v128, scale: v128, inverseGamma: v128, plain: bool): v128 {
  const t = clamp01(f32x4.mul(f32x4.sub(v, black), scale))
  return plain ? t : power(t, inverseGamma)
}

/** Levels: black and white point (white > black), then gamma. `spread` and `outSpread` may be 0. */
export function levels(mean: usize, spread: usize, count: i32, black: f32, white: f32, gamma: f32, out: usize, outSpread: usize): void {
  const b = splat(black)
  const k = splat(<f32>1.0 / (white - black))
  const g = splat(<f32>1.0 / gamma)
  const plain = gamma == 1
  const bytes = (<usize>count) << 2
  if (spread == 0) {
    for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, level(v128.load(mean + i), b, k, g, plain))
    return
  }
  const empty = level(splat(0), b, k, g, plain)
  for (let i: usize = 0; i < bytes; i += 16) {
    const m = f32x4.max(v128.load(mean + i), splat(1e-12))
    const second = f32x4.add(f32x4.mul(m, m), v128.load(spread + i))
    const p = f32x4.div(second, m)
    const c = f32x4.div(m, p)
    const full = level(p, b, k, g, plain)
    const rest = f32x4.sub(splat(1), c)
    const newMean = f32x4.add(f32x4.mul(c, full), f32x4.mul(rest, empty))
    const newSecond = f32x4.add(f32x4.mul(c, f32x4.mul(full, full)), f32x4.mul(rest, f32x4.mul(empty, empty)))
    v128.store(out + i, newMean)
    v128.store(outSpread + i, f32x4.max(splat(0), f32x4.sub(newSecond, f32x4.mul(newMean, newMean))))
  }
}

/** out = a + b. `out` may be one of them. */
export function addPlanes(a: usize, b: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.add(v128.load(a + i), v128.load(b + i)))
}

/** out = src * factor. */
export function scalePlane(src: usize, count: i32, factor: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const k = splat(factor)
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.mul(k, v128.load(src + i)))
}

/**
 * Affine placement with bilinear reading: pixel (x, y) of `dst` reads `src` at
 * (a x + b y + c, d x + e y + f), in pixels of `src` from its corner, pixel centres at whole numbers.
 * Outside, the border of `src` repeats.
 */
export function placePlane(
  src: usize, srcWidth: i32, srcHeight: i32, dst: usize, width: i32, height: i32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = Math.max(0, Math.min(<f64>(srcWidth - 1), a * <f64>x + b * <f64>y + c))
      const v = Math.max(0, Math.min(<f64>(srcHeight - 1), d * <f64>x + e * <f64>y + f))
      const ix = min(<i32>u, max(srcWidth - 2, 0))
      const iy = min(<i32>v, max(srcHeight - 2, 0))
      const tx = <f32>(u - <f64>ix)
      const ty = <f32>(v - <f64>iy)
      const stepX: usize = srcWidth > 1 ? 4 : 0
      const stepY: usize = srcHeight > 1 ? (<usize>srcWidth) << 2 : 0
      const p = src + ((<usize>(iy * srcWidth + ix)) << 2)
      const p00 = load<f32>(p)
      const p10 = load<f32>(p + stepX)
      const p01 = load<f32>(p + stepY)
      const p11 = load<f32>(p + stepY + stepX)
      const top = p00 + tx * (p10 - p00)
      const bottom = p01 + tx * (p11 - p01)
      store<f32>(dst + ((<usize>(y * width + x)) << 2), top + ty * (bottom - top))
    }
  }
}
