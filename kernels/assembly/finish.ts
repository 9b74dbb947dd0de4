import { clamp01, errorFunction, mulAdd, splat, storeSome } from './math'
import { hash3Columns } from './hash'

// What finishes a picture: colours made livelier, edges sharpened, grain. Planes are sRGB-encoded unless said otherwise.

/**
 * Changes OKLab planes in place: hues turned by the angle whose cosine and sine are given, chroma times `saturation` and, less where it is strong, times
 * 1 + `vibrance` (1 - min(1, C / 0.25))²; lightness L + `lightness` L (1 - L), which leaves black and white.
 */
export function vividOklab(l: usize, a: usize, b: usize, count: i32, cos: f32, sin: f32, saturation: f32, vibrance: f32, lightness: f32): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const x = v128.load(a + i)
    const y = v128.load(b + i)
    const chroma = f32x4.sqrt(f32x4.add(f32x4.mul(x, x), f32x4.mul(y, y)))
    const pale = f32x4.sub(splat(1), clamp01(f32x4.mul(chroma, splat(4))))
    const factor = f32x4.mul(splat(saturation), mulAdd(splat(vibrance), f32x4.mul(pale, pale), splat(1)))
    v128.store(a + i, f32x4.mul(factor, f32x4.sub(f32x4.mul(splat(cos), x), f32x4.mul(splat(sin), y))))
    v128.store(b + i, f32x4.mul(factor, f32x4.add(f32x4.mul(splat(sin), x), f32x4.mul(splat(cos), y))))
    if (lightness != 0) {
      const light = v128.load(l + i)
      v128.store(l + i, mulAdd(splat(lightness), f32x4.mul(light, f32x4.sub(splat(1), light)), light))
    }
  }
}

/**
 * Unsharp masking by luma (Rec. 709 weights on encoded values): what a pixel's luma is above the blurred one, `soft`, less `threshold`, times `amount`, is added to all of its channels.
 */
export function unsharpTones(r: usize, g: usize, b: usize, soft: usize, count: i32, amount: f32, threshold: f32, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = v128.load(r + i)
    const green = v128.load(g + i)
    const blue = v128.load(b + i)
    const luma = mulAdd(splat(0.2126), red, mulAdd(splat(0.7152), green, f32x4.mul(splat(0.0722), blue)))
    const d = f32x4.sub(luma, v128.load(soft + i))
    const over = f32x4.pmax(splat(0), f32x4.sub(f32x4.abs(d), splat(threshold)))
    const sign = v128.and(d, i32x4.splat(0x80000000))
    const added = f32x4.mul(splat(amount), v128.or(over, sign))
    v128.store(outR + i, f32x4.add(red, added))
    v128.store(outG + i, f32x4.add(green, added))
    v128.store(outB + i, f32x4.add(blue, added))
  }
}

/** Standard deviation of the sum of four bytes of a hash, and its mean. */
const SPREAD: f32 = 147.80053
const MEAN: f32 = 510

/** Standard deviations to both sides of a grain. */
const REACH: f64 = 3.5
/** Four pixels at a time may be read and written past the end. */
const SLACK: usize = 64

// @ts-ignore: decorator
@inline
function tapsOf(pitch: f64, sigma: f64): i32 {
  return <i32>Math.ceil(pitch + 2 * REACH * sigma) + 2
}

// @ts-ignore: decorator
@inline
function firstCell(at: i32, pitch: f64, sigma: f64): i32 {
  return <i32>Math.floor(<f64>at * pitch - REACH * sigma)
}

/** Scratch that `smoothNoise` needs, bytes. Pitches and sigma in cells. */
export function smoothNoiseBytes(width: i32, height: i32, pitchX: f64, pitchY: f64, sigma: f64): usize {
  const across = <i32>Math.ceil(<f64>width * pitchX) + 2 * tapsOf(pitchX, sigma)
  const down = <i32>Math.ceil(<f64>height * pitchY) + 2 * tapsOf(pitchY, sigma)
  return (<usize>(across + width * tapsOf(pitchX, sigma) + height * tapsOf(pitchY, sigma) + down * width) << 2) + SLACK
}

/** Weights of cells from `first` on for what lies from `from` to `to`: a Gaussian about the middle of each cell, its integral there; without one the part of it that the cell covers. */
function cellWeights(first: i32, from: f64, to: f64, sigma: f64, taps: i32, out: usize): void {
  const scale = sigma > 0 ? 1 / (1.4142135623730951 * sigma) : 0
  for (let k = 0; k < taps; k++) {
    const cell = <f64>(first + k)
    const part =
      sigma > 0
        ? 0.5 * (errorFunction((to - cell - 0.5) * scale) - errorFunction((from - cell - 0.5) * scale))
        : Math.max(0, Math.min(to, cell + 1) - Math.max(from, cell))
    store<f32>(out + ((<usize>k) << 2), <f32>(part / (to - from)))
  }
}

/** Sums of the four bytes of four numbers. */
// @ts-ignore: decorator
@inline
function byteSums(h: v128): v128 {
  const pairs = i32x4.add(v128.and(h, i32x4.splat(0x00ff00ff)), v128.and(i32x4.shr_u(h, 8), i32x4.splat(0x00ff00ff)))
  return i32x4.add(v128.and(pairs, i32x4.splat(0xffff)), i32x4.shr_u(pairs, 16))
}

/** Root of the sum of squares of the weights of a pixel that is as wide as a cell: what they leave of white noise along one axis. */
function leftOfNoise(sigma: f64, scratch: usize): f64 {
  const taps = tapsOf(1, sigma)
  cellWeights(firstCell(0, 1, sigma), 0, 1, sigma, taps, scratch)
  let sum: f64 = 0
  for (let k = 0; k < taps; k++) {
    const w = <f64>load<f32>(scratch + ((<usize>k) << 2))
    sum += w * w
  }
  return Math.sqrt(sum)
}

/**
 * Noise that is blurred by a Gaussian, as strong as before: one number a cell, about normal (the sum of four even ones), mean 0; at a pitch of one cell its standard deviation is 1, a larger
 * pixel has the mean of what lies in it. Pitches and `sigma` are in cells, the grid begins at cell 0.
 * @param scratch as many bytes as `smoothNoiseBytes` says
 */
export function smoothNoise(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64, seed: i32, sigma: f64, scratch: usize,
): void {
  const tapsX = tapsOf(pitchX, sigma)
  const tapsY = tapsOf(pitchY, sigma)
  const left = firstCell(x0, pitchX, sigma)
  const right = firstCell(x0 + width - 1, pitchX, sigma) + tapsX
  const top = firstCell(y0, pitchY, sigma)
  const bottom = firstCell(y0 + height - 1, pitchY, sigma) + tapsY
  const weightsX = scratch + ((<usize>(right - left)) << 2)
  const weightsY = weightsX + ((<usize>(width * tapsX)) << 2)
  const rows = weightsY + ((<usize>(height * tapsY)) << 2)
  const strength = <f32>(1 / leftOfNoise(sigma, rows) ** 2 / SPREAD)
  for (let x = 0; x < width; x++) {
    const from = <f64>(x0 + x) * pitchX
    cellWeights(firstCell(x0 + x, pitchX, sigma), from, from + pitchX, sigma, tapsX, weightsX + ((<usize>(x * tapsX)) << 2))
  }
  for (let y = 0; y < height; y++) {
    const from = <f64>(y0 + y) * pitchY
    cellWeights(firstCell(y0 + y, pitchY, sigma), from, from + pitchY, sigma, tapsY, weightsY + ((<usize>(y * tapsY)) << 2))
  }
  for (let v = top; v < bottom; v++) {
    for (let u = left; u < right; u += 4) {
      const cells = f32x4.convert_i32x4_s(byteSums(hash3Columns(i32x4.add(i32x4.splat(u), i32x4(0, 1, 2, 3)), v, seed)))
      const noise = f32x4.mul(f32x4.sub(cells, splat(MEAN)), splat(strength))
      const at = scratch + ((<usize>(u - left)) << 2)
      if (u + 4 <= right) v128.store(at, noise)
      else storeSome(at, noise, right - u)
    }
    const row = rows + ((<usize>((v - top) * width)) << 2)
    if (pitchX == 1) {
      // All pixels of a row have the same weights, each a cell further on.
      weighted(scratch, 4, weightsX, tapsX, width, row)
      continue
    }
    for (let x = 0; x < width; x++) {
      const cells = scratch + ((<usize>(firstCell(x0 + x, pitchX, sigma) - left)) << 2)
      const weights = weightsX + ((<usize>(x * tapsX)) << 2)
      let sum: f32 = 0
      for (let k: usize = 0; k < <usize>tapsX; k++) sum += load<f32>(cells + (k << 2)) * load<f32>(weights + (k << 2))
      store<f32>(row + ((<usize>x) << 2), sum)
    }
  }
  for (let y = 0; y < height; y++) {
    const first = firstCell(y0 + y, pitchY, sigma) - top
    const weights = weightsY + ((<usize>(y * tapsY)) << 2)
    weighted(rows + ((<usize>(first * width)) << 2), (<usize>width) << 2, weights, tapsY, width, out + ((<usize>(y * width)) << 2))
  }
}

/** A row of sums of `taps` floats, each `step` bytes further on, times the weights. */
function weighted(source: usize, step: usize, weights: usize, taps: i32, width: i32, row: usize): void {
  const bytes = (<usize>width) << 2
  let x: usize = 0
  // Sixteen at a time: a weight is loaded once for all of them.
  for (; x + 64 <= bytes; x += 64) {
    let a = splat(0)
    let b = splat(0)
    let c = splat(0)
    let d = splat(0)
    let from = source + x
    for (let k = 0; k < taps; k++) {
      const weight = v128.load32_splat(weights + ((<usize>k) << 2))
      a = mulAdd(weight, v128.load(from), a)
      b = mulAdd(weight, v128.load(from, 16), b)
      c = mulAdd(weight, v128.load(from, 32), c)
      d = mulAdd(weight, v128.load(from, 48), d)
      from += step
    }
    v128.store(row + x, a)
    v128.store(row + x, b, 16)
    v128.store(row + x, c, 32)
    v128.store(row + x, d, 48)
  }
  for (; x < bytes; x += 16) {
    let sum = splat(0)
    let from = source + x
    for (let k = 0; k < taps; k++) {
      sum = mulAdd(v128.load32_splat(weights + ((<usize>k) << 2)), v128.load(from), sum)
      from += step
    }
    v128.store(row + x, sum)
  }
}

/** a `ka` + b `kb` + offset; `b` may be 0. `out` may be one of them. */
export function weightedSum(a: usize, ka: f32, b: usize, kb: f32, offset: f32, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = mulAdd(splat(ka), v128.load(a + i), splat(offset))
    v128.store(out + i, b != 0 ? mulAdd(splat(kb), v128.load(b + i), v) : v)
  }
}

/**
 * Colours through a cube of `size` entries a side, red counting fastest, three floats each: tetrahedral interpolation. Four bytes behind the last are read too. Tones are clamped to 0-1. `outs` may be the inputs.
 */
export function cubeColours(r: usize, g: usize, b: usize, count: i32, table: usize, size: i32, outR: usize, outG: usize, outB: usize): void {
  const last = splat(<f32>(size - 1))
  const lastCell = i32x4.splat(size - 2)
  const stepR = i32x4.splat(12)
  const stepG = i32x4.splat(size * 12)
  const stepB = i32x4.splat(size * size * 12)
  const all = i32x4.add(stepR, i32x4.add(stepG, stepB))
  for (let i: usize = 0; i < <usize>count << 2; i += 16) {
    const x = f32x4.mul(clamp01(v128.load(r + i)), last)
    const y = f32x4.mul(clamp01(v128.load(g + i)), last)
    const z = f32x4.mul(clamp01(v128.load(b + i)), last)
    const cellX = i32x4.min_s(lastCell, i32x4.trunc_sat_f32x4_s(x))
    const cellY = i32x4.min_s(lastCell, i32x4.trunc_sat_f32x4_s(y))
    const cellZ = i32x4.min_s(lastCell, i32x4.trunc_sat_f32x4_s(z))
    const partX = f32x4.sub(x, f32x4.convert_i32x4_s(cellX))
    const partY = f32x4.sub(y, f32x4.convert_i32x4_s(cellY))
    const partZ = f32x4.sub(z, f32x4.convert_i32x4_s(cellZ))
    // The way from the lowest corner to the highest: up the channel with the largest part first.
    const yOrZ = v128.bitselect(stepG, stepB, f32x4.ge(partY, partZ))
    const first = v128.bitselect(stepR, yOrZ, v128.and(f32x4.ge(partX, partY), f32x4.ge(partX, partZ)))
    const yOrX = v128.bitselect(stepG, stepR, f32x4.le(partY, partX))
    const third = v128.bitselect(stepB, yOrX, v128.and(f32x4.le(partZ, partX), f32x4.le(partZ, partY)))
    const low = f32x4.pmin(partX, partY)
    const high = f32x4.pmax(partX, partY)
    const largest = f32x4.pmax(high, partZ)
    const smallest = f32x4.pmin(low, partZ)
    const middle = f32x4.pmax(low, f32x4.pmin(high, partZ))
    const at0 = i32x4.add(i32x4.mul(cellX, stepR), i32x4.add(i32x4.mul(cellY, stepG), i32x4.mul(cellZ, stepB)))
    const at1 = i32x4.add(at0, first)
    const at2 = i32x4.sub(i32x4.add(at0, all), third)
    const at3 = i32x4.add(at0, all)
    const p = along(table, i32x4.extract_lane(at0, 0), i32x4.extract_lane(at1, 0), i32x4.extract_lane(at2, 0), i32x4.extract_lane(at3, 0), f32x4.extract_lane(largest, 0), f32x4.extract_lane(middle, 0), f32x4.extract_lane(smallest, 0))
    const q = along(table, i32x4.extract_lane(at0, 1), i32x4.extract_lane(at1, 1), i32x4.extract_lane(at2, 1), i32x4.extract_lane(at3, 1), f32x4.extract_lane(largest, 1), f32x4.extract_lane(middle, 1), f32x4.extract_lane(smallest, 1))
    const s = along(table, i32x4.extract_lane(at0, 2), i32x4.extract_lane(at1, 2), i32x4.extract_lane(at2, 2), i32x4.extract_lane(at3, 2), f32x4.extract_lane(largest, 2), f32x4.extract_lane(middle, 2), f32x4.extract_lane(smallest, 2))
    const t = along(table, i32x4.extract_lane(at0, 3), i32x4.extract_lane(at1, 3), i32x4.extract_lane(at2, 3), i32x4.extract_lane(at3, 3), f32x4.extract_lane(largest, 3), f32x4.extract_lane(middle, 3), f32x4.extract_lane(smallest, 3))
    // From pixels to channels.
    const reds = v128.shuffle<f32>(p, q, 0, 4, 1, 5)
    const others = v128.shuffle<f32>(s, t, 0, 4, 1, 5)
    v128.store(outR + i, v128.shuffle<f32>(reds, others, 0, 1, 4, 5))
    v128.store(outG + i, v128.shuffle<f32>(reds, others, 2, 3, 6, 7))
    v128.store(outB + i, v128.shuffle<f32>(v128.shuffle<f32>(p, q, 2, 6, 2, 6), v128.shuffle<f32>(s, t, 2, 6, 2, 6), 0, 1, 4, 5))
  }
}

/** One colour between four corners of a cube, red, green and blue in the first lanes; corners as bytes from the table's begin. */
// @ts-ignore: decorator
@inline
function along(table: usize, at0: i32, at1: i32, at2: i32, at3: i32, largest: f32, middle: f32, smallest: f32): v128 {
  const v0 = v128.load(table + <usize>at0)
  const v1 = v128.load(table + <usize>at1)
  const v2 = v128.load(table + <usize>at2)
  const up = mulAdd(splat(largest), f32x4.sub(v1, v0), v0)
  return f32x4.add(f32x4.add(up, f32x4.mul(splat(middle), f32x4.sub(v2, v1))), f32x4.mul(splat(smallest), f32x4.sub(v128.load(table + <usize>at3), v2)))
}
