import { splat } from './math'
import { fill } from './memory'

// Means over windows. Sums are taken of whole numbers (values times `steps`), so that they are exact and a pixel does not
// depend on where its tile begins.

/**
 * Mean over a square of 2 (radius + part / 16) + 1 px a side: the outermost ring counts by `part` sixteenths.
 * @param src plane of `width` + 2 reach by `height` + 2 reach, reach = radius + 1, of multiples of 1 / steps
 * @param sums room for `width` + 2 reach + 2 f64
 */
export function boxMean(src: usize, width: i32, height: i32, radius: i32, part: i32, steps: f64, sums: usize, out: usize): void {
  const reach = radius + 1
  const stride = width + 2 * reach
  memory.fill(sums, 0, (<usize>(stride + 2)) << 3)
  for (let y = 1; y <= 2 * radius + 1; y++) slide(rowOf(src, y, stride), 0, stride, steps, sums)
  for (let y = 0; y < height; y++) {
    const row = out + ((<usize>(y * width)) << 2)
    if (part == 0) wholeRow(sums, width, radius, steps, row)
    else partRow(sums, rowOf(src, y, stride), rowOf(src, y + 2 * reach, stride), width, radius, <f64>part, steps, row)
    slide(rowOf(src, y + 2 * reach, stride), rowOf(src, y + 1, stride), stride, steps, sums)
  }
}

// @ts-ignore: decorator
@inline
function rowOf(src: usize, y: i32, stride: i32): usize {
  return src + ((<usize>(y * stride)) << 2)
}

/** Adds the row that enters to the sums of the columns, and takes away the one that leaves; 0 if none leaves. */
function slide(enters: usize, leaves: usize, stride: i32, steps: f64, sums: usize): void {
  const k = f64x2.splat(steps)
  for (let x = 0; x < stride; x += 2) {
    const at = sums + ((<usize>x) << 3)
    const offset = (<usize>x) << 2
    let v = f64x2.promote_low_f32x4(v128.load64_zero(enters + offset))
    if (leaves != 0) v = f64x2.sub(v, f64x2.promote_low_f32x4(v128.load64_zero(leaves + offset)))
    v128.store(at, f64x2.add(v128.load(at), f64x2.mul(v, k)))
  }
}

/** One row of means over windows of whole pixels. */
function wholeRow(sums: usize, width: i32, radius: i32, steps: f64, row: usize): void {
  const side = <f64>(2 * radius + 1)
  const share = 1.0 / (side * side * steps)
  const across = (<usize>(2 * radius + 1)) << 3
  let sum: f64 = 0
  for (let x = 1; x <= 2 * radius + 1; x++) sum += load<f64>(sums + ((<usize>x) << 3))
  for (let x = 0; x < width; x++) {
    store<f32>(row + ((<usize>x) << 2), <f32>(sum * share))
    const first = sums + ((<usize>(x + 1)) << 3)
    sum += load<f64>(first + across) - load<f64>(first)
  }
}

/** One row of means over windows whose outermost ring counts in part. */
function partRow(sums: usize, above: usize, below: usize, width: i32, radius: i32, part: f64, steps: f64, row: usize): void {
  const side = 16.0 * <f64>(2 * radius + 1) + 2.0 * part
  const share = 1.0 / (side * side * steps)
  const last = 2 * radius + 2
  let sum: f64 = 0
  for (let x = 1; x < last; x++) sum += column(sums, above, below, x, part, steps)
  for (let x = 0; x < width; x++) {
    const enters = column(sums, above, below, x + last, part, steps)
    store<f32>(row + ((<usize>x) << 2), <f32>((16.0 * sum + part * (column(sums, above, below, x, part, steps) + enters)) * share))
    sum += enters - column(sums, above, below, x + 1, part, steps)
  }
}

/** Sixteen times the sum of a column of the window, with `part` of its two end rows. */
// @ts-ignore: decorator
@inline
function column(sums: usize, above: usize, below: usize, x: i32, part: f64, steps: f64): f64 {
  const offset = (<usize>x) << 2
  return 16.0 * load<f64>(sums + ((<usize>x) << 3)) + part * steps * (<f64>load<f32>(above + offset) + <f64>load<f32>(below + offset))
}

/** Values rounded to 1 / steps, and the product of two such planes, which is exact for up to 4096 steps. */
export function roundPlane(src: usize, count: i32, steps: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    v128.store(out + i, f32x4.mul(f32x4.nearest(f32x4.mul(v128.load(src + i), splat(steps))), splat(<f32>1.0 / steps)))
  }
}

export function multiplyPlanes(a: usize, b: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.mul(v128.load(a + i), v128.load(b + i)))
}

/**
 * Coefficients of the guided filter, He, Sun and Tang 2010 (equations 5 and 6), from window means of guide, input, their product and the
 * guide's square: a = (mean Ip - mean I mean p) / (variance of I + epsilon), b = mean p - a mean I. Written over `meanProduct` and `meanSquare`.
 */
export function guidedCoefficients(meanGuide: usize, meanInput: usize, meanProduct: usize, meanSquare: usize, count: i32, epsilon: f32): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const guide = v128.load(meanGuide + i)
    const input = v128.load(meanInput + i)
    const covariance = f32x4.sub(v128.load(meanProduct + i), f32x4.mul(guide, input))
    const variance = f32x4.pmax(splat(0), f32x4.sub(v128.load(meanSquare + i), f32x4.mul(guide, guide)))
    const a = f32x4.div(covariance, f32x4.add(variance, splat(epsilon)))
    v128.store(meanProduct + i, a)
    v128.store(meanSquare + i, f32x4.sub(input, f32x4.mul(a, guide)))
  }
}

/** a times the guide plus b, clamped to 0-1. */
export function guidedResult(a: usize, b: usize, guide: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = f32x4.add(f32x4.mul(v128.load(a + i), v128.load(guide + i)), v128.load(b + i))
    v128.store(out + i, f32x4.pmax(splat(0), f32x4.pmin(splat(1), v)))
  }
}

/** a + t (b - a). */
export function blendPlanes(a: usize, b: usize, count: i32, t: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = v128.load(a + i)
    v128.store(out + i, f32x4.add(v, f32x4.mul(splat(t), f32x4.sub(v128.load(b + i), v))))
  }
}

/** Contrast between two bounds of each pixel: the part t of the way from `least` to `most` becomes a smooth step from 0.5 - half to 0.5 + half. */
export function contrastBetween(src: usize, least: usize, most: usize, count: i32, half: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const low = v128.load(least + i)
    const range = f32x4.sub(v128.load(most + i), low)
    const t = f32x4.div(f32x4.sub(v128.load(src + i), low), f32x4.pmax(range, splat(1e-6)))
    const s = f32x4.pmax(splat(0), f32x4.pmin(splat(1), f32x4.add(splat(0.5), f32x4.mul(f32x4.sub(t, splat(0.5)), splat(<f32>0.5 / half)))))
    const step = f32x4.mul(f32x4.mul(s, s), f32x4.sub(splat(3), f32x4.add(s, s)))
    v128.store(out + i, f32x4.add(low, f32x4.mul(range, step)))
  }
}
