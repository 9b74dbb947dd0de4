// Outlines are filled line by line: sixteen lines a pixel row, each with its crossings in 1/256 px. All sums are whole numbers,
// so that a pixel does not depend on the tile that it is computed in.

const LINES = 16
const PARTS = 256

/**
 * Fills closed outlines by the non-zero winding rule.
 * @param segments `count` times x0, y0, x1, y1 as f64, in px of the grid, closed by the caller
 * @param crossings room for two i32 for each segment
 * @param active room for one address for each segment
 * @param row room for `width` + 2 i32
 */
export function fillOutline(segments: usize, count: i32, x0: i32, y0: i32, width: i32, height: i32, crossings: usize, active: usize, row: usize, out: usize): void {
  for (let y = 0; y < height; y++) {
    const target = out + ((<usize>(y * width)) << 2)
    const reaching = segmentsOfRow(segments, count, <f64>(y0 + y), active)
    if (reaching == 0) {
      memory.fill(target, 0, (<usize>width) << 2)
      continue
    }
    memory.fill(row, 0, (<usize>(width + 2)) << 2)
    for (let line = 0; line < LINES; line++) {
      const at = <f64>(y0 + y) + (<f64>line + 0.5) * (1.0 / <f64>LINES)
      const found = cross(active, reaching, at, crossings)
      spans(crossings, found, x0, width, row)
    }
    let sum = 0
    for (let x = 0; x < width; x++) {
      sum += load<i32>(row + ((<usize>x) << 2))
      store<f32>(target + ((<usize>x) << 2), <f32>sum * <f32>(1.0 / <f64>(LINES * PARTS)))
    }
  }
}

/** Collects the segments that reach into a pixel row. */
function segmentsOfRow(segments: usize, count: i32, top: f64, active: usize): i32 {
  let reaching = 0
  for (let i = 0; i < count; i++) {
    const s = segments + ((<usize>i) << 5)
    const ya = load<f64>(s, 8)
    const yb = load<f64>(s, 24)
    if (Math.max(ya, yb) <= top || Math.min(ya, yb) >= top + 1.0) continue
    store<usize>(active + ((<usize>reaching) << 2), s)
    reaching++
  }
  return reaching
}

/** Sorted crossings of a line: place in 1/256 px, and +1 or -1. */
function cross(active: usize, count: i32, y: f64, crossings: usize): i32 {
  let found = 0
  for (let i = 0; i < count; i++) {
    const s = load<usize>(active + ((<usize>i) << 2))
    const ya = load<f64>(s, 8)
    const yb = load<f64>(s, 24)
    if (ya <= y == yb <= y) continue
    const xa = load<f64>(s)
    const x = xa + (y - ya) * ((load<f64>(s, 16) - xa) / (yb - ya))
    const place = <i32>Math.floor(Math.min(1e6, Math.max(-1e6, x)) * <f64>PARTS + 0.5)
    let at = found++
    while (at > 0 && load<i32>(crossings + ((<usize>(at - 1)) << 3)) > place) {
      store<i64>(crossings + ((<usize>at) << 3), load<i64>(crossings + ((<usize>(at - 1)) << 3)))
      at--
    }
    store<i32>(crossings + ((<usize>at) << 3), place)
    store<i32>(crossings + ((<usize>at) << 3), yb > ya ? 1 : -1, 4)
  }
  return found
}

/** Adds the stretches with a winding number other than 0, as differences from pixel to pixel. */
function spans(crossings: usize, found: i32, x0: i32, width: i32, row: usize): void {
  const most = width * PARTS
  let winding = 0
  for (let i = 0; i < found; i++) {
    const before = winding
    winding += load<i32>(crossings + ((<usize>i) << 3), 4)
    if ((before == 0) == (winding == 0)) continue
    const place = min(most, max(0, load<i32>(crossings + ((<usize>i) << 3)) - x0 * PARTS))
    const part = place & (PARTS - 1)
    const at = row + ((<usize>(place >> 8)) << 2)
    const sign = before == 0 ? 1 : -1
    store<i32>(at, load<i32>(at) + sign * (PARTS - part))
    store<i32>(at, load<i32>(at, 4) + sign * part, 4)
  }
}
