// Powers and exponentials on four floats at a time. They are polynomials, so that every machine
// gives the same bits. Coefficients: logf and exp2f of the Cephes mathematical library (Moshier, 1989).

const LOG2E: f32 = 1.4426950408889634

// @ts-ignore: decorator
@inline
export function splat(value: f32): v128 {
  return f32x4.splat(value)
}

// @ts-ignore: decorator
@inline
export function clamp01(v: v128): v128 {
  // The pseudo-minimum and -maximum are one instruction each; a NaN becomes 0.
  return f32x4.pmin(f32x4.splat(1), f32x4.pmax(f32x4.splat(0), v))
}

// @ts-ignore: decorator
@inline
export function mulAdd(a: v128, b: v128, c: v128): v128 {
  return f32x4.add(f32x4.mul(a, b), c)
}

/** Stores the first lanes of four floats, where a row ends within them. */
export function storeSome(at: usize, v: v128, count: i32): void {
  store<f32>(at, f32x4.extract_lane(v, 0))
  if (count > 1) store<f32>(at + 4, f32x4.extract_lane(v, 1))
  if (count > 2) store<f32>(at + 8, f32x4.extract_lane(v, 2))
}

/** log2 of four positive floats. */
// @ts-ignore: decorator
@inline
export function log2(x: v128): v128 {
  // Split x = m * 2^e with m in [sqrt(1/2), sqrt(2)).
  const bits = i32x4.sub(x, i32x4.splat(0x3f3504f3))
  const e = f32x4.convert_i32x4_s(i32x4.shr_s(bits, 23))
  const m = i32x4.add(v128.and(bits, i32x4.splat(0x007fffff)), i32x4.splat(0x3f3504f3))
  const t = f32x4.sub(m, splat(1))
  const z = f32x4.mul(t, t)
  // Paired terms (Estrin), so that the processor can work on them at the same time.
  const c01 = mulAdd(splat(-2.4999993993e-1), t, splat(3.3333331174e-1))
  const c23 = mulAdd(splat(-1.6668057665e-1), t, splat(2.0000714765e-1))
  const c45 = mulAdd(splat(-1.2420140846e-1), t, splat(1.4249322787e-1))
  const c67 = mulAdd(splat(-1.151461031e-1), t, splat(1.167699874e-1))
  const low = mulAdd(c23, z, c01)
  const high = mulAdd(mulAdd(splat(7.0376836292e-2), z, c67), z, c45)
  const z2 = f32x4.mul(z, z)
  let y = f32x4.mul(f32x4.mul(mulAdd(high, z2, low), t), z)
  y = f32x4.sub(y, f32x4.mul(splat(0.5), z))
  return mulAdd(f32x4.add(t, y), splat(LOG2E), e)
}

/** 2^x of four floats, x in -126..126. */
// @ts-ignore: decorator
@inline
export function exp2(x: v128): v128 {
  const clamped = f32x4.pmax(splat(-126), f32x4.pmin(splat(126), x))
  // Adding 1.5 * 2^23 rounds to a whole number, which then stands in the low bits.
  const shifted = f32x4.add(clamped, splat(12582912))
  const f = f32x4.sub(clamped, f32x4.sub(shifted, splat(12582912)))
  const z = f32x4.mul(f, f)
  const c01 = mulAdd(splat(6.9314720286e-1), f, splat(1))
  const c23 = mulAdd(splat(5.5503324712e-2), f, splat(2.4022647914e-1))
  const c45 = mulAdd(splat(1.3398874403e-3), f, splat(9.6184373577e-3))
  const high = mulAdd(mulAdd(splat(1.5353361883e-4), z, c45), z, c23)
  const power = i32x4.add(i32x4.shl(shifted, 23), i32x4.splat(0x3f800000))
  return f32x4.mul(mulAdd(high, z, c01), power)
}

/** x^exponent of four floats; 0 where x <= 0. */
// @ts-ignore: decorator
@inline
export function power(x: v128, exponent: v128): v128 {
  const positive = f32x4.gt(x, splat(0))
  const y = exp2(f32x4.mul(exponent, log2(f32x4.pmax(x, splat(1e-30)))))
  return v128.and(y, positive)
}

// The curve of IEC 61966-2-1 between black and white: polynomials fitted to it at 2000 Chebyshev nodes, within 5e-7. Beyond white, powers.

// Beyond white in functions of their own: that is rare, and in line it leaves no registers for the rest.

function encodedBeyond(x: v128): v128 {
  return f32x4.sub(f32x4.mul(splat(1.055), exp2(f32x4.mul(splat(<f32>(1.0 / 2.4)), log2(f32x4.pmax(x, splat(1)))))), splat(0.055))
}

function decodedBeyond(x: v128): v128 {
  const base = f32x4.mul(f32x4.add(f32x4.pmax(x, splat(1)), splat(0.055)), splat(<f32>(1.0 / 1.055)))
  return exp2(f32x4.mul(splat(2.4), log2(base)))
}

/** Encoded from linear light, IEC 61966-2-1; the straight part goes on below 0. @param toWhite whether nothing is beyond white, which is faster */
// @ts-ignore: decorator
@inline
export function encode(x: v128, toWhite: bool = false): v128 {
  // In the fourth root, where the curve is nearly straight.
  const t = f32x4.sub(f32x4.sqrt(f32x4.sqrt(f32x4.pmax(x, splat(0)))), splat(0.62))
  const z = f32x4.mul(t, t)
  const c01 = mulAdd(splat(1.27848705), t, splat(0.420596165))
  const c23 = mulAdd(splat(-0.123347233), t, splat(0.687418762))
  const c45 = mulAdd(splat(-0.0461975899), t, splat(0.0642488099))
  const c67 = mulAdd(splat(-0.0727052335), t, splat(0.0641334035))
  let curve = mulAdd(mulAdd(c67, z, c45), f32x4.mul(z, z), mulAdd(c23, z, c01))
  if (!toWhite) {
    const beyond = f32x4.gt(x, splat(1))
    if (v128.any_true(beyond)) curve = v128.bitselect(encodedBeyond(x), curve, beyond)
  }
  return v128.bitselect(f32x4.mul(x, splat(12.92)), curve, f32x4.le(x, splat(0.0031308)))
}

/** Linear light from encoded, IEC 61966-2-1; the straight part goes on below 0. @param toWhite as for `encode` */
// @ts-ignore: decorator
@inline
export function decode(x: v128, toWhite: bool = false): v128 {
  const t = f32x4.sub(x, splat(0.52))
  const z = f32x4.mul(t, t)
  const z2 = f32x4.mul(z, z)
  const c01 = mulAdd(splat(0.972614784), t, splat(0.233021848))
  const c23 = mulAdd(splat(0.274462562), t, splat(1.18408251))
  const c45 = mulAdd(splat(0.0420973024), t, splat(-0.0726311562))
  const c67 = mulAdd(splat(0.007453866), t, splat(-0.0191810784))
  const c89 = mulAdd(splat(0.0941156081), t, splat(-0.0696781957))
  let curve = mulAdd(mulAdd(c89, z2, mulAdd(c67, z, c45)), z2, mulAdd(c23, z, c01))
  if (!toWhite) {
    const beyond = f32x4.gt(x, splat(1))
    if (v128.any_true(beyond)) curve = v128.bitselect(decodedBeyond(x), curve, beyond)
  }
  return v128.bitselect(f32x4.mul(x, splat(<f32>(1.0 / 12.92))), curve, f32x4.le(x, splat(0.04045)))
}

// Scalars for the planning code outside, which must not depend on the engine that runs it.

export function sine(radians: f64): f64 {
  return NativeMath.sin(radians)
}

export function cosine(radians: f64): f64 {
  return NativeMath.cos(radians)
}

/** Error function, Abramowitz and Stegun 7.1.26 (absolute error below 1.5e-7). */
export function errorFunction(x: f64): f64 {
  const a = Math.abs(x)
  const t = 1.0 / (1.0 + 0.3275911 * a)
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t
  const y = 1.0 - poly * NativeMath.exp(-a * a)
  return x < 0 ? -y : y
}
