/** Integer hash of two coordinates and a seed; the finalizer is that of MurmurHash3 (Appleby, public domain). */
// @ts-ignore: decorator
@inline
export function hash3(x: i32, y: i32, seed: i32): u32 {
  let h: u32 = (<u32>x) * 0x8da6b343
  h = rotl<u32>(h, 13) ^ ((<u32>y) * 0xd8163841)
  h = rotl<u32>(h, 17) ^ ((<u32>seed) * 0xcb1ab31f)
  h ^= h >>> 16
  h *= 0x85ebca6b
  h ^= h >>> 13
  h *= 0xc2b2ae35
  h ^= h >>> 16
  return h
}

/** The finalizer of MurmurHash3 on four numbers. */
// @ts-ignore: decorator
@inline
export function finalized(mixed: v128): v128 {
  let h = v128.xor(mixed, i32x4.shr_u(mixed, 16))
  h = i32x4.mul(h, i32x4.splat(0x85ebca6b))
  h = v128.xor(h, i32x4.shr_u(h, 13))
  h = i32x4.mul(h, i32x4.splat(0xc2b2ae35))
  return v128.xor(h, i32x4.shr_u(h, 16))
}

// @ts-ignore: decorator
@inline
function rotated(h: v128, by: i32): v128 {
  return v128.or(i32x4.shl(h, by), i32x4.shr_u(h, 32 - by))
}

/** `hash3` of four columns. */
// @ts-ignore: decorator
@inline
export function hash3Columns(columns: v128, y: i32, seed: i32): v128 {
  const column = rotated(i32x4.mul(columns, i32x4.splat(0x8da6b343)), 13)
  const place = rotated(v128.xor(column, i32x4.splat(y * 0xd8163841)), 17)
  return finalized(v128.xor(place, i32x4.splat(seed * 0xcb1ab31f)))
}

/** Hash of a cell of a lattice that is the same again `rows` further down and `shift` to the right; `rows` 0 for one that never is. */
// @ts-ignore: decorator
@inline
export function loopHash(x: i32, y: i32, rows: i32, shift: i32, seed: i32): u32 {
  if (rows <= 0) return hash3(x, y, seed)
  const turns = <i32>Math.floor(<f64>y / <f64>rows)
  return hash3(x - turns * shift, y - turns * rows, seed)
}

/** The next number of the sequence that starts with a hash. */
// @ts-ignore: decorator
@inline
export function nextHash(h: u32): u32 {
  let x = h * 0x9e3779b1 + 0x7f4a7c15
  x ^= x >>> 15
  x *= 0x2c1b3c6d
  x ^= x >>> 12
  x *= 0x297a2d39
  x ^= x >>> 15
  return x
}

/** 0 <= u < 1 from a hash. */
// @ts-ignore: decorator
@inline
export function unit(h: u32): f32 {
  return <f32>(h >>> 8) * <f32>(1.0 / 16777216.0)
}

/** Hashes of four columns, given the hash of their row. */
// @ts-ignore: decorator
@inline
export function hashColumns(columns: v128, rowHash: u32): v128 {
  return finalized(v128.xor(i32x4.mul(columns, i32x4.splat(0x8da6b343)), i32x4.splat(rowHash)))
}

/** Number of points in a cell of a Poisson process of mean 1, from a number 0-1. */
// @ts-ignore: decorator
@inline
export function poissonCount(u: f32): i32 {
  if (u < 0.36787944) return 0
  if (u < 0.73575888) return 1
  if (u < 0.9196986) return 2
  if (u < 0.98101184) return 3
  if (u < 0.99634015) return 4
  return 5
}
