import { clamp01, mulAdd, power, splat } from './math'

// A field is a plane of intensities. At a reduced scale it may carry a second plane, the variance inside
// each pixel ("spread"). What is not linear must not be applied to the mean: a thin bright streak is not the same
// as a faint pixel. Levels read mean and spread as a streak of Gaussian profile that covers part of the pixel.

// The profile exp(-x^2 / 2) at six equal steps of 0 to 2.6, with its mean and mean square.
const profile: usize = memory.data<f32>([0.9768, 0.8096, 0.5561, 0.3166, 0.1494, 0.0584])
const PROFILE_MEAN: f64 = 0.47781096
const PROFILE_SQUARE: f64 = 0.34079223

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
    const m = f32x4.pmax(v128.load(mean + i), splat(1e-12))
    const s = v128.load(spread + i)
    // Profile: what a part q of the pixel would have to be a Gaussian streak of, to have this mean and variance.
    const peak = f32x4.mul(f32x4.div(mulAdd(m, m, s), m), splat(<f32>(PROFILE_MEAN / PROFILE_SQUARE)))
    const part = f32x4.div(m, f32x4.mul(peak, splat(<f32>PROFILE_MEAN)))
    const rest = f32x4.sub(splat(1), part)
    let first = f32x4.mul(rest, empty)
    let second = f32x4.mul(first, empty)
    const share = f32x4.mul(part, splat(<f32>(1.0 / 6.0)))
    for (let node: usize = 0; node < 24; node += 4) {
      const v = level(f32x4.mul(peak, v128.load32_splat(profile + node)), b, k, g, plain)
      const weighted = f32x4.mul(share, v)
      first = f32x4.add(first, weighted)
      second = mulAdd(weighted, v, second)
    }
    // A pixel inside a wide streak: two values to both sides of the mean.
    const deviation = f32x4.sqrt(s)
    const low = level(f32x4.sub(m, deviation), b, k, g, plain)
    const high = level(f32x4.add(m, deviation), b, k, g, plain)
    const inside = f32x4.gt(part, splat(1))
    const newMean = v128.bitselect(f32x4.mul(splat(0.5), f32x4.add(low, high)), first, inside)
    const newSecond = v128.bitselect(f32x4.mul(splat(0.5), mulAdd(low, low, f32x4.mul(high, high))), second, inside)
    v128.store(out + i, newMean)
    v128.store(outSpread + i, f32x4.pmax(splat(0), f32x4.sub(newSecond, f32x4.mul(newMean, newMean))))
  }
}

/** out = a + b. `out` may be one of them. */
export function addPlanes(a: usize, b: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.add(v128.load(a + i), v128.load(b + i)))
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

/** Bright from 0 to `part` of each period: the integral from 0 to `x`, in periods. */
function stripesTo(x: f64, part: f64): f64 {
  const whole = Math.floor(x)
  return whole * part + Math.min(x - whole, part)
}

/** Stripes across the unit vector (acrossX, acrossY), `period` photo px apart, bright over `part` of it; each pixel takes what they cover of its width. */
export function stripes(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64, period: f64, part: f64, acrossX: f64, acrossY: f64, shift: f64,
): void {
  const span = Math.max(0.05, Math.abs(acrossX) * pitchX + Math.abs(acrossY) * pitchY) / period
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = ((<f64>(x0 + x) + 0.5) * pitchX * acrossX + (<f64>(y0 + y) + 0.5) * pitchY * acrossY) / period + shift
      const covered = stripesTo(at + 0.5 * span, part) - stripesTo(at - 0.5 * span, part)
      store<f32>(out + ((<usize>(y * width + x)) << 2), <f32>(covered / span))
    }
  }
}

/** Highest intensity in a pixel, from its mean and the variance inside it: m + 1.4 s / m, at most 1, as for a Gaussian profile that covers part of it; m where it is even. */
export function peakPlane(mean: usize, spread: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const m = v128.load(mean + i)
    const peak = f32x4.add(m, f32x4.div(f32x4.mul(splat(1.4), v128.load(spread + i)), f32x4.pmax(m, splat(1e-6))))
    v128.store(out + i, f32x4.pmax(m, f32x4.pmin(splat(1), peak)))
  }
}

/**
 * Each value, or that of an arm if it is nearer to a half: the value less `aside` times how far `open` is shut, its distance from a half as many times as large as the arm is thinner,
 * which is `width` times the root of `open`. Where `open` is 1 there is no arm.
 */
export function forkField(src: usize, open: usize, count: i32, aside: f32, width: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const half = splat(0.5)
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = v128.load(src + i)
    const left = v128.load(open + i)
    const shut = f32x4.sub(splat(1), left)
    const thin = f32x4.pmax(splat(1e-6), f32x4.mul(splat(width), f32x4.sqrt(left)))
    const arm = f32x4.div(f32x4.sub(f32x4.sub(v, f32x4.mul(splat(aside), shut)), half), thin)
    const nearer = v128.and(f32x4.lt(f32x4.abs(arm), f32x4.abs(f32x4.sub(v, half))), f32x4.gt(shut, splat(0)))
    v128.store(out + i, v128.bitselect(f32x4.add(half, arm), v, nearer))
  }
}

/** Integral of 1 - |u| from its beginning at -1 to `u`. */
// @ts-ignore: decorator
@inline
function tentTo(u: f32): f32 {
  const v = max<f32>(-1, min<f32>(1, u))
  return v < 0 ? <f32>0.5 * (1 + v) * (1 + v) : 1 - <f32>0.5 * (1 - v) * (1 - v)
}

/**
 * 1 where a field is a half, falling to 0 where it is `reach` from that; the mean over what a pixel spans of the field. `src` is a plane of `width` + 2 by `height` + 2. Of the steps to
 * the two neighbours the smaller counts, so that a jump beside a pixel is not taken for a slope.
 */
export function lineAtHalf(src: usize, width: i32, height: i32, reach: f32, out: usize): void {
  const stride = (<usize>(width + 2)) << 2
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = src + (<usize>(y + 1)) * stride + ((<usize>(x + 1)) << 2)
      const v = load<f32>(p)
      const across = min<f32>(abs<f32>(load<f32>(p + 4) - v), abs<f32>(v - load<f32>(p - 4)))
      const down = min<f32>(abs<f32>(load<f32>(p + stride) - v), abs<f32>(v - load<f32>(p - stride)))
      const middle = (v - 0.5) / reach
      const half = max<f32>(0.02, (<f32>0.5 * sqrt<f32>(across * across + down * down)) / reach)
      const mean: f32 = abs<f32>(middle) > 1 + half ? <f32>0 : (tentTo(middle + half) - tentTo(middle - half)) / (2 * half)
      store<f32>(out + ((<usize>(y * width + x)) << 2), mean)
    }
  }
}
