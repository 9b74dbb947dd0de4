import { decode, encode, exp2, log2, splat } from './math'

/**
 * Distances in metres from codes 0-1 of a depth picture. `nearCode` is the code of what is near (1 or 0); equal steps are equal steps of the
 * distance, or of its inverse.
 */
export function distanceFromCodes(codes: usize, count: i32, nearIsWhite: bool, near: f32, far: f32, inverse: bool, out: usize): void {
  const bytes = (<usize>count) << 2
  const a = splat(inverse ? <f32>1.0 / near : near)
  const b = splat(inverse ? <f32>1.0 / far : far)
  for (let i: usize = 0; i < bytes; i += 16) {
    const code = f32x4.pmin(splat(1), f32x4.pmax(splat(0), v128.load(codes + i)))
    const t = nearIsWhite ? f32x4.sub(splat(1), code) : code
    const v = f32x4.add(a, f32x4.mul(t, f32x4.sub(b, a)))
    v128.store(out + i, inverse ? f32x4.div(splat(1), f32x4.pmax(v, splat(1e-6))) : v)
  }
}

/**
 * Distances in metres of level ground under a camera: `heightInPixels` (camera height in metres times focal length in px) over the px below the
 * horizon; at most `far`, which is also what lies above it.
 */
export function groundDistance(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  px: f32, py: f32, nx: f32, ny: f32, heightInPixels: f32, far: f32,
): void {
  for (let y = 0; y < height; y++) {
    const away = ((<f32>(y0 + y) + 0.5) * pitchY - py) * ny
    const row = out + ((<usize>(y * width)) << 2)
    for (let x = 0; x < width; x += 4) {
      const columns = f32x4.convert_i32x4_s(i32x4.add(i32x4.splat(x0 + x), i32x4(0, 1, 2, 3)))
      const offset = f32x4.sub(f32x4.mul(f32x4.add(columns, splat(0.5)), splat(pitchX)), splat(px))
      const below = f32x4.add(f32x4.mul(offset, splat(nx)), splat(away))
      const distance = f32x4.div(splat(heightInPixels), f32x4.pmax(below, splat(1e-3)))
      v128.store(row + ((<usize>x) << 2), f32x4.pmin(splat(far), distance))
    }
  }
}

/** What air adds along a distance: 1 - exp(-extinction (d - start)), 0 up to `start`; extinction in 1/m. Koschmieder 1924. */
export function airlight(distance: usize, count: i32, extinction: f32, start: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const k = splat(-extinction * <f32>1.4426950408889634)
  for (let i: usize = 0; i < bytes; i += 16) {
    const d = f32x4.pmax(splat(0), f32x4.sub(v128.load(distance + i), splat(start)))
    v128.store(out + i, f32x4.sub(splat(1), exp2(f32x4.mul(k, d))))
  }
}

/** 1 - (1 - a) (1 - b), or a b. `out` may be one of them. */
export function joinFields(a: usize, b: usize, count: i32, product: bool, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const x = v128.load(a + i)
    const y = v128.load(b + i)
    const both = f32x4.mul(x, y)
    v128.store(out + i, product ? both : f32x4.sub(f32x4.add(x, y), both))
  }
}

/** a plane times a factor. */
export function scalePlane(src: usize, count: i32, factor: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.mul(v128.load(src + i), splat(factor)))
}

/** A distance between two, evenly spread in its logarithm; `u` 0-1. */
export function distanceBetween(near: f64, far: f64, u: f32): f32 {
  return <f32>(near * NativeMath.pow(far / near, <f64>u))
}

/** The least of three planes. */
export function darkestChannel(red: usize, green: usize, blue: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    v128.store(out + i, f32x4.pmin(v128.load(red + i), f32x4.pmin(v128.load(green + i), v128.load(blue + i))))
  }
}

/** Distances in metres from what air adds: -ln(1 - scale added) length, between 0.1 and `far`; `length` is 1 / extinction. */
export function distanceFromHaze(added: usize, count: i32, scale: f32, length: f32, far: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const k = splat(-length * <f32>0.6931471805599453)
  for (let i: usize = 0; i < bytes; i += 16) {
    const through = f32x4.sub(splat(1), f32x4.mul(splat(scale), v128.load(added + i)))
    const d = f32x4.mul(k, log2(f32x4.pmax(splat(1e-6), f32x4.pmin(splat(1), through))))
    v128.store(out + i, f32x4.pmin(splat(far), f32x4.pmax(splat(0.1), d)))
  }
}

/** Lays a distance over others by a mask, blending the inverses. */
export function layRegion(beneath: usize, mask: usize, count: i32, distance: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const own = splat(<f32>1.0 / distance)
  for (let i: usize = 0; i < bytes; i += 16) {
    const inverse = f32x4.div(splat(1), f32x4.pmax(splat(1e-3), v128.load(beneath + i)))
    const mixed = f32x4.add(inverse, f32x4.mul(v128.load(mask + i), f32x4.sub(own, inverse)))
    v128.store(out + i, f32x4.div(splat(1), f32x4.pmax(splat(1e-9), mixed)))
  }
}

/** 1 / v. */
export function inversePlane(source: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.div(splat(1), f32x4.pmax(splat(1e-6), v128.load(source + i))))
}

/** 1 at `near` and nearer, 0 at `far` and farther, even steps of the logarithm between them. */
export function distanceSteps(distance: usize, count: i32, near: f32, far: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const top = log2(splat(far))
  const span = f32x4.sub(top, log2(splat(near)))
  for (let i: usize = 0; i < bytes; i += 16) {
    const t = f32x4.div(f32x4.sub(top, log2(f32x4.pmax(splat(1e-3), v128.load(distance + i)))), span)
    v128.store(out + i, f32x4.pmin(splat(1), f32x4.pmax(splat(0), t)))
  }
}

/** How near steps are to one of them, `at`: 1 / (1 + decline (step - at)^2). */
export function nearTo(steps: usize, count: i32, at: f32, decline: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const one = splat(1)
  for (let i: usize = 0; i < bytes; i += 16) {
    const off = f32x4.sub(v128.load(steps + i), splat(at))
    v128.store(out + i, f32x4.div(one, f32x4.add(one, f32x4.mul(splat(decline), f32x4.mul(off, off)))))
  }
}

/** Distances from even steps of their logarithm: `near` at 0, `far` at 1. */
export function distanceFromSteps(steps: usize, count: i32, near: f32, far: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  const low = log2(splat(near))
  const span = f32x4.sub(log2(splat(far)), low)
  for (let i: usize = 0; i < bytes; i += 16) {
    const t = f32x4.pmin(splat(1), f32x4.pmax(splat(0), v128.load(steps + i)))
    v128.store(out + i, exp2(f32x4.add(low, f32x4.mul(span, t))))
  }
}

/**
 * Takes air away again, from a pixel's red, green and blue: (v - a colour) / (1 - a), a = field mask amount, at most 0.95; in linear light if asked, as it was added.
 * A pixel has no more air than its darkest channel allows, a <= `most` min(v / colour) (He, Sun and Tang 2009: the dark channel of one pixel), so that nothing
 * turns black where there was none; a negative `most` bounds nothing. `mask` may be 0; where a is 0 the value is untouched.
 */
export function clearAir(
  red: usize, green: usize, blue: usize, field: usize, mask: usize, amount: f32, airRed: f32, airGreen: f32, airBlue: f32, most: f32, linear: bool,
  count: i32, outRed: usize, outGreen: usize, outBlue: usize,
): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const r = v128.load(red + i)
    const g = v128.load(green + i)
    const b = v128.load(blue + i)
    const fromRed = linear ? decode(r) : r
    const fromGreen = linear ? decode(g) : g
    const fromBlue = linear ? decode(b) : b
    const darkest = f32x4.pmin(
      f32x4.mul(fromRed, splat(1 / max<f32>(airRed, 1e-4))),
      f32x4.pmin(f32x4.mul(fromGreen, splat(1 / max<f32>(airGreen, 1e-4))), f32x4.mul(fromBlue, splat(1 / max<f32>(airBlue, 1e-4)))),
    )
    const w = mask != 0 ? f32x4.mul(splat(amount), v128.load(mask + i)) : splat(amount)
    const wanted = f32x4.mul(w, f32x4.pmin(splat(1), f32x4.pmax(splat(0), v128.load(field + i))))
    const a = f32x4.pmin(splat(0.95), most < 0 ? wanted : f32x4.pmin(wanted, f32x4.mul(splat(most), darkest)))
    v128.store(outRed + i, cleared(r, fromRed, airRed, a, linear))
    v128.store(outGreen + i, cleared(g, fromGreen, airGreen, a, linear))
    v128.store(outBlue + i, cleared(b, fromBlue, airBlue, a, linear))
  }
}

// @ts-ignore: decorator
@inline
function cleared(v: v128, from: v128, air: f32, a: v128, linear: bool): v128 {
  const without = f32x4.pmax(splat(0), f32x4.div(f32x4.sub(from, f32x4.mul(a, splat(air))), f32x4.sub(splat(1), a)))
  return v128.bitselect(v, linear ? encode(without) : without, f32x4.eq(a, splat(0)))
}

/** Values over the logarithm of distances: straight lines between `knots` equally spaced ones from `near` to `far` metres, level outside. */
export function distanceCurve(distance: usize, count: i32, near: f32, far: f32, values: usize, knots: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  const low = log2(splat(near))
  const step = f32x4.div(splat(<f32>(knots - 1)), f32x4.sub(log2(splat(far)), low))
  for (let i: usize = 0; i < bytes; i += 16) {
    const t = f32x4.mul(f32x4.sub(log2(f32x4.pmax(splat(1e-3), v128.load(distance + i))), low), step)
    v128.store(out + i, t)
    for (let lane: usize = 0; lane < 16; lane += 4) {
      const at = min<f32>(<f32>(knots - 1), max<f32>(0, load<f32>(out + i + lane)))
      const k = min(<i32>at, knots - 2)
      const a = load<f32>(values + ((<usize>k) << 2))
      const b = load<f32>(values + ((<usize>(k + 1)) << 2))
      store<f32>(out + i + lane, a + (at - <f32>k) * (b - a))
    }
  }
}
