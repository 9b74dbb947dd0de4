import { clamp01, decode, encode, splat } from './math'

// Blend modes. 0-15 are those of W3C Compositing and Blending Level 1, section 10, in its order;
// 16 plus-lighter, 17 linear light (b + 2 s - 1), 18 subtract (b - s). The numbers are those of `mixModes` in the core.

// @ts-ignore: decorator
@inline
function minus1(v: v128): v128 {
  return f32x4.sub(splat(1), v)
}

// @ts-ignore: decorator
@inline
function screen(b: v128, s: v128): v128 {
  return f32x4.sub(f32x4.add(b, s), f32x4.mul(b, s))
}

// @ts-ignore: decorator
@inline
function hardLight(b: v128, s: v128): v128 {
  const twice = f32x4.add(s, s)
  return v128.bitselect(f32x4.mul(b, twice), screen(b, f32x4.sub(twice, splat(1))), f32x4.le(s, splat(0.5)))
}

// @ts-ignore: decorator
@inline
function softLight(b: v128, s: v128): v128 {
  const low = f32x4.sub(b, f32x4.mul(minus1(f32x4.add(s, s)), f32x4.mul(b, minus1(b))))
  const poly = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(splat(16), b), splat(12)), b), splat(4)), b)
  const d = v128.bitselect(poly, f32x4.sqrt(b), f32x4.le(b, splat(0.25)))
  const high = f32x4.add(b, f32x4.mul(f32x4.sub(f32x4.add(s, s), splat(1)), f32x4.sub(d, b)))
  return v128.bitselect(low, high, f32x4.le(s, splat(0.5)))
}

// @ts-ignore: decorator
@inline
function colorDodge(b: v128, s: v128): v128 {
  const quotient = f32x4.pmin(splat(1), f32x4.div(b, f32x4.pmax(minus1(s), splat(1e-20))))
  const open = v128.bitselect(splat(1), quotient, f32x4.ge(s, splat(1)))
  return v128.bitselect(splat(0), open, f32x4.le(b, splat(0)))
}

// @ts-ignore: decorator
@inline
function colorBurn(b: v128, s: v128): v128 {
  const quotient = minus1(f32x4.pmin(splat(1), f32x4.div(minus1(b), f32x4.pmax(s, splat(1e-20)))))
  const open = v128.bitselect(splat(0), quotient, f32x4.le(s, splat(0)))
  return v128.bitselect(splat(1), open, f32x4.ge(b, splat(1)))
}

// @ts-ignore: decorator
@inline
function blend(mode: i32, b: v128, s: v128): v128 {
  if (mode == 1) return f32x4.mul(b, s)
  if (mode == 2) return screen(b, s)
  if (mode == 3) return hardLight(s, b)
  if (mode == 4) return f32x4.pmin(b, s)
  if (mode == 5) return f32x4.pmax(b, s)
  if (mode == 6) return colorDodge(b, s)
  if (mode == 7) return colorBurn(b, s)
  if (mode == 8) return hardLight(b, s)
  if (mode == 9) return softLight(b, s)
  if (mode == 10) return f32x4.abs(f32x4.sub(b, s))
  if (mode == 11) return f32x4.sub(f32x4.add(b, s), f32x4.mul(splat(2), f32x4.mul(b, s)))
  if (mode == 16) return f32x4.pmin(splat(1), f32x4.add(b, s))
  if (mode == 17) return clamp01(f32x4.sub(f32x4.add(b, f32x4.add(s, s)), splat(1)))
  if (mode == 18) return f32x4.pmax(splat(0), f32x4.sub(b, s))
  return s
}

// A partly covered pixel of mean m and variance s is read as a part c = m^2 / (m^2 + s) of it covered by the
// intensity p = (m^2 + s) / m. The parts are averaged in linear light.

/** Source alpha of the covered part, and coverage, written where the channel loops pick them up. */
function prepareAlpha(mean: usize, spread: usize, mask: usize, count: i32, amount: f32, alpha: usize, coverage: usize): void {
  const bytes = (<usize>count) << 2
  const k = splat(amount)
  for (let i: usize = 0; i < bytes; i += 16) {
    const m = clamp01(v128.load(mean + i))
    const w = mask != 0 ? f32x4.mul(k, v128.load(mask + i)) : k
    if (spread != 0) {
      const safe = f32x4.pmax(m, splat(1e-12))
      const p = clamp01(f32x4.add(m, f32x4.div(v128.load(spread + i), safe)))
      v128.store(alpha + i, f32x4.mul(p, w))
      v128.store(coverage + i, f32x4.pmin(splat(1), f32x4.div(m, f32x4.pmax(p, splat(1e-12)))))
    } else v128.store(alpha + i, f32x4.mul(m, w))
  }
}

// @ts-ignore: decorator
@inline
function finish(base: v128, from: v128, mixed: v128, a: v128, coverage: usize, i: usize, linear: bool): v128 {
  let r = f32x4.add(from, f32x4.mul(a, f32x4.sub(mixed, from)))
  if (coverage != 0) {
    const light = linear ? from : decode(from)
    const covered = linear ? r : decode(r)
    r = encode(f32x4.add(light, f32x4.mul(v128.load(coverage + i), f32x4.sub(covered, light))))
  } else if (linear) r = encode(r)
  return v128.bitselect(base, r, f32x4.eq(a, splat(0)))
}

/** What is mixed from. Working values may lie outside 0-1; the formulas take them clamped, what is not covered keeps them. */
// @ts-ignore: decorator
@inline
function unclamped(base: v128, clamped: v128, b: v128, linear: bool): v128 {
  if (!linear) return base
  return v128.any_true(f32x4.ne(base, clamped)) ? decode(base) : b
}

// @ts-ignore: decorator
@inline
function mixChannel(mode: i32, base: usize, source: usize, sourceStep: usize, alpha: usize, coverage: usize, bytes: usize, linear: bool, out: usize): void {
  if (!linear && coverage == 0) {
    // Encoded and wholly covered: nothing is decoded, and where the alpha is 0 the formula gives the base itself.
    for (let i: usize = 0; i < bytes; i += 16) {
      const original = v128.load(base + i)
      const mixed = blend(mode, clamp01(original), clamp01(v128.load(source + i * sourceStep)))
      v128.store(out + i, f32x4.add(original, f32x4.mul(v128.load(alpha + i), f32x4.sub(mixed, original))))
    }
    return
  }
  let s = clamp01(v128.load(source))
  if (linear) s = decode(s)
  for (let i: usize = 0; i < bytes; i += 16) {
    const original = v128.load(base + i)
    const a = v128.load(alpha + i)
    if (!v128.any_true(a)) {
      v128.store(out + i, original)
      continue
    }
    if (sourceStep != 0) {
      s = clamp01(v128.load(source + i))
      if (linear) s = decode(s)
    }
    const clamped = clamp01(original)
    const b = linear ? decode(clamped) : clamped
    v128.store(out + i, finish(original, unclamped(original, clamped, b, linear), blend(mode, b, s), a, coverage, i, linear))
  }
}

// The four modes that look at all three channels. Lum has the weights of the recommendation.

// @ts-ignore: decorator
@inline
function lum(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.mul(splat(0.3), r), f32x4.add(f32x4.mul(splat(0.59), g), f32x4.mul(splat(0.11), b)))
}

// @ts-ignore: decorator
@inline
function least(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmin(r, f32x4.pmin(g, b))
}

// @ts-ignore: decorator
@inline
function most(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmax(r, f32x4.pmax(g, b))
}

// @ts-ignore: decorator
@inline
function clip(c: v128, l: v128, n: v128, x: v128): v128 {
  const raised = f32x4.add(l, f32x4.div(f32x4.mul(f32x4.sub(c, l), l), f32x4.pmax(f32x4.sub(l, n), splat(1e-20))))
  const first = v128.bitselect(raised, c, f32x4.lt(n, splat(0)))
  const lowered = f32x4.add(l, f32x4.div(f32x4.mul(f32x4.sub(first, l), minus1(l)), f32x4.pmax(f32x4.sub(x, l), splat(1e-20))))
  return v128.bitselect(lowered, first, f32x4.gt(x, splat(1)))
}

function mixTriples(
  mode: i32, br: usize, bg: usize, bb: usize, sr: usize, sg: usize, sb: usize, sourceStep: usize,
  alpha: usize, coverage: usize, bytes: usize, linear: bool, outR: usize, outG: usize, outB: usize,
): void {
  for (let i: usize = 0; i < bytes; i += 16) {
    const at = i * sourceStep
    const r0 = v128.load(br + i)
    const g0 = v128.load(bg + i)
    const b0 = v128.load(bb + i)
    const rc = clamp01(r0)
    const gc = clamp01(g0)
    const bc = clamp01(b0)
    let r = rc
    let g = gc
    let b = bc
    let p = clamp01(v128.load(sr + at))
    let q = clamp01(v128.load(sg + at))
    let s = clamp01(v128.load(sb + at))
    if (linear) {
      r = decode(r)
      g = decode(g)
      b = decode(b)
      p = decode(p)
      q = decode(q)
      s = decode(s)
    }
    const r1 = r
    const g1 = g
    const b1 = b
    let target = lum(r, g, b)
    if (mode == 12 || mode == 13) {
      // Hue takes the source's hue with the backdrop's saturation, saturation the other way round.
      const fromR = mode == 12 ? p : r
      const fromG = mode == 12 ? q : g
      const fromB = mode == 12 ? s : b
      const toR = mode == 12 ? r : p
      const toG = mode == 12 ? g : q
      const toB = mode == 12 ? b : s
      const sat = f32x4.sub(most(toR, toG, toB), least(toR, toG, toB))
      const low = least(fromR, fromG, fromB)
      const range = f32x4.sub(most(fromR, fromG, fromB), low)
      const k = v128.bitselect(f32x4.div(sat, f32x4.pmax(range, splat(1e-20))), splat(0), f32x4.gt(range, splat(0)))
      r = f32x4.mul(f32x4.sub(fromR, low), k)
      g = f32x4.mul(f32x4.sub(fromG, low), k)
      b = f32x4.mul(f32x4.sub(fromB, low), k)
    } else if (mode == 14) {
      r = p
      g = q
      b = s
    } else target = lum(p, q, s)
    const d = f32x4.sub(target, lum(r, g, b))
    r = f32x4.add(r, d)
    g = f32x4.add(g, d)
    b = f32x4.add(b, d)
    const l = lum(r, g, b)
    const n = least(r, g, b)
    const x = most(r, g, b)
    const a = v128.load(alpha + i)
    v128.store(outR + i, finish(r0, unclamped(r0, rc, r1, linear), clip(r, l, n, x), a, coverage, i, linear))
    v128.store(outG + i, finish(g0, unclamped(g0, gc, g1, linear), clip(g, l, n, x), a, coverage, i, linear))
    v128.store(outB + i, finish(b0, unclamped(b0, bc, b1, linear), clip(b, l, n, x), a, coverage, i, linear))
  }
}

function mixOne(mode: i32, base: usize, source: usize, sourceStep: usize, alpha: usize, coverage: usize, bytes: usize, linear: bool, out: usize): void {
  switch (mode) {
    case 1: return mixChannel(1, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 2: return mixChannel(2, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 3: return mixChannel(3, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 4: return mixChannel(4, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 5: return mixChannel(5, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 6: return mixChannel(6, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 7: return mixChannel(7, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 8: return mixChannel(8, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 9: return mixChannel(9, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 10: return mixChannel(10, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 11: return mixChannel(11, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 16: return mixChannel(16, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 17: return mixChannel(17, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    case 18: return mixChannel(18, base, source, sourceStep, alpha, coverage, bytes, linear, out)
    default: return mixChannel(0, base, source, sourceStep, alpha, coverage, bytes, linear, out)
  }
}

/**
 * Lays a source over an opaque base: out = base + a (B(base, source) - base), a = mean * mask * amount.
 * Planes are encoded; with `linear` the formula works in linear light. With `spread` the source covers only part
 * of each pixel, and the parts are averaged in linear light. `sourceStep` is 0 for one colour (each source address
 * then holds four equal floats) and 1 for planes. `scratch` holds `count` floats twice. `mask`, `spread` may be 0.
 */
export function mix(
  mode: i32, linear: bool, br: usize, bg: usize, bb: usize, sr: usize, sg: usize, sb: usize, sourceStep: usize,
  mean: usize, spread: usize, mask: usize, amount: f32, count: i32, scratch: usize, outR: usize, outG: usize, outB: usize,
): void {
  const bytes = (<usize>count) << 2
  const alpha = scratch
  const coverage = spread != 0 ? scratch + ((bytes + 15) & ~15) : 0
  prepareAlpha(mean, spread, mask, count, amount, alpha, coverage)
  if (mode >= 12 && mode <= 15) {
    mixTriples(mode, br, bg, bb, sr, sg, sb, sourceStep, alpha, coverage, bytes, linear, outR, outG, outB)
    return
  }
  mixOne(mode, br, sr, sourceStep, alpha, coverage, bytes, linear, outR)
  mixOne(mode, bg, sg, sourceStep, alpha, coverage, bytes, linear, outG)
  mixOne(mode, bb, sb, sourceStep, alpha, coverage, bytes, linear, outB)
}
