import { clamp01, decode, exp2, log2, power, splat } from './math'

// What a luminosity mask reads. The numbers are those of `toneChannels` in the core.
const ENCODED_LUMA = 0
const LINEAR_LUMINANCE = 1
const LIGHTNESS = 2
const RED = 3
const GREEN = 4
const BLUE = 5
const MAXIMUM = 6
const SATURATION = 7

// @ts-ignore: decorator
@inline
function weighted(r: v128, g: v128, b: v128): v128 {
  // Luminance coefficients of ITU-R BT.709.
  return f32x4.add(f32x4.mul(splat(0.2126), r), f32x4.add(f32x4.mul(splat(0.7152), g), f32x4.mul(splat(0.0722), b)))
}

// @ts-ignore: decorator
@inline
function lightness(y: v128): v128 {
  // CIE 15 lightness, divided by 100. 216/24389 and 24389/27 are the exact constants of the standard.
  const root = exp2(f32x4.mul(splat(<f32>(1.0 / 3.0)), log2(f32x4.pmax(y, splat(0.008)))))
  const curve = f32x4.sub(f32x4.mul(splat(1.16), root), splat(0.16))
  return v128.bitselect(f32x4.mul(y, splat(<f32>(24389.0 / 2700.0))), curve, f32x4.le(y, splat(<f32>(216.0 / 24389.0))))
}

/** Tones 0-1 that a mask reads from three encoded planes. */
export function tonePlane(channel: i32, r: usize, g: usize, b: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = clamp01(v128.load(r + i))
    const green = clamp01(v128.load(g + i))
    const blue = clamp01(v128.load(b + i))
    let v = red
    if (channel == ENCODED_LUMA) v = weighted(red, green, blue)
    else if (channel == LINEAR_LUMINANCE) v = weighted(decode(red), decode(green), decode(blue))
    else if (channel == LIGHTNESS) v = lightness(weighted(decode(red), decode(green), decode(blue)))
    else if (channel == GREEN) v = green
    else if (channel == BLUE) v = blue
    else if (channel == MAXIMUM) v = f32x4.pmax(red, f32x4.pmax(green, blue))
    else if (channel == SATURATION) v = f32x4.sub(f32x4.pmax(red, f32x4.pmax(green, blue)), f32x4.pmin(red, f32x4.pmin(green, blue)))
    v128.store(out + i, clamp01(v))
  }
}

// Curves of a luminosity mask, in the order of `toneCurves` in the core.
const BRIGHTS = 0
const DARKS = 1
const MIDS = 2
const RANGE = 3

// @ts-ignore: decorator
@inline
function shoulder(v: v128, from: f32, to: f32): v128 {
  if (to <= from) return v128.bitselect(splat(1), splat(0), f32x4.ge(v, splat(from)))
  const t = clamp01(f32x4.mul(f32x4.sub(v, splat(from)), splat(<f32>1.0 / (to - from))))
  return f32x4.mul(f32x4.mul(t, t), f32x4.sub(splat(3), f32x4.mul(splat(2), t)))
}

/**
 * Mask 0-1 from tones. `steepness` n >= 0 multiplies the curve n more times with itself; n < 0 does so to its
 * complement. A range rises from `start` to `full`, falls from `fullEnd` to `end`; a range that starts at 0 or
 * ends at 1 with no shoulder includes that end.
 */
export function maskCurve(tones: usize, count: i32, curve: i32, start: f32, full: f32, fullEnd: f32, end: f32, steepness: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const exponent = splat(<f32>1.0 + abs<f32>(steepness))
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = v128.load(tones + i)
    let m = v
    if (curve == DARKS) m = f32x4.sub(splat(1), v)
    else if (curve == MIDS) m = f32x4.mul(splat(4), f32x4.mul(v, f32x4.sub(splat(1), v)))
    else if (curve == RANGE) {
      const down = fullEnd >= end ? f32x4.sub(splat(1), v128.and(f32x4.gt(v, splat(end)), splat(1))) : f32x4.sub(splat(1), shoulder(v, fullEnd, end))
      m = f32x4.mul(shoulder(v, start, full), down)
    }
    if (steepness > 0) m = power(m, exponent)
    else if (steepness < 0) m = f32x4.sub(splat(1), power(f32x4.sub(splat(1), m), exponent))
    v128.store(out + i, clamp01(m))
  }
}

const KEEP = 0
const ADD = 1

/** Joins a mask to the ones above it: keep = product, add = the lighter, subtract = max(0, a - b). `strength` 0-1 blends towards no effect. */
export function combineMasks(a: usize, b: usize, count: i32, how: i32, strength: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const s = splat(strength)
  for (let i: usize = 0; i < bytes; i += 16) {
    const x = v128.load(a + i)
    const y = v128.load(b + i)
    let m = x
    if (how == KEEP) m = f32x4.mul(x, y)
    else if (how == ADD) m = f32x4.pmax(x, y)
    else m = f32x4.pmax(splat(0), f32x4.sub(x, y))
    v128.store(out + i, f32x4.add(x, f32x4.mul(s, f32x4.sub(m, x))))
  }
}

/** Hold: black in the mask still lets 1 - hold through. */
export function holdMask(src: usize, count: i32, hold: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const closed = f32x4.sub(splat(1), v128.load(src + i))
    v128.store(out + i, f32x4.sub(splat(1), f32x4.mul(splat(hold), closed)))
  }
}
