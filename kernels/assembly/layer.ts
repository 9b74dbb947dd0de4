import { decode, encode, splat } from './math'
import { mix } from './mix'

/** Fades from a base to other tones by mask times amount; in linear light if asked. `mask` may be 0. Values are not clamped. */
export function fadePlane(base: usize, other: usize, mask: usize, amount: f32, linear: bool, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const a = v128.load(base + i)
    const b = v128.load(other + i)
    const w = mask != 0 ? f32x4.mul(splat(amount), v128.load(mask + i)) : splat(amount)
    if (!v128.any_true(w)) {
      v128.store(out + i, a)
      continue
    }
    const from = linear ? decode(a) : a
    const to = linear ? decode(b) : b
    const mixed = f32x4.add(from, f32x4.mul(w, f32x4.sub(to, from)))
    v128.store(out + i, v128.bitselect(a, linear ? encode(mixed) : mixed, f32x4.eq(w, splat(0))))
  }
}

/**
 * Lays one colour over a layer that may be transparent, with a blend mode: W3C Compositing and Blending Level 1, sections 5 and 10.
 * Cs = (1 - ab) cs + ab B(cb, cs), ar = as + ab - as ab, Cr = ((1 - as) ab cb + as Cs) / ar, with as = mean mask amount.
 * @param sr addresses of the colour's channels: four equal floats each with `sourceStep` 0, planes with 1
 * @param ones plane of `count` ones
 * @param scratch room for `count` floats four times
 */
export function layerMix(
  mode: i32, linear: bool, br: usize, bg: usize, bb: usize, ba: usize, sr: usize, sg: usize, sb: usize, sourceStep: usize, mean: usize, mask: usize, amount: f32,
  count: i32, ones: usize, scratch: usize, outR: usize, outG: usize, outB: usize, outA: usize,
): void {
  mix(mode, linear, br, bg, bb, sr, sg, sb, sourceStep, ones, 0, 0, 1, count, scratch, outR, outG, outB)
  const bytes = (<usize>count) << 2
  const k = splat(amount)
  for (let i: usize = 0; i < bytes; i += 16) {
    const at = i * sourceStep
    const red = v128.load(sr + at)
    const green = v128.load(sg + at)
    const blue = v128.load(sb + at)
    const w = mask != 0 ? f32x4.mul(k, v128.load(mask + i)) : k
    const source = f32x4.pmin(splat(1), f32x4.mul(w, f32x4.pmin(splat(1), f32x4.pmax(splat(0), v128.load(mean + i)))))
    const back = v128.load(ba + i)
    const whole = f32x4.sub(f32x4.add(source, back), f32x4.mul(source, back))
    const share = f32x4.div(splat(1), f32x4.pmax(whole, splat(1e-12)))
    const keeps = f32x4.mul(f32x4.mul(f32x4.sub(splat(1), source), back), share)
    const takes = f32x4.mul(source, share)
    v128.store(outR + i, channel(v128.load(br + i), red, v128.load(outR + i), back, keeps, takes))
    v128.store(outG + i, channel(v128.load(bg + i), green, v128.load(outG + i), back, keeps, takes))
    v128.store(outB + i, channel(v128.load(bb + i), blue, v128.load(outB + i), back, keeps, takes))
    v128.store(outA + i, whole)
  }
}

// @ts-ignore: decorator
@inline
function channel(base: v128, source: v128, blended: v128, back: v128, keeps: v128, takes: v128): v128 {
  const laid = f32x4.add(source, f32x4.mul(back, f32x4.sub(blended, source)))
  return f32x4.add(f32x4.mul(keeps, base), f32x4.mul(takes, laid))
}
