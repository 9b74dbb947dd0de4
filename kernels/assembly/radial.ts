import { mulAdd, splat } from './math'

// Blurs about a place, and strips wrapped around it. Pictures are interleaved, four floats a pixel, so that a place is read at once in all channels.

/** Up to four planes as one interleaved picture; 0 for a plane that is not there. */
export function interleave(a: usize, b: usize, c: usize, d: usize, count: i32, out: usize): void {
  for (let i = 0; i < count; i++) {
    const at = (<usize>i) << 2
    const to = out + (at << 2)
    store<f32>(to, a != 0 ? load<f32>(a + at) : 0)
    store<f32>(to, b != 0 ? load<f32>(b + at) : 0, 4)
    store<f32>(to, c != 0 ? load<f32>(c + at) : 0, 8)
    store<f32>(to, d != 0 ? load<f32>(d + at) : 0, 12)
  }
}

/** One channel, 0-3, of an interleaved picture as a plane. */
export function takeChannel(src: usize, channel: i32, count: i32, out: usize): void {
  const from = src + ((<usize>channel) << 2)
  for (let i = 0; i < count; i++) store<f32>(out + ((<usize>i) << 2), load<f32>(from + ((<usize>i) << 4)))
}

/** All channels between four pixels; (u, v) in pixels from the middle of the first, the border repeats. */
// @ts-ignore: decorator
@inline
function readBetween(src: usize, width: i32, height: i32, u: f64, v: f64): v128 {
  const cu = Math.max(0, Math.min(<f64>(width - 1), u))
  const cv = Math.max(0, Math.min(<f64>(height - 1), v))
  const ix = <i32>cu
  const iy = <i32>cv
  const tx = splat(<f32>(cu - <f64>ix))
  const ty = splat(<f32>(cv - <f64>iy))
  const right: usize = ix + 1 < width ? 16 : 0
  const below: usize = iy + 1 < height ? (<usize>width) << 4 : 0
  const p = src + ((<usize>(iy * width + ix)) << 4)
  const a = v128.load(p)
  const c = v128.load(p + below)
  const top = mulAdd(tx, f32x4.sub(v128.load(p + right), a), a)
  const bottom = mulAdd(tx, f32x4.sub(v128.load(p + below + right), c), c)
  return mulAdd(ty, f32x4.sub(bottom, top), top)
}

/**
 * Each pixel of a rectangle of the grid becomes the mean of `taps` places: `centre` + M (pixel - centre), in grid px, M a matrix of `matrices` (four f64 each, row by row).
 * `src` is the interleaved rectangle at (sx, sy).
 */
export function meanAlong(
  src: usize, sx: i32, sy: i32, sw: i32, sh: i32, out: usize, x0: i32, y0: i32, width: i32, height: i32,
  centreX: f64, centreY: f64, taps: i32, matrices: usize,
): void {
  const share = splat(<f32>(1.0 / <f64>taps))
  const fromX = centreX - <f64>sx - 0.5
  const fromY = centreY - <f64>sy - 0.5
  let straight = true
  for (let k = 0; k < taps; k++) straight = straight && load<f64>(matrices + ((<usize>k) << 5), 8) == 0 && load<f64>(matrices + ((<usize>k) << 5), 16) == 0
  for (let y = 0; y < height; y++) {
    const dy = <f64>(y0 + y) + 0.5 - centreY
    if (straight) {
      meanOfRows(src, sw, sh, out + ((<usize>(y * width)) << 4), x0, width, centreX, fromX, fromY, dy, taps, matrices, share)
      continue
    }
    for (let x = 0; x < width; x++) {
      const dx = <f64>(x0 + x) + 0.5 - centreX
      let sum = splat(0)
      for (let k = 0; k < taps; k++) {
        const m = matrices + ((<usize>k) << 5)
        const u = fromX + load<f64>(m) * dx + load<f64>(m, 8) * dy
        const v = fromY + load<f64>(m, 16) * dx + load<f64>(m, 24) * dy
        sum = f32x4.add(sum, readBetween(src, sw, sh, u, v))
      }
      v128.store(out + ((<usize>(y * width + x)) << 4), f32x4.mul(sum, share))
    }
  }
}

/** Of each tap of a row: the rows it reads, as addresses, the part between them, and its factor. */
const ROW_BYTES: usize = 24
const MOST_TAPS: i32 = 64
const rowsOfTaps = memory.data(64 * 24)

/** A row of `meanAlong` where all matrices only scale: then a tap reads the same two rows for every pixel. */
function meanOfRows(
  src: usize, sw: i32, sh: i32, out: usize, x0: i32, width: i32, centreX: f64, fromX: f64, fromY: f64, dy: f64, taps: i32, matrices: usize, share: v128,
): void {
  const rowBytes = (<usize>sw) << 4
  const count = min(taps, MOST_TAPS)
  for (let k = 0; k < count; k++) {
    const m = matrices + ((<usize>k) << 5)
    const v = Math.max(0, Math.min(<f64>(sh - 1), fromY + load<f64>(m, 24) * dy))
    const iy = <i32>v
    const at = rowsOfTaps + (<usize>k) * ROW_BYTES
    store<usize>(at, src + (<usize>iy) * rowBytes)
    store<usize>(at, iy + 1 < sh ? rowBytes : 0, 4)
    store<f32>(at, <f32>(v - <f64>iy), 8)
    store<f64>(at, load<f64>(m), 16)
  }
  const last = <f64>(sw - 1)
  for (let x = 0; x < width; x++) {
    const dx = <f64>(x0 + x) + 0.5 - centreX
    let sum = splat(0)
    for (let k = 0; k < count; k++) {
      const at = rowsOfTaps + (<usize>k) * ROW_BYTES
      const u = Math.max(0, Math.min(last, fromX + load<f64>(at, 16) * dx))
      const ix = <i32>u
      const tx = splat(<f32>(u - <f64>ix))
      const right: usize = ix + 1 < sw ? 16 : 0
      const p = load<usize>(at) + ((<usize>ix) << 4)
      const below = load<usize>(at, 4)
      const a = v128.load(p)
      const c = v128.load(p + below)
      const top = mulAdd(tx, f32x4.sub(v128.load(p + right), a), a)
      const bottom = mulAdd(tx, f32x4.sub(v128.load(p + below + right), c), c)
      sum = f32x4.add(sum, mulAdd(v128.load32_splat(at, 8), f32x4.sub(bottom, top), top))
    }
    v128.store(out + ((<usize>x) << 4), f32x4.mul(sum, share))
  }
}

/** Reads each pixel `step` grid px nearer to a place (px, py); a pixel that is nearer than that reads the place itself. */
export function towards(
  src: usize, sx: i32, sy: i32, sw: i32, sh: i32, out: usize, x0: i32, y0: i32, width: i32, height: i32, px: f64, py: f64, step: f64,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const dx = px - <f64>(x0 + x) - 0.5
      const dy = py - <f64>(y0 + y) - 0.5
      const far = Math.sqrt(dx * dx + dy * dy)
      const part = far > step ? step / far : 1
      store<f32>(out + ((<usize>(y * width + x)) << 2), f32x4.extract_lane(
        readBetween(src, sw, sh, <f64>(x0 + x - sx) + dx * part, <f64>(y0 + y - sy) + dy * part), 0,
      ))
    }
  }
}

/** Arc tangent of y / x in the full turn, -π to π; its error is below 2e-5. Abramowitz and Stegun 4.4.49 (from memory). */
export function angleOf(y: f64, x: f64): f64 {
  const ax = Math.abs(x)
  const ay = Math.abs(y)
  const least = Math.min(ax, ay)
  const most = Math.max(ax, ay)
  if (most == 0) return 0
  const t = least / most
  const s = t * t
  let a = t * (0.9998660 + s * (-0.3302995 + s * (0.1801410 + s * (-0.0851330 + s * 0.0208351))))
  if (ay > ax) a = 1.5707963267948966 - a
  if (x < 0) a = 3.141592653589793 - a
  return y < 0 ? -a : a
}

/** One plane of a whole `width` by `height` between four pixels, like `readBetween`; `src` holds what lies from (left, top) on, `stride` floats a row. */
// @ts-ignore: decorator
@inline
function readPlane(src: usize, left: i32, top: i32, stride: i32, width: i32, height: i32, u: f64, v: f64): f32 {
  const cu = Math.max(0, Math.min(<f64>(width - 1), u))
  const cv = Math.max(0, Math.min(<f64>(height - 1), v))
  const ix = <i32>cu
  const iy = <i32>cv
  const tx = <f32>(cu - <f64>ix)
  const right: usize = ix + 1 < width ? 4 : 0
  const below: usize = iy + 1 < height ? (<usize>stride) << 2 : 0
  const p = src + ((<usize>((iy - top) * stride + ix - left)) << 2)
  const a = load<f32>(p)
  const c = load<f32>(p + below)
  const upper = a + tx * (load<f32>(p + right) - a)
  return upper + <f32>(cv - <f64>iy) * (c + tx * (load<f32>(p + below + right) - c) - upper)
}

const TURN: f64 = 6.283185307179586

/**
 * A strip wrapped around (centreX, centreY): across it the angle, counter-clockwise from `turn` radians, down it the distance up to `reach`, all in grid px. The strip is
 * the whole grid, `sw` by `sh`, of which `src` holds what is needed: `stride` floats a row from (left, top) on. Its last part `overlap` (0-1) goes over into its beginning, so that
 * there is no seam. Near the middle the angle is averaged over a pixel.
 */
export function polarWrap(
  src: usize, left: i32, top: i32, stride: i32, sw: i32, sh: i32, out: usize, x0: i32, y0: i32, width: i32, height: i32,
  centreX: f64, centreY: f64, reach: f64, turn: f64, overlap: f64,
): void {
  const fade = overlap * <f64>sw
  const period = <f64>sw - fade
  const perTurn = 1 / TURN
  const perReach = <f64>sh / reach
  const perPeriod = 1 / period
  const perFade = 1 / fade
  for (let y = 0; y < height; y++) {
    const dy = <f64>(y0 + y) + 0.5 - centreY
    for (let x = 0; x < width; x++) {
      const at = out + ((<usize>(y * width + x)) << 2)
      const dx = <f64>(x0 + x) + 0.5 - centreX
      const square = dx * dx + dy * dy
      if (square > reach * reach) {
        store<f32>(at, 0)
        continue
      }
      const r = Math.sqrt(square)
      const turned = (angleOf(-dy, dx) - turn) * perTurn
      const u = (turned - Math.floor(turned)) * period
      const v = r * perReach - 0.5
      let samples = 1
      let span: f64 = 0
      if (r * TURN < period) {
        // What a pixel spans of the strip.
        span = Math.min(period, period / (TURN * Math.max(r, 0.16)))
        samples = max(1, min(64, <i32>Math.ceil(span)))
      }
      let sum: f32 = 0
      for (let k = 0; k < samples; k++) {
        let place = u + span * ((<f64>k + 0.5) / <f64>samples - 0.5)
        place -= period * Math.floor(place * perPeriod)
        let value = readPlane(src, left, top, stride, sw, sh, place - 0.5, v)
        if (place < fade) {
          const end = readPlane(src, left, top, stride, sw, sh, place + period - 0.5, v)
          value = end + <f32>(place * perFade) * (value - end)
        }
        sum += value
      }
      store<f32>(at, samples > 1 ? sum / <f32>samples : sum)
    }
  }
}

/**
 * Reads each pixel where it would lie if it had been moved by (dx, dy) grid px times what `by` (0-1) is above a half, doubled. (left, top): where the result begins in `src`, whose
 * border repeats. Between pixels it is read in straight lines.
 */
export function bendPlane(
  src: usize, sw: i32, sh: i32, left: i32, top: i32, by: usize, dx: f64, dy: f64, out: usize, width: i32, height: i32,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (<usize>(y * width + x)) << 2
      const back = 1 - 2 * Math.max(0, Math.min(1, <f64>load<f32>(by + at)))
      // Whole pixels and the rest apart, so that the rest does not depend on where the tile begins.
      const wayX = dx * back
      const wholeX = Math.floor(wayX)
      const tx = <f32>(wayX - wholeX)
      const first = left + x + <i32>wholeX
      const p = (<usize>within(first, sw)) << 2
      const q = (<usize>within(first + 1, sw)) << 2
      if (dy == 0) {
        store<f32>(out + at, along(src + rowAt(top + y, sw, sh), p, q, tx))
        continue
      }
      const wayY = dy * back
      const wholeY = Math.floor(wayY)
      const row = top + y + <i32>wholeY
      const upper = along(src + rowAt(row, sw, sh), p, q, tx)
      const lower = along(src + rowAt(row + 1, sw, sh), p, q, tx)
      store<f32>(out + at, upper + <f32>(wayY - wholeY) * (lower - upper))
    }
  }
}

// @ts-ignore: decorator
@inline
function within(index: i32, count: i32): i32 {
  return max(0, min(count - 1, index))
}

// @ts-ignore: decorator
@inline
function rowAt(row: i32, width: i32, height: i32): usize {
  return (<usize>(within(row, height) * width)) << 2
}

// @ts-ignore: decorator
@inline
function along(row: usize, p: usize, q: usize, t: f32): f32 {
  const a = load<f32>(row + p)
  return a + t * (load<f32>(row + q) - a)
}
