import { clamp01, decode, splat } from './math'
import { hash3, hashColumns } from './hash'

const decodeTable = memory.data(1024)
let tableReady = false

function prepareTable(): void {
  if (tableReady) return
  for (let i = 0; i < 256; i += 4) {
    const codes = f32x4.mul(f32x4(<f32>i, <f32>(i + 1), <f32>(i + 2), <f32>(i + 3)), splat(<f32>(1.0 / 255.0)))
    // A quarter each, so that four of them add up to their mean.
    v128.store(decodeTable + ((<usize>i) << 2), f32x4.mul(splat(0.25), decode(codes)))
  }
  tableReady = true
}

// @ts-ignore: decorator
@inline
function quarter(code: usize): f32 {
  return load<f32>(decodeTable + ((<usize>load<u8>(code)) << 2))
}

/**
 * Three planes of half the size in linear light, each pixel the mean of 2 by 2 pixels of interleaved 8-bit RGBA.
 * `width` and `height` are those of `src`; an odd last row or column counts twice.
 */
export function halveRgba8(src: usize, width: i32, height: i32, r: usize, g: usize, b: usize): void {
  prepareTable()
  const halfWidth = (width + 1) >> 1
  const halfHeight = (height + 1) >> 1
  for (let y = 0; y < halfHeight; y++) {
    const top = src + ((<usize>(2 * y * width)) << 2)
    const bottom = src + ((<usize>(min(2 * y + 1, height - 1) * width)) << 2)
    for (let x = 0; x < halfWidth; x++) {
      const left = (<usize>(2 * x)) << 2
      const right = (<usize>min(2 * x + 1, width - 1)) << 2
      const at = (<usize>(y * halfWidth + x)) << 2
      store<f32>(r + at, quarter(top + left) + quarter(top + right) + quarter(bottom + left) + quarter(bottom + right))
      store<f32>(g + at, quarter(top + left + 1) + quarter(top + right + 1) + quarter(bottom + left + 1) + quarter(bottom + right + 1))
      store<f32>(b + at, quarter(top + left + 2) + quarter(top + right + 2) + quarter(bottom + left + 2) + quarter(bottom + right + 2))
    }
  }
}

/** Three planes 0-1 from interleaved 8-bit RGBA. */
export function planesFromRgba8(src: usize, count: i32, r: usize, g: usize, b: usize): void {
  const bytes = (<usize>count) << 2
  const k = splat(<f32>(1.0 / 255.0))
  const mask = i32x4.splat(0xff)
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = v128.load(src + i)
    v128.store(r + i, f32x4.mul(f32x4.convert_i32x4_s(v128.and(v, mask)), k))
    v128.store(g + i, f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(v, 8), mask)), k))
    v128.store(b + i, f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(v, 16), mask)), k))
  }
}

/** One plane 0-1 from 16-bit codes. */
export function planeFromU16(src: usize, count: i32, dst: usize): void {
  const k = splat(<f32>(1.0 / 65535.0))
  for (let i = 0; i < count; i += 4) {
    const v = v128.load64_zero(src + ((<usize>i) << 1))
    v128.store(dst + ((<usize>i) << 2), f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(v)), k))
  }
}

/** 16-bit codes, nearest, from a plane 0-1. */
export function u16FromPlane(src: usize, count: i32, dst: usize): void {
  for (let i = 0; i < count; i += 4) {
    const v = f32x4.nearest(f32x4.mul(clamp01(v128.load(src + ((<usize>i) << 2))), splat(65535)))
    const whole = i32x4.trunc_sat_f32x4_u(v)
    v128.store64_lane(dst + ((<usize>i) << 1), i16x8.narrow_i32x4_u(whole, whole), 0)
  }
}

/**
 * Area mean along x: pixel i of the whole output row covers [i * step, (i + 1) * step) of the whole source row,
 * step >= 1. `src` begins at source pixel `srcFirst`, `dst` at output pixel `first`. Outside, the border repeats.
 * `table` has `areaEntryBytes(step)` bytes for each output pixel.
 */
export function areaRows(src: usize, width: i32, height: i32, srcFirst: i32, step: f64, first: i32, dst: usize, outWidth: i32, table: usize): void {
  // For each output pixel: first source pixel, number of them, their weights. The same for every row.
  const entry = areaEntryBytes(step)
  for (let x = 0; x < outWidth; x++) {
    const from = <f64>(first + x) * step
    const to = <f64>(first + x + 1) * step
    const i0 = <i32>Math.floor(from)
    const i1 = <i32>Math.ceil(to) - 1
    const at = table + (<usize>x) * entry
    store<i32>(at, i0 - srcFirst)
    store<i32>(at + 4, i1 - i0 + 1)
    for (let i = i0; i <= i1; i++) {
      store<f32>(at + 8 + ((<usize>(i - i0)) << 2), <f32>((Math.min(to, <f64>(i + 1)) - Math.max(from, <f64>i)) / step))
    }
  }
  for (let y = 0; y < height; y++) {
    const row = src + ((<usize>(y * width)) << 2)
    const out = dst + ((<usize>(y * outWidth)) << 2)
    for (let x = 0; x < outWidth; x++) {
      const at = table + (<usize>x) * entry
      const i0 = load<i32>(at)
      const count = load<i32>(at + 4)
      let sum: f32 = 0
      for (let k = 0; k < count; k++) {
        sum += load<f32>(at + 8 + ((<usize>k) << 2)) * load<f32>(row + ((<usize>min(max(i0 + k, 0), width - 1)) << 2))
      }
      store<f32>(out + ((<usize>x) << 2), sum)
    }
  }
}

/** Bytes that `areaRows` needs in its table for each output pixel. */
export function areaEntryBytes(step: f64): usize {
  return 8 + 4 * <usize>(Math.ceil(step) + 2)
}

/** Area mean along y, as `areaRows`. */
export function areaColumns(src: usize, width: i32, height: i32, srcFirst: i32, step: f64, first: i32, dst: usize, outHeight: i32): void {
  const norm = splat(<f32>(1.0 / step))
  const rowBytes = (<usize>width) << 2
  for (let y = 0; y < outHeight; y++) {
    const from = <f64>(first + y) * step
    const to = <f64>(first + y + 1) * step
    const i0 = <i32>Math.floor(from)
    const i1 = <i32>Math.ceil(to) - 1
    const out = dst + (<usize>y) * rowBytes
    for (let at: usize = 0; at < rowBytes; at += 16) {
      let sum = splat(0)
      for (let i = i0; i <= i1; i++) {
        const cover = <f32>(Math.min(to, <f64>(i + 1)) - Math.max(from, <f64>i))
        sum = f32x4.add(sum, f32x4.mul(splat(cover), v128.load(src + (<usize>min(max(i - srcFirst, 0), height - 1)) * rowBytes + at)))
      }
      v128.store(out + at, f32x4.mul(sum, norm))
    }
  }
}

// @ts-ignore: decorator
@inline
function ditheredCodes(value: v128, noise: v128, dither: v128): v128 {
  // `noise` holds 10 random bits.
  const offset = f32x4.mul(f32x4.sub(f32x4.convert_i32x4_s(noise), splat(511.5)), dither)
  const v = f32x4.add(f32x4.add(f32x4.mul(value, splat(255)), splat(0.5)), offset)
  return i32x4.trunc_sat_f32x4_s(f32x4.pmax(splat(0), f32x4.pmin(splat(255), v)))
}

/**
 * Interleaved 8-bit RGBA from three planes, with dithering of `dither` codes in all (below 1: a value that is a code
 * already stays that code). (x, y) is the place of the first pixel on the grid of the whole picture. Rows may write up
 * to 12 bytes past their end, into the next row or the slack of the block.
 */
export function rgba8FromPlanes(r: usize, g: usize, b: usize, width: i32, height: i32, x: i32, y: i32, dither: f32, dst: usize): void {
  const tenBits = i32x4.splat(0x3ff)
  const strength = splat(dither / 1024)
  for (let row = 0; row < height; row++) {
    const rowHash = hash3(y + row, 0x2545f491, 0)
    for (let column = 0; column < width; column += 4) {
      const at = (<usize>(row * width + column)) << 2
      const h = hashColumns(i32x4.add(i32x4.splat(x + column), i32x4(0, 1, 2, 3)), rowHash)
      const red = ditheredCodes(v128.load(r + at), v128.and(h, tenBits), strength)
      const green = ditheredCodes(v128.load(g + at), v128.and(i32x4.shr_u(h, 10), tenBits), strength)
      const blue = ditheredCodes(v128.load(b + at), v128.and(i32x4.shr_u(h, 20), tenBits), strength)
      const low = v128.or(red, i32x4.shl(green, 8))
      const high = v128.or(i32x4.shl(blue, 16), i32x4.splat(0xff000000))
      v128.store(dst + at, v128.or(low, high))
    }
  }
}

/** Interleaved 16-bit RGBA, all of it opaque, from three planes; lower byte first. May write up to 24 bytes past the end. */
export function rgba16FromPlanes(r: usize, g: usize, b: usize, count: i32, dst: usize): void {
  const most = splat(65535)
  const opaque = i32x4.splat(0xffff0000)
  for (let i = 0; i < count; i += 4) {
    const at = (<usize>i) << 2
    const red = i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(clamp01(v128.load(r + at)), most)))
    const green = i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(clamp01(v128.load(g + at)), most)))
    const blue = i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(clamp01(v128.load(b + at)), most)))
    const low = v128.or(red, i32x4.shl(green, 16))
    const high = v128.or(blue, opaque)
    v128.store(dst + 2 * at, v128.shuffle<i32>(low, high, 0, 4, 1, 5))
    v128.store(dst + 2 * at + 16, v128.shuffle<i32>(low, high, 2, 6, 3, 7))
  }
}

/** Adds to `bins` (32-bit counts) how many values of a plane fall into each of `binCount` equal parts of 0-1. */
export function histogram(src: usize, count: i32, bins: usize, binCount: i32): void {
  for (let i = 0; i < count; i++) {
    const v = load<f32>(src + ((<usize>i) << 2))
    const bin = min(binCount - 1, max(0, <i32>(v * <f32>binCount)))
    const at = bins + ((<usize>bin) << 2)
    store<u32>(at, load<u32>(at) + 1)
  }
}

/** Half the size, each pixel the mean of 2 by 2. `width` and `height` are those of `src`, and even. */
export function halvePlane(src: usize, width: i32, height: i32, dst: usize): void {
  const half = width >> 1
  const rowBytes = (<usize>width) << 2
  for (let y = 0; y < height; y += 2) {
    const top = src + (<usize>y) * rowBytes
    const bottom = top + rowBytes
    const out = dst + ((<usize>((y >> 1) * half)) << 2)
    for (let x = 0; x < half; x += 4) {
      const at = (<usize>x) << 3
      const s0 = f32x4.add(v128.load(top + at), v128.load(bottom + at))
      const s1 = f32x4.add(v128.load(top + at + 16), v128.load(bottom + at + 16))
      const even = v128.shuffle<f32>(s0, s1, 0, 2, 4, 6)
      const odd = v128.shuffle<f32>(s0, s1, 1, 3, 5, 7)
      v128.store(out + ((<usize>x) << 2), f32x4.mul(f32x4.add(even, odd), splat(0.25)))
    }
  }
}
