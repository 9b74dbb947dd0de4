import { errorFunction } from './math'
import { hash3, nextHash, unit } from './hash'

// Specks and streaks: points of a Poisson process, each drawn as what a round Gaussian speck becomes when
// it moves along a straight line during the exposure: across, a Gaussian; along, a box convolved with a
// Gaussian, with peak 1. At a reduced scale a pixel takes the exact share of light that falls on it, so
// the number, the brightness and the shape of the drops do not depend on the scale.

const LENGTH_CLASSES = 8
const TABLE: i32 = 256

const alongTables = memory.data(LENGTH_CLASSES * (TABLE + 4) * 4)
const alongSquareTables = memory.data(LENGTH_CLASSES * (TABLE + 4) * 4)
const acrossTable = memory.data((TABLE + 4) * 4)
const acrossSquareTable = memory.data((TABLE + 4) * 4)

const SQRT2: f64 = 1.4142135623730951

/** Box of length `length` convolved with a Gaussian, scaled so that its peak is 1 at standard deviation `peakSigma`. */
function smeared(u: f64, length: f64, sigma: f64, peakSigma: f64): f64 {
  const k = 1.0 / (SQRT2 * sigma)
  const rise = errorFunction((u + 0.5 * length) * k) - errorFunction((u - 0.5 * length) * k)
  return rise / (2.0 * errorFunction((0.5 * length) / (SQRT2 * peakSigma)))
}

/** Integral over the line of the square of `smeared` (the box's autocorrelation against a Gaussian of twice the variance). */
function squareIntegral(length: f64, sigma: f64): f64 {
  const peak = errorFunction((0.5 * length) / (SQRT2 * sigma))
  const a = (0.5 * length) / sigma
  const raw = length * errorFunction(a) - ((2.0 * sigma) / 1.7724538509055159) * (1.0 - NativeMath.exp(-a * a))
  return raw / (peak * peak)
}

/** Length of the box whose smear by sigma / sqrt 2 has the integral `target`: the same family stands in for the squared profile. */
function squareLength(length: f64, sigma: f64, target: f64): f64 {
  const narrow = sigma / SQRT2
  let low: f64 = 1e-4
  let high: f64 = length + sigma
  for (let i = 0; i < 40; i++) {
    const middle = 0.5 * (low + high)
    if (middle / errorFunction((0.5 * middle) / (SQRT2 * narrow)) < target) low = middle
    else high = middle
  }
  return 0.5 * (low + high)
}

// @ts-ignore: decorator
@inline
function look(table: usize, t: f32): f32 {
  const i = <i32>t
  const f = t - <f32>i
  const a = load<f32>(table + ((<usize>i) << 2))
  const b = load<f32>(table + ((<usize>(i + 1)) << 2))
  return a + f * (b - a)
}

/** Smooth noise -1..1 over the plane: slow gusts that bend the fall of neighbouring drops alike. */
function gust(x: f64, y: f64, seed: i32): f32 {
  const fx = Math.floor(x)
  const fy = Math.floor(y)
  const ix = <i32>fx
  const iy = <i32>fy
  let tx = <f32>(x - fx)
  let ty = <f32>(y - fy)
  tx = tx * tx * (3 - 2 * tx)
  ty = ty * ty * (3 - 2 * ty)
  const a = unit(hash3(ix, iy, seed))
  const b = unit(hash3(ix + 1, iy, seed))
  const c = unit(hash3(ix, iy + 1, seed))
  const d = unit(hash3(ix + 1, iy + 1, seed))
  const top = a + tx * (b - a)
  const bottom = c + tx * (d - c)
  return 2 * (top + ty * (bottom - top)) - 1
}

/** Number of points in a cell of a Poisson process of mean 1. */
function poissonCount(u: f32): i32 {
  if (u < 0.36787944) return 0
  if (u < 0.73575888) return 1
  if (u < 0.9196986) return 2
  if (u < 0.98101184) return 3
  if (u < 0.99634015) return 4
  return 5
}

let reachAlong: f64 = 0
let reachAcross: f64 = 0
let alongScale: f32 = 0
let acrossScale: f32 = 0

function prepareTables(sigma: f64, length: f64, lengthVariation: f64, taper: f64, pitch: f64, squares: bool): void {
  const footprint = (pitch * pitch) / 12.0
  const fullVariance = sigma * sigma + 1.0 / 12.0
  const full = Math.sqrt(fullVariance)
  const across = Math.sqrt(sigma * sigma + footprint)
  const acrossSquare = Math.sqrt(0.5 * fullVariance + footprint - 1.0 / 12.0)
  const longest = length * (1.0 + lengthVariation)
  const softEnd = Math.max(sigma, taper * longest)
  reachAcross = 3.6 * across
  reachAlong = 0.5 * longest + 3.6 * Math.sqrt(softEnd * softEnd + footprint)
  acrossScale = <f32>(<f64>(TABLE - 1) / reachAcross)
  alongScale = <f32>(<f64>(TABLE - 1) / reachAlong)
  for (let i = 0; i < TABLE + 2; i++) {
    const v = (<f64>i / <f64>(TABLE - 1)) * reachAcross
    // The last entries are zero, so that a footprint ends without a step.
    const inside: f64 = i < TABLE - 1 ? 1 : 0
    const at = (<usize>i) << 2
    store<f32>(acrossTable + at, <f32>(inside * (full / across) * NativeMath.exp((-0.5 * v * v) / (across * across))))
    if (squares) store<f32>(acrossSquareTable + at, <f32>(inside * ((full / SQRT2) / acrossSquare) * NativeMath.exp((-0.5 * v * v) / (acrossSquare * acrossSquare))))
  }
  for (let k = 0; k < LENGTH_CLASSES; k++) {
    const own = Math.max(1e-3, length * (1.0 + lengthVariation * ((2.0 * (<f64>k + 0.5)) / <f64>LENGTH_CLASSES - 1.0)))
    const end = Math.sqrt(Math.max(sigma * sigma, taper * own * (taper * own)) + 1.0 / 12.0)
    const reduced = Math.sqrt(end * end + footprint - 1.0 / 12.0)
    const table = (<usize>(k * (TABLE + 4))) << 2
    const target = squares ? squareIntegral(own, end) : 0
    const shortened = squares ? squareLength(own, end, target) : 0
    const reducedSquare = Math.sqrt(0.5 * end * end + footprint - 1.0 / 12.0)
    for (let i = 0; i < TABLE + 2; i++) {
      const u = (<f64>i / <f64>(TABLE - 1)) * reachAlong
      const at = table + ((<usize>i) << 2)
      const inside: f64 = i < TABLE - 1 ? 1 : 0
      store<f32>(alongTables + at, <f32>(inside * smeared(u, own, reduced, end)))
      if (squares) store<f32>(alongSquareTables + at, <f32>(inside * smeared(u, shortened, reducedSquare, end / SQRT2)))
    }
  }
}

/**
 * Adds one layer of streaks to `mean`, and, where `spread` is not 0, the variance inside each pixel to `spread`.
 *
 * (gridX, gridY) is the first pixel on the grid of the whole picture; `pitchX`, `pitchY` photo px per grid px.
 * `spacing` px: side of the square that holds one point on average; `sigma` px of the speck before the smear;
 * `length` px of the smear, varied by the part `lengthVariation` either way; `taper`: softness of the ends as a
 * part of the length; `angle` radians counter-clockwise from x, bent by up to `bend` radians, partly by gusts of
 * `gustScale` px; `brightness` of the peak, varied downwards by the part `brightnessVariation`; (`shiftX`, `shiftY`) px
 * moves the layer.
 */
export function drawStreaks(
  mean: usize, spread: usize, width: i32, height: i32, gridX: i32, gridY: i32, pitchX: f64, pitchY: f64,
  seed: i32, spacing: f64, sigma: f64, length: f64, lengthVariation: f64, taper: f64,
  angle: f64, bend: f64, gustScale: f64, brightness: f64, brightnessVariation: f64, shiftX: f64, shiftY: f64,
): void {
  const pitch = Math.sqrt(pitchX * pitchY)
  const squares = spread != 0
  prepareTables(sigma, length, lengthVariation, taper, pitch, squares)
  const reach = Math.sqrt(reachAlong * reachAlong + reachAcross * reachAcross)
  const left = <f64>gridX * pitchX - shiftX
  const top = <f64>gridY * pitchY - shiftY
  const firstX = <i32>Math.floor((left - reach) / spacing)
  const lastX = <i32>Math.floor((left + <f64>width * pitchX + reach) / spacing)
  const firstY = <i32>Math.floor((top - reach) / spacing)
  const lastY = <i32>Math.floor((top + <f64>height * pitchY + reach) / spacing)
  for (let cellY = firstY; cellY <= lastY; cellY++) {
    for (let cellX = firstX; cellX <= lastX; cellX++) {
      let h = hash3(cellX, cellY, seed)
      const count = poissonCount(unit(h))
      for (let k = 0; k < count; k++) {
        h = nextHash(h)
        const x = (<f64>cellX + <f64>unit(h)) * spacing
        h = nextHash(h)
        const y = (<f64>cellY + <f64>unit(h)) * spacing
        h = nextHash(h)
        // Few bright drops, many faint ones.
        const u = unit(h)
        const peak = <f32>brightness * (1 - <f32>brightnessVariation * (1 - u * u))
        h = nextHash(h)
        const lengthClass = <i32>(h >>> 29)
        h = nextHash(h)
        let turn = angle
        if (bend != 0) {
          const own = unit(h) + unit(nextHash(h)) - 1
          turn += bend * (0.55 * <f64>gust(x / gustScale, y / gustScale, seed ^ 0x51ed27) + 0.45 * <f64>own)
        }
        drawOne(mean, spread, width, height, gridX, gridY, pitchX, pitchY, x + shiftX, y + shiftY, turn, peak, lengthClass)
      }
    }
  }
}

function drawOne(
  mean: usize, spread: usize, width: i32, height: i32, gridX: i32, gridY: i32, pitchX: f64, pitchY: f64,
  x: f64, y: f64, angle: f64, peak: f32, lengthClass: i32,
): void {
  const dirX = NativeMath.cos(angle)
  const dirY = -NativeMath.sin(angle)
  const extentX = Math.abs(dirX) * reachAlong + Math.abs(dirY) * reachAcross
  const extentY = Math.abs(dirY) * reachAlong + Math.abs(dirX) * reachAcross
  const row0 = max(0, <i32>Math.floor((y - extentY) / pitchY) - gridY)
  const row1 = min(height - 1, <i32>Math.ceil((y + extentY) / pitchY) - gridY)
  const column0 = max(0, <i32>Math.floor((x - extentX) / pitchX) - gridX)
  const column1 = min(width - 1, <i32>Math.ceil((x + extentX) / pitchX) - gridX)
  if (row0 > row1 || column0 > column1) return
  const along = alongTables + ((<usize>(lengthClass * (TABLE + 4))) << 2)
  const alongSquare = alongSquareTables + ((<usize>(lengthClass * (TABLE + 4))) << 2)
  const cx = <f32>dirX
  const cy = <f32>dirY
  const limit = <f32>(TABLE - 1)
  const steep = Math.abs(dirY) > 0.05
  const half = steep ? reachAcross / Math.abs(dirY) : 0
  for (let row = row0; row <= row1; row++) {
    const dy = (<f64>(row + gridY) + 0.5) * pitchY - y
    let from = column0
    let to = column1
    if (steep) {
      // Where this row crosses the width of the streak.
      const middle = x + (dy * dirX) / dirY
      from = max(from, <i32>Math.floor((middle - half) / pitchX) - gridX)
      to = min(to, <i32>Math.ceil((middle + half) / pitchX) - gridX)
    }
    const line = (<usize>(row * width)) << 2
    // Computed for each pixel from its own place, so that no tile border shows.
    for (let column = from; column <= to; column++) {
      const dx = <f32>((<f64>(column + gridX) + 0.5) * pitchX - x)
      const fy = <f32>dy
      const u = abs<f32>(dx * cx + fy * cy) * alongScale
      const v = abs<f32>(fy * cx - dx * cy) * acrossScale
      if (u < limit && v < limit) {
        const at = line + ((<usize>column) << 2)
        const m = peak * look(acrossTable, v) * look(along, u)
        store<f32>(mean + at, load<f32>(mean + at) + m)
        if (spread != 0) {
          const q = peak * peak * look(acrossSquareTable, v) * look(alongSquare, u)
          store<f32>(spread + at, load<f32>(spread + at) + max<f32>(0, q - m * m))
        }
      }
    }
  }
}
