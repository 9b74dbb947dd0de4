// Maximum or minimum over discs and squares. They are exact, so a pixel does not depend on how they are found. Beyond the picture its border repeats, which adds nothing to an extreme:
// the window only gets smaller there.

/**
 * Over a window that spans `halfWidths[dy]` px to both sides in the row `dy` px away.
 * @param src `rows` rows of `width` + 2 reach floats, of which the row `top` is that of the first of `height` rows of the result
 * @param halfWidths `radius` + 1 i32, for dy = 0 to radius, falling, at most `reach`
 * @param line room for `width` floats
 */
export function discExtreme(
  src: usize, width: i32, reach: i32, rows: i32, top: i32, height: i32, radius: i32, halfWidths: usize, minimum: bool, line: usize, out: usize,
): void {
  const stride = width + 2 * reach
  const bytes = (<usize>width) << 2
  clear(out, width * height, minimum)
  for (let y = 0; y < rows; y++) {
    const centre = src + ((<usize>(y * stride + reach)) << 2)
    memory.copy(line, centre, bytes)
    let w = 0
    // The farthest rows are the shortest: the line only grows.
    for (let dy = radius; dy >= 0; dy--) {
      for (const wanted = load<i32>(halfWidths + ((<usize>dy) << 2)); w < wanted; ) widen(line, centre, ++w, bytes, minimum)
      const above = y - top - dy
      const below = y - top + dy
      if (above >= 0 && above < height) take(out + ((<usize>(above * width)) << 2), line, bytes, minimum)
      if (dy > 0 && below >= 0 && below < height) take(out + ((<usize>(below * width)) << 2), line, bytes, minimum)
    }
  }
}

/**
 * Over a square of 2 radius + 1 px a side, at a cost that does not depend on it: the running extremes of blocks of that length, forwards and backwards (van Herk 1992; Gil and Werman 1993).
 * @param src `rows` rows of `columns` floats, of which (left, top) is the first place of the result
 * @param forth room for `width` by `height` + 2 radius floats, and for `width` + 2 radius; `back` likewise
 * @param lines room for `rows` rows of `width` floats
 */
export function squareExtreme(
  src: usize, columns: i32, rows: i32, left: i32, top: i32, width: i32, height: i32, radius: i32, minimum: bool, forth: usize, back: usize, lines: usize, out: usize,
): void {
  for (let y = 0; y < rows; y++) {
    alongRow(src + ((<usize>(y * columns)) << 2), columns, left, width, radius, minimum, forth, back, lines + ((<usize>(y * width)) << 2))
  }
  downColumns(lines, rows, top, width, height, radius, minimum, forth, back, out)
}

function alongRow(row: usize, columns: i32, left: i32, width: i32, radius: i32, minimum: bool, forth: usize, back: usize, out: usize): void {
  const side = 2 * radius + 1
  const length = width + 2 * radius
  const nothing: f32 = minimum ? 1e30 : -1e30
  let last = nothing
  for (let i = 0; i < length; i++) {
    const x = left - radius + i
    const v = x >= 0 && x < columns ? load<f32>(row + ((<usize>x) << 2)) : nothing
    last = i % side == 0 ? v : extremeOf(last, v, minimum)
    store<f32>(forth + ((<usize>i) << 2), last)
  }
  last = nothing
  for (let i = length - 1; i >= 0; i--) {
    const x = left - radius + i
    const v = x >= 0 && x < columns ? load<f32>(row + ((<usize>x) << 2)) : nothing
    last = (i + 1) % side == 0 ? v : extremeOf(last, v, minimum)
    store<f32>(back + ((<usize>i) << 2), last)
  }
  for (let x = 0; x < width; x++) {
    const at = (<usize>x) << 2
    store<f32>(out + at, extremeOf(load<f32>(back + at), load<f32>(forth + at + ((<usize>(2 * radius)) << 2)), minimum))
  }
}

function downColumns(lines: usize, rows: i32, top: i32, width: i32, height: i32, radius: i32, minimum: bool, forth: usize, back: usize, out: usize): void {
  const side = 2 * radius + 1
  const length = height + 2 * radius
  const bytes = (<usize>width) << 2
  for (let i = 0; i < length; i++) {
    const y = top - radius + i
    const to = forth + <usize>i * bytes
    if (i % side == 0) clear(to, width, minimum)
    else memory.copy(to, to - bytes, bytes)
    if (y >= 0 && y < rows) take(to, lines + <usize>y * bytes, bytes, minimum)
  }
  for (let i = length - 1; i >= 0; i--) {
    const y = top - radius + i
    const to = back + <usize>i * bytes
    if (i == length - 1 || (i + 1) % side == 0) clear(to, width, minimum)
    else memory.copy(to, to + bytes, bytes)
    if (y >= 0 && y < rows) take(to, lines + <usize>y * bytes, bytes, minimum)
  }
  for (let y = 0; y < height; y++) {
    const to = out + <usize>y * bytes
    memory.copy(to, back + <usize>y * bytes, bytes)
    take(to, forth + <usize>(y + 2 * radius) * bytes, bytes, minimum)
  }
}

// @ts-ignore: decorator
@inline
function extremeOf(a: f32, b: f32, minimum: bool): f32 {
  return minimum ? min<f32>(a, b) : max<f32>(a, b)
}

// @ts-ignore: decorator
@inline
function fourExtremes(a: v128, b: v128, minimum: bool): v128 {
  return minimum ? f32x4.pmin(a, b) : f32x4.pmax(a, b)
}

function clear(at: usize, count: i32, minimum: bool): void {
  const nothing: f32 = minimum ? 1e30 : -1e30
  for (let i = 0; i < count; i++) store<f32>(at + ((<usize>i) << 2), nothing)
}

/** Takes in the pixels `w` px to the left and to the right. */
function widen(line: usize, centre: usize, w: i32, bytes: usize, minimum: bool): void {
  const reach = (<usize>w) << 2
  let i: usize = 0
  for (; i + 16 <= bytes; i += 16) {
    const sides = fourExtremes(v128.load(centre + i - reach), v128.load(centre + i + reach), minimum)
    v128.store(line + i, fourExtremes(v128.load(line + i), sides, minimum))
  }
  for (; i < bytes; i += 4) {
    const sides = extremeOf(load<f32>(centre + i - reach), load<f32>(centre + i + reach), minimum)
    store<f32>(line + i, extremeOf(load<f32>(line + i), sides, minimum))
  }
}

function take(target: usize, line: usize, bytes: usize, minimum: bool): void {
  let i: usize = 0
  for (; i + 16 <= bytes; i += 16) v128.store(target + i, fourExtremes(v128.load(target + i), v128.load(line + i), minimum))
  for (; i < bytes; i += 4) store<f32>(target + i, extremeOf(load<f32>(target + i), load<f32>(line + i), minimum))
}
