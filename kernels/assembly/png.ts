// Rows of a PNG before they are compressed: each sample less what its neighbours foretell (W3C PNG, third edition, section 9). Samples are bytes.

/** Zeros before and behind a row in the scratch. */
const MARGIN: usize = 16

/**
 * Filters rows, each with the one of five filters that leaves the least sum of distances from zero (section 12.7).
 * @param samples rows of `rowBytes` bytes; with `above` there is one more before them
 * @param step bytes of a pixel, at most 16
 * @param above whether the first row may read the one before it; else only filters 0 and 1 come into question
 * @param scratch room for two rows and 64 bytes
 * @param out gets rows of a byte that names the filter and `rowBytes` more; up to 15 bytes behind them are written too
 */
export function filterRows(samples: usize, rowBytes: i32, step: i32, rows: i32, above: bool, scratch: usize, out: usize): void {
  const length = <usize>rowBytes
  const stride = length + 2 * MARGIN
  memory.fill(scratch, 0, 2 * stride)
  let current = scratch + MARGIN
  let before = current + stride
  if (above) memory.copy(before, samples - length, length)
  for (let y = 0; y < rows; y++) {
    memory.copy(current, samples + <usize>y * length, length)
    const to = out + <usize>y * (length + 1)
    const kind = bestFilter(current, before, <usize>step, length, above || y > 0)
    store<u8>(to, <u8>kind)
    applyFilter(kind, current, before, <usize>step, length, to + 1)
    const other = before
    before = current
    current = other
  }
}

function bestFilter(row: usize, above: usize, step: usize, length: usize, all: bool): i32 {
  let none = i32x4.splat(0)
  let left = none
  let up = none
  let mean = none
  let path = none
  for (let i: usize = 0; i < length; i += 16) {
    const x = v128.load(row + i)
    const a = v128.load(row + i - step)
    none = i32x4.add(none, distances(x))
    left = i32x4.add(left, distances(i8x16.sub(x, a)))
    if (!all) continue
    const b = v128.load(above + i)
    up = i32x4.add(up, distances(i8x16.sub(x, b)))
    mean = i32x4.add(mean, distances(i8x16.sub(x, half(a, b))))
    path = i32x4.add(path, distances(i8x16.sub(x, paeth(a, b, v128.load(above + i - step)))))
  }
  let kind = 0
  let least = total(none)
  const ofLeft = total(left)
  if (ofLeft < least) {
    kind = 1
    least = ofLeft
  }
  if (!all) return kind
  const ofUp = total(up)
  if (ofUp < least) {
    kind = 2
    least = ofUp
  }
  const ofMean = total(mean)
  if (ofMean < least) {
    kind = 3
    least = ofMean
  }
  return total(path) < least ? 4 : kind
}

function applyFilter(kind: i32, row: usize, above: usize, step: usize, length: usize, to: usize): void {
  for (let i: usize = 0; i < length; i += 16) {
    const a = v128.load(row + i - step)
    const b = v128.load(above + i)
    let foretold = i8x16.splat(0)
    if (kind == 1) foretold = a
    else if (kind == 2) foretold = b
    else if (kind == 3) foretold = half(a, b)
    else if (kind == 4) foretold = paeth(a, b, v128.load(above + i - step))
    v128.store(to + i, i8x16.sub(v128.load(row + i), foretold))
  }
}

/** Distances from zero of 16 signed bytes, summed to four numbers. */
// @ts-ignore: decorator
@inline
function distances(v: v128): v128 {
  return i32x4.extadd_pairwise_i16x8_u(i16x8.extadd_pairwise_i8x16_u(i8x16.abs(v)))
}

// @ts-ignore: decorator
@inline
function total(v: v128): i32 {
  return i32x4.extract_lane(v, 0) + i32x4.extract_lane(v, 1) + i32x4.extract_lane(v, 2) + i32x4.extract_lane(v, 3)
}

/** Mean of two bytes, rounded down. */
// @ts-ignore: decorator
@inline
function half(a: v128, b: v128): v128 {
  return i8x16.sub(i8x16.avgr_u(a, b), v128.and(v128.xor(a, b), i8x16.splat(1)))
}

/** Of left, above and above left the one that is nearest to left + above - above left. */
// @ts-ignore: decorator
@inline
function paeth(a: v128, b: v128, c: v128): v128 {
  const low = paethWide(i16x8.extend_low_i8x16_u(a), i16x8.extend_low_i8x16_u(b), i16x8.extend_low_i8x16_u(c))
  const high = paethWide(i16x8.extend_high_i8x16_u(a), i16x8.extend_high_i8x16_u(b), i16x8.extend_high_i8x16_u(c))
  return i8x16.narrow_i16x8_u(low, high)
}

// @ts-ignore: decorator
@inline
function paethWide(a: v128, b: v128, c: v128): v128 {
  const u = i16x8.sub(b, c)
  const v = i16x8.sub(a, c)
  const fromLeft = i16x8.abs(u)
  const fromAbove = i16x8.abs(v)
  const fromBoth = i16x8.abs(i16x8.add(u, v))
  const isLeft = v128.and(i16x8.le_s(fromLeft, fromAbove), i16x8.le_s(fromLeft, fromBoth))
  return v128.bitselect(a, v128.bitselect(b, c, i16x8.le_s(fromAbove, fromBoth)), isLeft)
}
