import { finalized } from './hash'
import { clamp01, splat } from './math'

// Gradient noise (Perlin 1985, with the fifth-degree fade of Perlin 2002) over an endless hashed lattice, summed over octaves.

// @ts-ignore: decorator
@inline
function hash4(x: v128, y: v128, seed: i32): v128 {
  const place = v128.xor(i32x4.mul(x, i32x4.splat(0x8da6b343)), i32x4.mul(y, i32x4.splat(0xd8163841)))
  return finalized(v128.xor(place, i32x4.splat(seed * 0xcb1ab31f)))
}

/** Scalar product of the gradient of a lattice point, its parts between -1 and 1, and the offset from it. */
// @ts-ignore: decorator
@inline
function corner(ix: v128, iy: v128, seed: i32, dx: v128, dy: v128): v128 {
  const h = hash4(ix, iy, seed)
  const gx = f32x4.convert_i32x4_s(i32x4.sub(v128.and(h, i32x4.splat(0xffff)), i32x4.splat(0x8000)))
  const gy = f32x4.convert_i32x4_s(i32x4.sub(i32x4.shr_u(h, 16), i32x4.splat(0x8000)))
  return f32x4.mul(f32x4.add(f32x4.mul(gx, dx), f32x4.mul(gy, dy)), splat(<f32>(1.0 / 32768.0)))
}

// @ts-ignore: decorator
@inline
function fade(t: v128): v128 {
  const inner = f32x4.add(f32x4.mul(t, f32x4.sub(f32x4.mul(t, splat(6)), splat(15))), splat(10))
  return f32x4.mul(f32x4.mul(f32x4.mul(t, t), t), inner)
}

// @ts-ignore: decorator
@inline
function blend(a: v128, b: v128, t: v128): v128 {
  return f32x4.add(a, f32x4.mul(t, f32x4.sub(b, a)))
}

// @ts-ignore: decorator
@inline
function gradientNoise(x: v128, y: v128, seed: i32): v128 {
  const wholeX = f32x4.floor(x)
  const wholeY = f32x4.floor(y)
  const ix = i32x4.trunc_sat_f32x4_s(wholeX)
  const iy = i32x4.trunc_sat_f32x4_s(wholeY)
  const dx = f32x4.sub(x, wholeX)
  const dy = f32x4.sub(y, wholeY)
  const ix1 = i32x4.add(ix, i32x4.splat(1))
  const iy1 = i32x4.add(iy, i32x4.splat(1))
  const ex = f32x4.sub(dx, splat(1))
  const ey = f32x4.sub(dy, splat(1))
  const top = blend(corner(ix, iy, seed, dx, dy), corner(ix1, iy, seed, ex, dy), fade(dx))
  const bottom = blend(corner(ix, iy1, seed, dx, ey), corner(ix1, iy1, seed, ex, ey), fade(dx))
  return blend(top, bottom, fade(dy))
}

/** Sum of octaves, each twice as fine and half as strong as the one before, around 0. */
function octavesOf(x: v128, y: v128, unit: f32, octaves: i32, seed: i32): v128 {
  let u = x
  let v = y
  let sum = splat(0)
  let weight: f32 = 1
  let size = unit
  for (let octave = 0; octave < octaves; octave++) {
    // An octave of fewer than two grid pixels a unit cannot be shown; from four on it is shown in full.
    const t = min<f32>(1, max<f32>(0, (<f32>1.0 / size - 2) * 0.5))
    const shown = t * t * (3 - 2 * t)
    if (shown <= 0) break
    sum = f32x4.add(sum, f32x4.mul(splat(weight * shown), gradientNoise(u, v, seed + octave * 101)))
    // Turned from octave to octave, so that the lattices do not line up: by atan(3/4), times two.
    const next = f32x4.sub(f32x4.mul(u, splat(1.6)), f32x4.mul(v, splat(1.2)))
    v = f32x4.add(f32x4.mul(u, splat(1.2)), f32x4.mul(v, splat(1.6)))
    u = next
    weight *= 0.5
    size *= 2
  }
  return sum
}

/**
 * Fractal noise as a mask. Photo px (x, y) is taken to noise units by the matrix a b c / d e f; each octave is twice as fine and half as
 * strong, and fades out where it would be finer than the grid. The mask rises smoothly from `low` to `high`, noise lying around 0.5.
 * @param within a plane, or 0: where it is 0 the noise is not needed, and left at 0
 * @param unit noise units a grid pixel spans
 * @param phase 0-1: the noise drifts (driftX, driftY) noise units in a loop, and goes over into itself while it does
 */
export function cloudMask(
  out: usize, within: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  a: f32, b: f32, c: f32, d: f32, e: f32, f: f32, unit: f32, octaves: i32, seed: i32, low: f32, high: f32, phase: f32, driftX: f32, driftY: f32,
): void {
  const span: f32 = 1 / max<f32>(high - low, 1e-4)
  for (let y = 0; y < height; y++) {
    const py = (<f32>(y0 + y) + 0.5) * pitchY
    const offset = (<usize>(y * width)) << 2
    const row = out + offset
    for (let x = 0; x < width; x += 4) {
      if (within != 0 && !v128.any_true(f32x4.gt(v128.load(within + offset + ((<usize>x) << 2)), splat(0)))) {
        v128.store(row + ((<usize>x) << 2), splat(0))
        continue
      }
      const columns = f32x4.convert_i32x4_s(i32x4.add(i32x4.splat(x0 + x), i32x4(0, 1, 2, 3)))
      const px = f32x4.mul(f32x4.add(columns, splat(0.5)), splat(pitchX))
      const u = f32x4.add(f32x4.mul(px, splat(a)), splat(b * py + c))
      const v = f32x4.add(f32x4.mul(px, splat(d)), splat(e * py + f))
      let sum = octavesOf(f32x4.sub(u, splat(phase * driftX)), f32x4.sub(v, splat(phase * driftY)), unit, octaves, seed)
      if (phase > 0) {
        // The same noise one loop earlier takes over; the root keeps the contrast of the two even.
        const before = octavesOf(f32x4.sub(u, splat((phase - 1) * driftX)), f32x4.sub(v, splat((phase - 1) * driftY)), unit, octaves, seed)
        const rest: f32 = 1 - phase
        const even = splat(<f32>1.0 / sqrt<f32>(phase * phase + rest * rest))
        sum = f32x4.mul(even, f32x4.add(f32x4.mul(splat(rest), sum), f32x4.mul(splat(phase), before)))
      }
      const value = f32x4.add(splat(0.5), f32x4.mul(splat(0.62), sum))
      const s = clamp01(f32x4.mul(f32x4.sub(value, splat(low)), splat(span)))
      v128.store(row + ((<usize>x) << 2), f32x4.mul(f32x4.mul(s, s), f32x4.sub(splat(3), f32x4.add(s, s))))
    }
  }
}
