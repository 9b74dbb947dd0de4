import { clamp01, decode, encode, splat, storeSome } from './math'

// @ts-ignore: decorator
@inline
function weighted(a: f32, x: v128, b: f32, y: v128, c: f32, z: v128): v128 {
  return f32x4.add(f32x4.mul(splat(a), x), f32x4.add(f32x4.mul(splat(b), y), f32x4.mul(splat(c), z)))
}

/** A step of Halley's method towards the cube root of x: three times as many digits of y. */
// @ts-ignore: decorator
@inline
function nearerCubeRoot(y: v128, x: v128): v128 {
  const cube = f32x4.mul(y, f32x4.mul(y, y))
  return f32x4.div(f32x4.mul(y, f32x4.add(cube, f32x4.add(x, x))), f32x4.add(f32x4.add(cube, cube), x))
}

/** Cube root, 0 where x <= 0. A third of the exponent gives it to a twentieth (Kahan and Bindel 2001, "Computing a real cube root", from memory). */
// @ts-ignore: decorator
@inline
function cubeRoot(x: v128): v128 {
  const positive = f32x4.pmax(x, splat(1e-12))
  const third = i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.convert_i32x4_s(positive), splat(<f32>(1.0 / 3.0))))
  const near = i32x4.add(third, i32x4.splat(0x2a5119f2))
  return v128.and(nearerCubeRoot(nearerCubeRoot(near, positive), positive), f32x4.gt(x, splat(0)))
}

/** OKLab of encoded planes clamped to 0-1. Matrices: Ottosson 2020, "A perceptual color space for image processing". */
export function oklabPlanes(r: usize, g: usize, b: usize, count: i32, outL: usize, outA: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = decode(clamp01(v128.load(r + i)), true)
    const green = decode(clamp01(v128.load(g + i)), true)
    const blue = decode(clamp01(v128.load(b + i)), true)
    const l = cubeRoot(weighted(0.4122214708, red, 0.5363325363, green, 0.0514459929, blue))
    const m = cubeRoot(weighted(0.2119034982, red, 0.6806995451, green, 0.1073969566, blue))
    const s = cubeRoot(weighted(0.0883024619, red, 0.2817188376, green, 0.6299787005, blue))
    v128.store(outL + i, weighted(0.2104542553, l, 0.793617785, m, -0.0040720468, s))
    v128.store(outA + i, weighted(1.9779984951, l, -2.428592205, m, 0.4505937099, s))
    v128.store(outB + i, weighted(0.0259040371, l, 0.7827717662, m, -0.808675766, s))
  }
}

/** Encoded planes, clamped to 0-1, through a matrix in linear light, by rows; encoded again and clamped to 0-1. */
export function throughMatrix(
  r: usize, g: usize, b: usize, rr: f32, rg: f32, rb: f32, gr: f32, gg: f32, gb: f32, br: f32, bg: f32, bb: f32, count: i32, outR: usize, outG: usize, outB: usize,
): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = decode(clamp01(v128.load(r + i)), true)
    const green = decode(clamp01(v128.load(g + i)), true)
    const blue = decode(clamp01(v128.load(b + i)), true)
    v128.store(outR + i, encode(clamp01(weighted(rr, red, rg, green, rb, blue)), true))
    v128.store(outG + i, encode(clamp01(weighted(gr, red, gg, green, gb, blue)), true))
    v128.store(outB + i, encode(clamp01(weighted(br, red, bg, green, bb, blue)), true))
  }
}

/** Arc cosine of -1..1, Abramowitz and Stegun 4.4.45 (absolute error below 7e-5). */
// @ts-ignore: decorator
@inline
function arcCosine(x: v128): v128 {
  const a = f32x4.pmin(splat(1), f32x4.abs(x))
  const p = f32x4.add(splat(1.5707288), f32x4.mul(a, f32x4.add(splat(-0.2121144), f32x4.mul(a, f32x4.add(splat(0.074261), f32x4.mul(a, splat(-0.0187293)))))))
  const y = f32x4.mul(f32x4.sqrt(f32x4.sub(splat(1), a)), p)
  return v128.bitselect(f32x4.sub(splat(3.14159265), y), y, f32x4.lt(x, splat(0)))
}

/** 0 up to `from`, 1 from `from + span` on. */
// @ts-ignore: decorator
@inline
function rise(v: v128, from: f32, span: f32): v128 {
  const t = clamp01(f32x4.mul(f32x4.sub(v, splat(from)), splat(<f32>1.0 / max<f32>(span, 1e-5))))
  return f32x4.mul(f32x4.mul(t, t), f32x4.sub(splat(3), f32x4.add(t, t)))
}

/**
 * Open for hues within `width` radians either side of the hue whose cosine and sine are given, and for chromas between `low` and `high`;
 * beyond them it falls over `hueSoft` radians and over `chromaSoft`.
 */
export function hueChromaMask(
  a: usize, b: usize, count: i32, cos: f32, sin: f32, width: f32, hueSoft: f32, low: f32, high: f32, chromaSoft: f32, out: usize,
): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const x = v128.load(a + i)
    const y = v128.load(b + i)
    const chroma = f32x4.sqrt(f32x4.add(f32x4.mul(x, x), f32x4.mul(y, y)))
    const along = f32x4.add(f32x4.mul(x, splat(cos)), f32x4.mul(y, splat(sin)))
    const angle = arcCosine(f32x4.div(along, f32x4.pmax(chroma, splat(1e-6))))
    const hue = width >= 3.1415 ? splat(1) : f32x4.sub(splat(1), rise(angle, width, hueSoft))
    const under = low > 0 ? rise(chroma, low - chromaSoft, chromaSoft) : splat(1)
    const over = f32x4.sub(splat(1), rise(chroma, high, chromaSoft))
    v128.store(out + i, f32x4.mul(hue, f32x4.mul(under, over)))
  }
}

/** Full up to half the reach, then a smooth fall to 0; `t` is the square of distance over reach. */
// @ts-ignore: decorator
@inline
function closeness(t: v128): v128 {
  return f32x4.sub(splat(1), rise(f32x4.sqrt(t), 0.5, 0.5))
}

/** The lighter of `out` and the closeness to one place and its colour: a product of both, each with its reach. */
export function similarTo(
  l: usize, a: usize, b: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  px: f32, py: f32, pl: f32, pa: f32, pb: f32, reachPlace: f32, reachColour: f32, out: usize,
): void {
  const perPlace: f32 = 1 / (reachPlace * reachPlace)
  const perColour: f32 = 1 / (reachColour * reachColour)
  for (let y = 0; y < height; y++) {
    const dy = (<f32>(y0 + y) + 0.5) * pitchY - py
    for (let x = 0; x < width; x += 4) {
      const at = (<usize>(y * width + x)) << 2
      const columns = f32x4.convert_i32x4_s(i32x4.add(i32x4.splat(x0 + x), i32x4(0, 1, 2, 3)))
      const dx = f32x4.sub(f32x4.mul(f32x4.add(columns, splat(0.5)), splat(pitchX)), splat(px))
      const place = closeness(f32x4.mul(f32x4.add(f32x4.mul(dx, dx), splat(dy * dy)), splat(perPlace)))
      const dl = f32x4.sub(v128.load(l + at), splat(pl))
      const da = f32x4.sub(v128.load(a + at), splat(pa))
      const db = f32x4.sub(v128.load(b + at), splat(pb))
      const off = f32x4.add(f32x4.mul(dl, dl), f32x4.add(f32x4.mul(da, da), f32x4.mul(db, db)))
      const found = f32x4.mul(place, closeness(f32x4.mul(off, splat(perColour))))
      const best = f32x4.pmax(v128.load(out + at), found)
      // The next row begins in the same four lanes; it has its own values to compare with.
      if (x + 4 <= width) v128.store(out + at, best)
      else storeSome(out + at, best, width - x)
    }
  }
}
