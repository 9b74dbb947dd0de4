import { errorFunction } from './math'
import { hash3, loopHash, nextHash, poissonCount, unit } from './hash'
import { distanceBetween } from './air'

// Specks and streaks: points of a Poisson process, each drawn as what a round Gaussian speck becomes when
// it moves along a straight line during the exposure: across, a Gaussian; along, a box convolved with a
// Gaussian, with peak 1. At a reduced scale a pixel takes the exact share of light that falls on it, so
// the number, the brightness and the shape of the drops do not depend on the scale.

const LENGTH_CLASSES = 8
const TABLE: i32 = 512
const TABLE_BYTES: usize = (TABLE + 4) * 4

// Profiles over the distance from the middle of a streak, in steps of reach / (TABLE - 1): along for each length class,
// then across; beside each value that of its square. The last SLOTS sets stay, since every tile asks for the same ones.
const SLOTS = 32
const KEY_NUMBERS = 7
const PAIR_BYTES: usize = TABLE_BYTES * 2
const SET_BYTES: usize = PAIR_BYTES * (LENGTH_CLASSES + 1)
const slotKeys = memory.data(SLOTS * KEY_NUMBERS * 8)
const slotSets = memory.data(SLOTS * 8)
let nextSlot = 0
const integral = memory.data((TABLE + 4) * 8)
const profile = memory.data((TABLE + 4) * 4)
const profileSquares = memory.data((TABLE + 4) * 4)

let alongTables: usize = 0
let acrossTable: usize = 0

const SQRT2: f64 = 1.4142135623730951
const REACH_IN_SIGMAS = 3.3

/** Box of length `length` convolved with a Gaussian; its peak is 1 before a blur that widens `sharpSigma` to `sigma`. */
function smeared(u: f64, length: f64, sigma: f64, sharpSigma: f64): f64 {
  const k = 1.0 / (SQRT2 * sigma)
  const rise = errorFunction((u + 0.5 * length) * k) - errorFunction((u - 0.5 * length) * k)
  return rise / (2.0 * errorFunction((0.5 * length) / (SQRT2 * sharpSigma)))
}

/** Integral of a symmetric profile from its middle to the distance `x`, in table steps. */
function integralTo(x: f64): f64 {
  const a = Math.min(Math.abs(x), <f64>(TABLE - 1))
  const i = <i32>a
  const at = integral + ((<usize>i) << 3)
  const v = load<f64>(at) + (a - <f64>i) * (load<f64>(at + 8) - load<f64>(at))
  return x < 0 ? -v : v
}

/** Replaces a profile by its mean over a box of `width` table steps around each place. */
function boxMean(table: usize, width: f64): void {
  if (width < 1e-3) return
  let sum: f64 = 0
  store<f64>(integral, 0)
  for (let i = 1; i < TABLE + 2; i++) {
    const at = table + ((<usize>i) << 2)
    sum += 0.5 * (<f64>load<f32>(at - 4) + <f64>load<f32>(at))
    store<f64>(integral + ((<usize>i) << 3), sum)
  }
  const half = 0.5 * width
  for (let i = 0; i < TABLE - 1; i++) {
    store<f32>(table + ((<usize>i) << 2), <f32>((integralTo(<f64>i + half) - integralTo(<f64>i - half)) / width))
  }
}

/** Takes the profile as a pixel of the reduced grid does, and its square, into a table of pairs: the projections of the pixel's sides, one after the other. */
function storeProfile(table: usize, sideA: f64, sideB: f64, steps: f64): void {
  // The last entries are zero, so that a footprint ends without a step.
  memory.fill(profile + ((TABLE - 1) << 2), 0, 20)
  for (let at: usize = 0; at < TABLE_BYTES; at += 4) store<f32>(profileSquares + at, load<f32>(profile + at) * load<f32>(profile + at))
  boxMean(profileSquares, sideA * steps)
  boxMean(profileSquares, sideB * steps)
  boxMean(profile, sideA * steps)
  boxMean(profile, sideB * steps)
  for (let at: usize = 0; at < TABLE_BYTES; at += 4) {
    store<f32>(table + 2 * at, load<f32>(profile + at))
    store<f32>(table + 2 * at, load<f32>(profileSquares + at), 4)
  }
}

/** A profile and its square at a place, in the first two lanes. */
// @ts-ignore: decorator
@inline
function look(table: usize, t: f32): v128 {
  const i = <i32>t
  const a = v128.load(table + ((<usize>i) << 3))
  const b = i32x4.shuffle(a, a, 2, 3, 2, 3)
  return f32x4.add(a, f32x4.mul(f32x4.splat(t - <f32>i), f32x4.sub(b, a)))
}

/** Smooth noise -1..1 over the plane: slow gusts that bend the fall of neighbouring drops alike. */
function gust(x: f64, y: f64, seed: i32): f32 {
  const wholeX = Math.floor(x)
  const wholeY = Math.floor(y)
  const ix = <i32>wholeX
  const iy = <i32>wholeY
  let tx = <f32>(x - wholeX)
  let ty = <f32>(y - wholeY)
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

let reachAlong: f64 = 0
let reachAcross: f64 = 0
let alongScale: f32 = 0
let acrossScale: f32 = 0

/** Points the tables at the slot that holds these numbers, or at the oldest one. Returns whether it holds them already. */
function findSlot(sigma: f64, blur: f64, length: f64, lengthVariation: f64, taper: f64, angle: f64, pitch: f64): bool {
  let slot = 0
  let known = false
  while (slot < SLOTS && !known) {
    const key = slotKeys + (<usize>slot) * KEY_NUMBERS * 8
    known =
      load<f64>(key) == sigma && load<f64>(key, 8) == blur && load<f64>(key, 16) == length && load<f64>(key, 24) == lengthVariation &&
      load<f64>(key, 32) == taper && load<f64>(key, 40) == angle && load<f64>(key, 48) == pitch
    if (!known) slot++
  }
  if (!known) {
    slot = nextSlot
    nextSlot = (nextSlot + 1) % SLOTS
    const key = slotKeys + (<usize>slot) * KEY_NUMBERS * 8
    store<f64>(key, sigma)
    store<f64>(key, blur, 8)
    store<f64>(key, length, 16)
    store<f64>(key, lengthVariation, 24)
    store<f64>(key, taper, 32)
    store<f64>(key, angle, 40)
    store<f64>(key, pitch, 48)
  }
  const place = slotSets + ((<usize>slot) << 3)
  if (load<usize>(place) == 0) store<usize>(place, heap.alloc(SET_BYTES))
  alongTables = load<usize>(place)
  acrossTable = alongTables + LENGTH_CLASSES * PAIR_BYTES
  return known
}

function prepareTables(sigma: f64, blur: f64, length: f64, lengthVariation: f64, taper: f64, angle: f64, pitch: f64): void {
  const known = findSlot(sigma, blur, length, lengthVariation, taper, angle, pitch)
  // At full size a pixel is a sample of the profile widened by its own variance, 1/12 px². A pixel of the reduced grid
  // is the mean of pitch² of those, which together are as wide as a box of variance (pitch² - 1) / 12.
  const sharp = Math.sqrt(sigma * sigma + 1.0 / 12.0)
  const across = Math.sqrt(sharp * sharp + blur * blur)
  const side = Math.sqrt(Math.max(0, pitch * pitch - 1.0))
  const sideAlong = side * Math.abs(NativeMath.cos(angle))
  const sideAcross = side * Math.abs(NativeMath.sin(angle))
  const margin = 0.5 * (sideAlong + sideAcross)
  const longest = length * (1.0 + lengthVariation)
  const softest = Math.sqrt(Math.max(sharp, taper * longest) ** 2 + blur * blur)
  reachAcross = REACH_IN_SIGMAS * across + margin
  reachAlong = 0.5 * longest + REACH_IN_SIGMAS * softest + margin
  acrossScale = <f32>(<f64>(TABLE - 1) / reachAcross)
  alongScale = <f32>(<f64>(TABLE - 1) / reachAlong)
  if (known) return
  for (let i = 0; i < TABLE - 1; i++) {
    const v = <f64>i / <f64>acrossScale
    store<f32>(profile + ((<usize>i) << 2), <f32>((sharp / across) * NativeMath.exp((-0.5 * v * v) / (across * across))))
  }
  storeProfile(acrossTable, sideAcross, sideAlong, <f64>acrossScale)
  for (let k = 0; k < LENGTH_CLASSES; k++) {
    const own = Math.max(1e-3, length * (1.0 + lengthVariation * ((2.0 * (<f64>k + 0.5)) / <f64>LENGTH_CLASSES - 1.0)))
    const sharpEnd = Math.max(sharp, taper * own)
    const end = Math.sqrt(sharpEnd * sharpEnd + blur * blur)
    for (let i = 0; i < TABLE - 1; i++) store<f32>(profile + ((<usize>i) << 2), <f32>smeared(<f64>i / <f64>alongScale, own, end, sharpEnd))
    storeProfile(alongTables + (<usize>k) * PAIR_BYTES, sideAlong, sideAcross, <f64>alongScale)
  }
}

/**
 * Adds one layer of streaks to `mean`, and, where `spread` is not 0, the variance inside each pixel to `spread`.
 *
 * (gridX, gridY) is the first pixel on the grid of the whole picture; `pitchX`, `pitchY` photo px per grid px.
 * `spacing` px: side of the square that holds one point on average; `sigma` px of the speck before the smear;
 * `blur` px: a Gaussian blur after the smear; `length` px of the smear, varied by the part `lengthVariation` either way; `taper`: softness of the ends as a
 * part of the length; `angle` radians counter-clockwise from x, bent by up to `bend` radians, partly by gusts of
 * `gustScale` px; `brightness` of the peak, varied downwards by the part `brightnessVariation`; (`shiftX`, `shiftY`) px
 * moves the layer; `turn` radians counter-clockwise turns it about (`centreX`, `centreY`), the streaks with it. The lattice is the same again
 * `loopRows` cells further down and `loopShift` to the right; the part `phase` of that way is moved. With `distance`, a plane of metres, each drop is
 * between `near` and `far` away and hidden by what is nearer. With `bandFull` above `bandFrom` only what lies in a band is drawn: a speck `q` px along (`bandX`, `bandY`)
 * is brightest at `bandFull`, and gone at `bandFrom` and `bandTo`.
 */
export function drawStreaks(
  mean: usize, spread: usize, width: i32, height: i32, gridX: i32, gridY: i32, pitchX: f64, pitchY: f64,
  seed: i32, spacing: f64, sigma: f64, blur: f64, length: f64, lengthVariation: f64, taper: f64,
  angle: f64, bend: f64, gustScale: f64, brightness: f64, brightnessVariation: f64, shiftX: f64, shiftY: f64,
  turn: f64, centreX: f64, centreY: f64, loopRows: i32, loopShift: i32, phase: f64, distance: usize, near: f64, far: f64,
  bandX: f64, bandY: f64, bandFrom: f64, bandFull: f64, bandTo: f64,
): void {
  const pitch = Math.sqrt(pitchX * pitchY)
  prepareTables(sigma, blur, length, lengthVariation, taper, angle + turn, pitch)
  const cosAngle = NativeMath.cos(angle + turn)
  const sinAngle = NativeMath.sin(angle + turn)
  const cosTurn = NativeMath.cos(turn)
  const sinTurn = NativeMath.sin(turn)
  // How far a streak reaches across and down the picture, however it is bent.
  const sideways = Math.min(1, Math.abs(cosAngle) + Math.abs(bend))
  const upright = Math.min(1, Math.abs(sinAngle) + Math.abs(bend))
  const halfWidth = 0.5 * <f64>width * pitchX + sideways * reachAlong + upright * reachAcross
  const halfHeight = 0.5 * <f64>height * pitchY + upright * reachAlong + sideways * reachAcross
  // The rectangle, turned back: its middle, and how far its corners reach from there.
  const offsetX = (<f64>gridX + 0.5 * <f64>width) * pitchX - shiftX - centreX
  const offsetY = (<f64>gridY + 0.5 * <f64>height) * pitchY - shiftY - centreY
  const movedX = phase * <f64>loopShift * spacing
  const movedY = phase * <f64>loopRows * spacing
  const middleX = centreX + cosTurn * offsetX - sinTurn * offsetY - movedX
  const middleY = centreY + sinTurn * offsetX + cosTurn * offsetY - movedY
  const extentX = Math.abs(cosTurn) * halfWidth + Math.abs(sinTurn) * halfHeight
  const extentY = Math.abs(sinTurn) * halfWidth + Math.abs(cosTurn) * halfHeight
  const firstX = <i32>Math.floor((middleX - extentX) / spacing)
  const lastX = <i32>Math.floor((middleX + extentX) / spacing)
  const firstY = <i32>Math.floor((middleY - extentY) / spacing)
  const lastY = <i32>Math.floor((middleY + extentY) / spacing)
  const banded = bandFull > bandFrom
  for (let cellY = firstY; cellY <= lastY; cellY++) {
    for (let cellX = firstX; cellX <= lastX; cellX++) {
      let h = loopHash(cellX, cellY, loopRows, loopShift, seed)
      const count = poissonCount(unit(h))
      for (let k = 0; k < count; k++) {
        h = nextHash(h)
        const x = (<f64>cellX + <f64>unit(h)) * spacing + movedX
        h = nextHash(h)
        const y = (<f64>cellY + <f64>unit(h)) * spacing + movedY
        h = nextHash(h)
        // Few bright drops, many faint ones.
        const u = unit(h)
        let peak = <f32>brightness * (1 - <f32>brightnessVariation * (1 - u * u))
        h = nextHash(h)
        const lengthClass = <i32>(h >>> 29)
        h = nextHash(h)
        const placedX = centreX + cosTurn * (x - centreX) + sinTurn * (y - centreY) + shiftX
        const placedY = centreY - sinTurn * (x - centreX) + cosTurn * (y - centreY) + shiftY
        if (banded) {
          peak *= inBand(placedX * bandX + placedY * bandY, bandFrom, bandFull, bandTo)
          if (peak == 0) continue
        }
        let deviation: f64 = 0
        if (bend != 0) {
          const own = unit(h) + unit(nextHash(h)) - 1
          deviation = bend * (0.55 * <f64>gust(x / gustScale, y / gustScale, seed ^ 0x51ed27) + 0.45 * <f64>own)
        }
        // The bend is small: its sine and cosine are short series, exact to 1e-7 up to 15 degrees.
        const d2 = deviation * deviation
        const sinDeviation = deviation * (1 - d2 * (1.0 / 6.0 - d2 * (1.0 / 120.0 - d2 / 5040.0)))
        const cosDeviation = 1 - d2 * (0.5 - d2 * (1.0 / 24.0 - d2 / 720.0))
        const dirX = cosAngle * cosDeviation - sinAngle * sinDeviation
        const dirY = -(sinAngle * cosDeviation + cosAngle * sinDeviation)
        const away = distance != 0 ? distanceBetween(near, far, unit(nextHash(nextHash(h)))) : 0
        drawOne(mean, spread, width, height, gridX, gridY, pitchX, pitchY, placedX, placedY, dirX, dirY, peak, lengthClass, distance, away)
      }
    }
  }
}

/** 1 at `full`, falling to 0 at `from` and `to`, which may be without end. */
function inBand(q: f64, from: f64, full: f64, to: f64): f32 {
  const part = q <= full ? (q - from) / (full - from) : 1 - (q - full) / (to - full)
  return <f32>Math.max(0, part)
}

function drawOne(
  mean: usize, spread: usize, width: i32, height: i32, gridX: i32, gridY: i32, pitchX: f64, pitchY: f64,
  x: f64, y: f64, dirX: f64, dirY: f64, peak: f32, lengthClass: i32, distance: usize, away: f32,
): void {
  const extentX = Math.abs(dirX) * reachAlong + Math.abs(dirY) * reachAcross
  const extentY = Math.abs(dirY) * reachAlong + Math.abs(dirX) * reachAcross
  const row0 = max(0, <i32>Math.floor((y - extentY) / pitchY) - gridY)
  const row1 = min(height - 1, <i32>Math.ceil((y + extentY) / pitchY) - gridY)
  const column0 = max(0, <i32>Math.floor((x - extentX) / pitchX) - gridX)
  const column1 = min(width - 1, <i32>Math.ceil((x + extentX) / pitchX) - gridX)
  if (row0 > row1 || column0 > column1) return
  const along = alongTables + (<usize>lengthClass) * PAIR_BYTES
  const cx = <f32>dirX
  const cy = <f32>dirY
  const limit = <f32>(TABLE - 1)
  // One that lies nearly level is crossed by a row over a long way, one that is level over all of it.
  const leans = Math.abs(dirY) > 1e-3
  const half = leans ? (reachAcross + 0.01) / Math.abs(dirY) : 0
  for (let row = row0; row <= row1; row++) {
    const dy = (<f64>(row + gridY) + 0.5) * pitchY - y
    let from = column0
    let to = column1
    if (leans) {
      // Where this row crosses the width of the streak.
      const middle = x + (dy * dirX) / dirY
      from = max(from, <i32>Math.floor((middle - half) / pitchX) - gridX)
      to = min(to, <i32>Math.ceil((middle + half) / pitchX) - gridX)
    }
    const line = (<usize>(row * width)) << 2
    // Computed for each pixel from its own place, so that no tile border shows.
    for (let column = from; column <= to; column++) {
      const dx = <f32>((<f64>(column + gridX) + 0.5) * pitchX - x)
      const down = <f32>dy
      const u = abs<f32>(dx * cx + down * cy) * alongScale
      const v = abs<f32>(down * cx - dx * cy) * acrossScale
      const at = line + ((<usize>column) << 2)
      if (u < limit && v < limit && (distance == 0 || load<f32>(distance + at) > away)) {
        const both = f32x4.mul(look(acrossTable, v), look(along, u))
        const m = peak * f32x4.extract_lane(both, 0)
        store<f32>(mean + at, load<f32>(mean + at) + m)
        if (spread != 0) {
          const q = peak * peak * f32x4.extract_lane(both, 1)
          store<f32>(spread + at, load<f32>(spread + at) + max<f32>(0, q - m * m))
        }
      }
    }
  }
}
