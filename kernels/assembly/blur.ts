import { splat } from './math'

/**
 * Weights 0..radius of a sampled Gaussian of standard deviation `sigma` px, normalised so that the
 * whole symmetric kernel sums to 1. Written as floats to `dst`.
 */
export function gaussianWeights(sigma: f64, radius: i32, dst: usize): void {
  let sum: f64 = 0
  for (let i = 0; i <= radius; i++) sum += (i == 0 ? 1.0 : 2.0) * NativeMath.exp((-0.5 * <f64>(i * i)) / (sigma * sigma))
  for (let i = 0; i <= radius; i++) {
    store<f32>(dst + ((<usize>i) << 2), <f32>(NativeMath.exp((-0.5 * <f64>(i * i)) / (sigma * sigma)) / sum))
  }
}

/** Symmetric convolution down the columns. `src` has `height + 2 * radius` rows. */
export function convolveColumns(src: usize, width: i32, height: i32, weights: usize, radius: i32, dst: usize): void {
  const rowBytes = (<usize>width) << 2
  for (let y = 0; y < height; y++) {
    const centre = src + (<usize>(y + radius)) * rowBytes
    const out = dst + (<usize>y) * rowBytes
    for (let x: usize = 0; x < rowBytes; x += 32) {
      const w0 = v128.load32_splat(weights)
      let a = f32x4.mul(w0, v128.load(centre + x))
      let b = f32x4.mul(w0, v128.load(centre + x + 16))
      let up = centre + x
      let down = centre + x
      for (let k = 1; k <= radius; k++) {
        up -= rowBytes
        down += rowBytes
        const w = v128.load32_splat(weights + ((<usize>k) << 2))
        a = f32x4.add(a, f32x4.mul(w, f32x4.add(v128.load(up), v128.load(down))))
        b = f32x4.add(b, f32x4.mul(w, f32x4.add(v128.load(up + 16), v128.load(down + 16))))
      }
      if (x + 16 < rowBytes) {
        v128.store(out + x, a)
        v128.store(out + x + 16, b)
      } else v128.store(out + x, a)
    }
  }
}

/** Symmetric convolution along the rows. `src` has `width + 2 * radius` columns. */
export function convolveRows(src: usize, width: i32, height: i32, weights: usize, radius: i32, dst: usize): void {
  const srcBytes = (<usize>(width + 2 * radius)) << 2
  const rowBytes = (<usize>width) << 2
  const reach = (<usize>radius) << 2
  for (let y = 0; y < height; y++) {
    const row = src + (<usize>y) * srcBytes + reach
    const out = dst + (<usize>y) * rowBytes
    for (let x: usize = 0; x < rowBytes; x += 32) {
      const w0 = v128.load32_splat(weights)
      let a = f32x4.mul(w0, v128.load(row + x))
      let b = f32x4.mul(w0, v128.load(row + x + 16))
      let left = row + x
      let right = row + x
      for (let k = 1; k <= radius; k++) {
        left -= 4
        right += 4
        const w = v128.load32_splat(weights + ((<usize>k) << 2))
        a = f32x4.add(a, f32x4.mul(w, f32x4.add(v128.load(left), v128.load(right))))
        b = f32x4.add(b, f32x4.mul(w, f32x4.add(v128.load(left + 16), v128.load(right + 16))))
      }
      if (x + 16 < rowBytes) {
        v128.store(out + x, a)
        v128.store(out + x + 16, b)
      } else v128.store(out + x, a)
    }
  }
}

/**
 * Half as many rows, each [1 3 3 1] / 8 of four. `src` has `2 * height + 2` rows and begins one row
 * above the first pair.
 */
export function halveColumns(src: usize, width: i32, height: i32, dst: usize): void {
  const rowBytes = (<usize>width) << 2
  const outer = splat(0.125)
  const inner = splat(0.375)
  for (let y = 0; y < height; y++) {
    const row = src + (<usize>(2 * y)) * rowBytes
    const out = dst + (<usize>y) * rowBytes
    for (let x: usize = 0; x < rowBytes; x += 16) {
      const p = row + x
      const far = f32x4.add(v128.load(p), v128.load(p + 3 * rowBytes))
      const near = f32x4.add(v128.load(p + rowBytes), v128.load(p + 2 * rowBytes))
      v128.store(out + x, f32x4.add(f32x4.mul(outer, far), f32x4.mul(inner, near)))
    }
  }
}

/** Half as many columns, as `halveColumns`. `src` has `2 * width + 2` columns. */
export function halveRows(src: usize, width: i32, height: i32, dst: usize): void {
  const srcBytes = (<usize>(2 * width + 2)) << 2
  const rowBytes = (<usize>width) << 2
  const outer = splat(0.125)
  const inner = splat(0.375)
  for (let y = 0; y < height; y++) {
    const row = src + (<usize>y) * srcBytes
    const out = dst + (<usize>y) * rowBytes
    for (let x: usize = 0; x < rowBytes; x += 16) {
      const p = row + 2 * x
      const a = v128.load(p)
      const b = v128.load(p + 16)
      const c = v128.load(p + 8)
      const d = v128.load(p + 24)
      const s0 = v128.shuffle<f32>(a, b, 0, 2, 4, 6)
      const s1 = v128.shuffle<f32>(a, b, 1, 3, 5, 7)
      const s2 = v128.shuffle<f32>(c, d, 0, 2, 4, 6)
      const s3 = v128.shuffle<f32>(c, d, 1, 3, 5, 7)
      v128.store(out + x, f32x4.add(f32x4.mul(outer, f32x4.add(s0, s3)), f32x4.mul(inner, f32x4.add(s1, s2))))
    }
  }
}

// @ts-ignore: decorator
@inline
function catmullRom(t: f64, index: i32): f32 {
  if (index == 0) return <f32>(0.5 * t * (-1 + t * (2 - t)))
  if (index == 1) return <f32>(0.5 * (2 + t * t * (-5 + 3 * t)))
  if (index == 2) return <f32>(0.5 * t * (1 + t * (4 - 3 * t)))
  return <f32>(0.5 * t * t * (-1 + t))
}

/**
 * More columns by the Catmull-Rom cubic (Catmull and Rom 1974). Pixel centres correspond: column i of the whole fine picture lies at
 * (i + 0.5) * `step` - 0.5 of the coarse columns. `first` is the column of the whole picture where `dst` begins, `srcFirst` the coarse
 * column where `src` begins; it holds every column that is read, one more on each side than lies between. `table` has room for 20 bytes a column.
 */
export function enlargeRows(
  src: usize, srcFirst: i32, srcWidth: i32, height: i32, first: i32, width: i32, step: f64, dst: usize, table: usize,
): void {
  const weights = table
  const places = table + ((<usize>width) << 4)
  for (let x = 0; x < width; x++) {
    const u = (<f64>(first + x) + 0.5) * step - 0.5
    const base = Math.floor(u)
    for (let k = 0; k < 4; k++) store<f32>(weights + ((<usize>(4 * x + k)) << 2), catmullRom(u - base, k))
    store<i32>(places + ((<usize>x) << 2), (<i32>base - 1 - srcFirst) << 2)
  }
  for (let y = 0; y < height; y++) {
    const row = src + ((<usize>(y * srcWidth)) << 2)
    const out = dst + ((<usize>(y * width)) << 2)
    for (let x = 0; x < width; x++) {
      const at = row + <usize>load<i32>(places + ((<usize>x) << 2))
      const products = f32x4.mul(v128.load(weights + ((<usize>x) << 4)), v128.load(at))
      const pairs = f32x4.add(products, v128.shuffle<f32>(products, products, 2, 3, 0, 1))
      const sum = f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1)
      store<f32>(out + ((<usize>x) << 2), sum)
    }
  }
}

/** More rows, as `enlargeRows`: `src` holds the coarse rows from `srcFirst` on. */
export function enlargeColumns(src: usize, srcFirst: i32, width: i32, first: i32, height: i32, step: f64, dst: usize): void {
  const rowBytes = (<usize>width) << 2
  for (let y = 0; y < height; y++) {
    const u = (<f64>(first + y) + 0.5) * step - 0.5
    const base = <i32>Math.floor(u)
    const t = u - <f64>base
    const w0 = splat(catmullRom(t, 0))
    const w1 = splat(catmullRom(t, 1))
    const w2 = splat(catmullRom(t, 2))
    const w3 = splat(catmullRom(t, 3))
    const row = src + (<usize>(base - 1 - srcFirst)) * rowBytes
    const out = dst + (<usize>y) * rowBytes
    for (let x: usize = 0; x < rowBytes; x += 16) {
      const p = row + x
      const low = f32x4.add(f32x4.mul(w0, v128.load(p)), f32x4.mul(w1, v128.load(p + rowBytes)))
      const high = f32x4.add(f32x4.mul(w2, v128.load(p + 2 * rowBytes)), f32x4.mul(w3, v128.load(p + 3 * rowBytes)))
      v128.store(out + x, f32x4.add(low, high))
    }
  }
}

/**
 * Sum of shifted copies: out(x, y) = sum over taps of weight * src(x + dx, y + dy). `taps` holds for each
 * tap the 32-bit integers dx, dy (>= 0, counted from the corner of `src`) and the float weight.
 */
export function convolveTaps(src: usize, srcWidth: i32, taps: usize, tapCount: i32, dst: usize, width: i32, height: i32): void {
  const rowBytes = (<usize>width) << 2
  const srcBytes = (<usize>srcWidth) << 2
  const end = taps + (<usize>tapCount) * 12
  for (let y = 0; y < height; y++) {
    const row = src + (<usize>y) * srcBytes
    const out = dst + (<usize>y) * rowBytes
    memory.fill(out, 0, rowBytes)
    // Tap by tap along the row: the rows of a long smear lie far from each other in memory.
    for (let tap = taps; tap < end; tap += 12) {
      const p = row + ((<usize>load<i32>(tap)) << 2) + (<usize>load<i32>(tap + 4)) * srcBytes
      const w = v128.load32_splat(tap + 8)
      let x: usize = 0
      for (; x + 32 <= rowBytes; x += 32) {
        v128.store(out + x, f32x4.add(v128.load(out + x), f32x4.mul(w, v128.load(p + x))))
        v128.store(out + x + 16, f32x4.add(v128.load(out + x + 16), f32x4.mul(w, v128.load(p + x + 16))))
      }
      for (; x < rowBytes; x += 4) store<f32>(out + x, load<f32>(out + x) + load<f32>(tap + 8) * load<f32>(p + x))
    }
  }
}
