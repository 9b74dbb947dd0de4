import { cosine, mulAdd, sine, splat, storeSome } from './math'

// What is done to the photo before all effects: noise taken out, spots mended, the picture turned.

/** Neighbours of a pixel that are compared with those of another: 3 by 3. */
const PATCH: f32 = 9

// @ts-ignore: decorator
@inline
function squared(a: v128, b: v128): v128 {
  const d = f32x4.sub(a, b)
  return f32x4.mul(d, d)
}

/**
 * Non-local means (Buades, Coll and Morel 2005, pixel by pixel): each pixel becomes the mean of those around it, weighted by how alike their 3 by 3 neighbourhoods are. With d the mean squared difference of the
 * neighbourhoods, summed over the guides, and e = max(0, d - bias) · scale, the weight is (1 - e / 4)⁴, which is close to exp(-e) and ends.
 * @param g1 further guides, or 0
 * @param margin px by which planes reach beyond the result on every side: `reach` · `step` + 1, or more
 * @param v1 a second plane to be averaged, or 0
 * @param reach steps to each side that are looked at, of `step` px
 * @param scratch 4 (`width` + 8) floats
 */
export function nonLocalMeans(
  g0: usize, g1: usize, g2: usize, v0: usize, v1: usize, margin: i32, width: i32, height: i32, reach: i32, step: i32, bias: f32, scale: f32, out0: usize, out1: usize, scratch: usize,
): void {
  const stride = (<usize>(width + 2 * margin)) << 2
  const line = ((<usize>(width + 8)) << 2)
  const sum = scratch + line
  const first = sum + line
  const second = first + line
  const bytes = (<usize>width) << 2
  const least = splat(bias)
  const quarter = splat(scale / 4)
  const part = splat(1 / PATCH)
  for (let y = 0; y < height; y++) {
    const row = (<usize>(y + margin)) * stride + ((<usize>margin) << 2)
    for (let i: usize = 0; i < bytes; i += 16) {
      v128.store(sum + i, splat(1))
      v128.store(first + i, v128.load(v0 + row + i))
      if (v1) v128.store(second + i, v128.load(v1 + row + i))
    }
    for (let oy = -reach; oy <= reach; oy++) {
      for (let ox = -reach; ox <= reach; ox++) {
        if (ox == 0 && oy == 0) continue
        const shift = <isize>(oy * step) * <isize>stride + ((<isize>(ox * step)) << 2)
        for (let i: usize = 0; i < bytes + 8; i += 16) {
          const at = row + i - 4
          let d = squared(v128.load(g0 + at), v128.load(g0 + at + shift))
          d = f32x4.add(d, squared(v128.load(g0 + at - stride), v128.load(g0 + at - stride + shift)))
          d = f32x4.add(d, squared(v128.load(g0 + at + stride), v128.load(g0 + at + stride + shift)))
          if (g1) {
            d = f32x4.add(d, squared(v128.load(g1 + at), v128.load(g1 + at + shift)))
            d = f32x4.add(d, squared(v128.load(g1 + at - stride), v128.load(g1 + at - stride + shift)))
            d = f32x4.add(d, squared(v128.load(g1 + at + stride), v128.load(g1 + at + stride + shift)))
          }
          if (g2) {
            d = f32x4.add(d, squared(v128.load(g2 + at), v128.load(g2 + at + shift)))
            d = f32x4.add(d, squared(v128.load(g2 + at - stride), v128.load(g2 + at - stride + shift)))
            d = f32x4.add(d, squared(v128.load(g2 + at + stride), v128.load(g2 + at + stride + shift)))
          }
          v128.store(scratch + i, d)
        }
        for (let i: usize = 0; i < bytes; i += 16) {
          const d = f32x4.add(f32x4.add(v128.load(scratch + i), v128.load(scratch + i + 4)), v128.load(scratch + i + 8))
          const over = f32x4.pmax(splat(0), f32x4.sub(f32x4.mul(d, part), least))
          const t = f32x4.pmax(splat(0), f32x4.sub(splat(1), f32x4.mul(over, quarter)))
          const t2 = f32x4.mul(t, t)
          const w = f32x4.mul(t2, t2)
          v128.store(sum + i, f32x4.add(v128.load(sum + i), w))
          v128.store(first + i, mulAdd(w, v128.load(v0 + row + i + shift), v128.load(first + i)))
          if (v1) v128.store(second + i, mulAdd(w, v128.load(v1 + row + i + shift), v128.load(second + i)))
        }
      }
    }
    const to = (<usize>(y * width)) << 2
    for (let i: usize = 0; i < bytes; i += 16) {
      const all = v128.load(sum + i)
      const left = <i32>((bytes - i) >> 2)
      const one = f32x4.div(v128.load(first + i), all)
      if (left >= 4) v128.store(out0 + to + i, one)
      else storeSome(out0 + to + i, one, left)
      if (v1) {
        const other = f32x4.div(v128.load(second + i), all)
        if (left >= 4) v128.store(out1 + to + i, other)
        else storeSome(out1 + to + i, other, left)
      }
    }
  }
}

/** Luma (Rec. 709 weights on encoded values), and what blue and red are above it; in place of red, green and blue if the planes are the same. */
export function lumaChroma(r: usize, g: usize, b: usize, count: i32, outY: usize, outB: usize, outR: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = v128.load(r + i)
    const blue = v128.load(b + i)
    const y = mulAdd(splat(0.2126), red, mulAdd(splat(0.7152), v128.load(g + i), f32x4.mul(splat(0.0722), blue)))
    v128.store(outY + i, y)
    v128.store(outB + i, f32x4.sub(blue, y))
    v128.store(outR + i, f32x4.sub(red, y))
  }
}

/** Red, green and blue of what `lumaChroma` gave. */
export function fromLumaChroma(y: usize, cb: usize, cr: usize, count: i32, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const luma = v128.load(y + i)
    const blue = v128.load(cb + i)
    const red = v128.load(cr + i)
    v128.store(outR + i, f32x4.add(luma, red))
    v128.store(outB + i, f32x4.add(luma, blue))
    v128.store(outG + i, f32x4.sub(luma, f32x4.mul(splat(1 / 0.7152), mulAdd(splat(0.2126), red, f32x4.mul(splat(0.0722), blue)))))
  }
}

const SAMPLES = 64
const RINGS = 4
/** From one ring of samples about a spot to the next, parts of its radius. */
const BETWEEN: f64 = 0.1
/** Nearer to the rim the sum over samples would follow single ones. */
const INNERMOST: f64 = 0.96

/** Value of a plane at (x, y) in its pixels, pixel centres at whole numbers; bilinear, the border repeats. */
function readAt(plane: usize, width: i32, height: i32, x: f64, y: f64): f64 {
  const u = Math.max(0, Math.min(<f64>(width - 1), x))
  const v = Math.max(0, Math.min(<f64>(height - 1), y))
  const ix = min(<i32>u, max(width - 2, 0))
  const iy = min(<i32>v, max(height - 2, 0))
  const tx = u - <f64>ix
  const ty = v - <f64>iy
  const right: usize = width > 1 ? 4 : 0
  const below: usize = height > 1 ? (<usize>width) << 2 : 0
  const p = plane + ((<usize>(iy * width + ix)) << 2)
  const top = <f64>load<f32>(p) * (1 - tx) + <f64>load<f32>(p + right) * tx
  const bottom = <f64>load<f32>(p + below) * (1 - tx) + <f64>load<f32>(p + below + right) * tx
  return top * (1 - ty) + bottom * ty
}

/**
 * Mends a disc of one plane: within it `out` becomes `source`, read `shiftX`, `shiftY` photo px away, plus the membrane that makes it meet its surroundings (seamless cloning: Pérez, Gangnet and Blake 2003; in a disc the
 * membrane is Poisson's integral over its rim). What the membrane meets are differences of `rim` here and, unless it is 0, of `rim` there, each the mean of four places from the rim outwards.
 * Planes `source` and `rim` begin at (fromX, fromY) of the grid, `out` at (x0, y0).
 * @param soft part of the radius over which the disc passes into what was there
 * @param shifted whether the rim is compared with that of the place it is mended from
 * @param scratch 192 doubles
 */
export function mendDisc(
  source: usize, rim: usize, fromX: i32, fromY: i32, fromWidth: i32, fromHeight: i32, out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64,
  x: f64, y: f64, radius: f64, shiftX: f64, shiftY: f64, soft: f64, shifted: bool, scratch: usize,
): void {
  for (let k = 0; k < SAMPLES; k++) {
    const angle = (2 * Math.PI * <f64>k) / <f64>SAMPLES
    const cos = cosine(angle)
    const sin = sine(angle)
    let sum: f64 = 0
    for (let ring = 0; ring < RINGS; ring++) {
      const far = radius * (1 + BETWEEN * <f64>ring)
      const u = (x + far * cos) / pitchX - 0.5 - <f64>fromX
      const v = (y + far * sin) / pitchY - 0.5 - <f64>fromY
      sum += readAt(rim, fromWidth, fromHeight, u, v)
      if (shifted) sum -= readAt(rim, fromWidth, fromHeight, u + shiftX / pitchX, v + shiftY / pitchY)
    }
    const to = scratch + (<usize>k) * 24
    store<f64>(to, cos)
    store<f64>(to + 8, sin)
    store<f64>(to + 16, sum / <f64>RINGS)
  }
  const top = max(0, <i32>Math.floor((y - radius) / pitchY) - y0)
  const bottom = min(height, <i32>Math.ceil((y + radius) / pitchY) + 1 - y0)
  const left = max(0, <i32>Math.floor((x - radius) / pitchX) - x0)
  const right = min(width, <i32>Math.ceil((x + radius) / pitchX) + 1 - x0)
  for (let row = top; row < bottom; row++) {
    for (let column = left; column < right; column++) {
      const gridX = <f64>(x0 + column)
      const gridY = <f64>(y0 + row)
      let dx = ((gridX + 0.5) * pitchX - x) / radius
      let dy = ((gridY + 0.5) * pitchY - y) / radius
      const far = Math.sqrt(dx * dx + dy * dy)
      if (far >= 1) continue
      if (far > INNERMOST) {
        dx *= INNERMOST / far
        dy *= INNERMOST / far
      }
      const square = dx * dx + dy * dy
      let sum: f64 = 0
      let whole: f64 = 0
      for (let k = 0; k < SAMPLES; k++) {
        const at = scratch + (<usize>k) * 24
        const weight = 1 / (1 + square - 2 * (dx * load<f64>(at) + dy * load<f64>(at + 8)))
        sum += weight * load<f64>(at + 16)
        whole += weight
      }
      const u = gridX - <f64>fromX + shiftX / pitchX
      const v = gridY - <f64>fromY + shiftY / pitchY
      const mended = readAt(source, fromWidth, fromHeight, u, v) + sum / whole
      const t = soft > 0 ? Math.min(1, (1 - far) / soft) : 1
      const to = out + ((<usize>(row * width + column)) << 2)
      const was = <f64>load<f32>(to)
      store<f32>(to, <f32>(was + t * t * (3 - 2 * t) * (mended - was)))
    }
  }
}

/** Weights of four neighbours by the cubic of Keys (1981, a = -1/2), which passes through them; `t` from the second towards the third. */
// @ts-ignore: decorator
@inline
function cubicAt(p0: f32, p1: f32, p2: f32, p3: f32, t: f32): f32 {
  return p1 + 0.5 * t * (p2 - p0 + t * (2 * p0 - 5 * p1 + 4 * p2 - p3 + t * (3 * (p1 - p2) + p3 - p0)))
}

// @ts-ignore: decorator
@inline
function rowCubic(row: usize, x0: usize, x1: usize, x2: usize, x3: usize, t: f32): f32 {
  return cubicAt(load<f32>(row + x0), load<f32>(row + x1), load<f32>(row + x2), load<f32>(row + x3), t)
}

/** Affine placement as `placePlane` does it, read by the cubic of Keys (1981). */
export function placePlaneCubic(
  src: usize, srcWidth: i32, srcHeight: i32, dst: usize, width: i32, height: i32, a: f64, b: f64, c: f64, d: f64, e: f64, f: f64,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = Math.max(0, Math.min(<f64>(srcWidth - 1), a * <f64>x + b * <f64>y + c))
      const v = Math.max(0, Math.min(<f64>(srcHeight - 1), d * <f64>x + e * <f64>y + f))
      const ix = <i32>u
      const iy = <i32>v
      const tx = <f32>(u - <f64>ix)
      const ty = <f32>(v - <f64>iy)
      const x0 = (<usize>max(ix - 1, 0)) << 2
      const x1 = (<usize>ix) << 2
      const x2 = (<usize>min(ix + 1, srcWidth - 1)) << 2
      const x3 = (<usize>min(ix + 2, srcWidth - 1)) << 2
      const r0 = rowCubic(src + (<usize>max(iy - 1, 0) * <usize>srcWidth << 2), x0, x1, x2, x3, tx)
      const r1 = rowCubic(src + (<usize>iy * <usize>srcWidth << 2), x0, x1, x2, x3, tx)
      const r2 = rowCubic(src + (<usize>min(iy + 1, srcHeight - 1) * <usize>srcWidth << 2), x0, x1, x2, x3, tx)
      const r3 = rowCubic(src + (<usize>min(iy + 2, srcHeight - 1) * <usize>srcWidth << 2), x0, x1, x2, x3, tx)
      store<f32>(dst + ((<usize>(y * width + x)) << 2), cubicAt(r0, r1, r2, r3, ty))
    }
  }
}
