import { exp2, mulAdd, splat } from './math'

// One star: a Gaussian core in linear light that overexposes as on a sensor, so that bright stars are larger; a halo, spikes, and its trail. The picture takes it encoded, by a power of 1 / 2.2.

const ENCODING: f32 = 1.0 / 2.2
/** Standard deviations from the middle of a star to where its halo and its spikes end at most. */
export const MOST_REACH: f64 = 90
/** What is fainter than this part of white, encoded, is left out, and taken off what is left. */
const FAINTEST: f32 = 0.025
const LOG2E: f64 = 1.4426950408889634

// What is drawn on, and the sky it stands in, for the time of one call.
let meanPlane: usize = 0
let squarePlane: usize = 0
let redPlane: usize = 0
let greenPlane: usize = 0
let bluePlane: usize = 0
export let columns = 0
export let rows = 0
export let firstColumn = 0
export let firstRow = 0
export let gridX: f64 = 1
export let gridY: f64 = 1
export let samples = 1

// Horizon: a place on it and the direction up from it.
export let levelX: f64 = 0
export let levelY: f64 = 0
export let upX: f64 = 0
export let upY: f64 = -1

/** Directs the following `drawStars` to its planes: brightness, its square, and brightness times colour. */
export function starCanvas(
  mean: usize, square: usize, red: usize, green: usize, blue: usize, width: i32, height: i32, x0: i32, y0: i32, pitchX: f64, pitchY: f64,
): void {
  meanPlane = mean
  squarePlane = square
  redPlane = red
  greenPlane = green
  bluePlane = blue
  columns = width
  rows = height
  firstColumn = x0
  firstRow = y0
  gridX = pitchX
  gridY = pitchY
  // Nearly as many samples as there are pixels at full size, by fours.
  const pitch = Math.sqrt(pitchX * pitchY)
  samples = pitch < 1.01 ? 1 : pitch < 6 ? 4 : 8
}

/** The horizon for the following `drawStars`: a place on it, photo px, and the unit vector up from it. */
export function starHorizon(x: f64, y: f64, x1: f64, y1: f64): void {
  levelX = x
  levelY = y
  upX = x1
  upY = y1
}

// @ts-ignore: decorator
@inline
function square(x: f64): f64 {
  return x * x
}

// One star, for the time it is drawn.
let fall: f32 = 0
let brightness: f32 = 0
let haloPeak: f32 = 0
let haloReach: f64 = 1
let spikePeak: f32 = 0
let spikeReach: f64 = 1
let reach: f64 = 0
let starX: f64 = 0
let starY: f64 = 0

// Its trail: an arc about the pole.
let onTrail = false
let centreX: f64 = 0
let centreY: f64 = 0
let arcRadius: f64 = 0
let middleX: f64 = 0
let middleY: f64 = 0
let cosHalf: f64 = 0
let endAX: f64 = 0
let endAY: f64 = 0
let endBX: f64 = 0
let endBY: f64 = 0

export function drawStar(x: f64, y: f64, light: f64, sigma: f64, halo: f64, spikes: f64, trail: f64, poleX: f64, poleY: f64, colour: usize): void {
  const visible = light + 11.7
  if (visible <= 0) return
  fall = <f32>((0.5 * LOG2E) / (sigma * sigma))
  brightness = <f32>light
  const coreReach = Math.sqrt(visible / <f64>fall)
  const over = Math.max(0, light)
  haloPeak = <f32>(halo * Math.min(0.5, 0.13 * over))
  haloReach = sigma * Math.min(MOST_REACH, 8 + 7 * over)
  spikePeak = trail == 0 ? <f32>(spikes * Math.min(0.8, 0.25 * over)) : 0
  spikeReach = sigma * Math.min(MOST_REACH, 8 + 9 * over)
  reach = coreReach
  if (haloPeak > 0) reach = Math.max(reach, haloReach)
  if (spikePeak > 0) reach = Math.max(reach, spikeReach)
  starX = x
  starY = y
  onTrail = trail != 0
  centreX = poleX
  centreY = poleY
  if (onTrail) drawTrail(colour, trail)
  else drawPoint(colour)
}

/** Encoded brightness of the star, 0-1, at four places: their squared distances from its middle, and how far they are from it across and down. */
// @ts-ignore: decorator
@inline
function alphaAt(r2: v128, across: v128, down: v128): v128 {
  const inside = f32x4.mul(f32x4.pmin(splat(0), f32x4.sub(splat(brightness), f32x4.mul(splat(fall), r2))), splat(ENCODING))
  let a = f32x4.mul(f32x4.pmax(splat(0), f32x4.sub(exp2(inside), splat(FAINTEST))), splat(1.0 / 0.975))
  if (haloPeak > 0) {
    const t = f32x4.mul(r2, splat(<f32>(1.0 / (haloReach * haloReach))))
    const rest = f32x4.pmax(splat(0), f32x4.sub(splat(1), t))
    const halo = f32x4.div(f32x4.mul(splat(haloPeak), f32x4.mul(rest, rest)), mulAdd(splat(14), t, splat(1)))
    a = f32x4.pmax(a, halo)
  }
  if (spikePeak > 0) {
    const scale = splat(<f32>(1.0 / spikeReach))
    const u = f32x4.mul(f32x4.abs(across), scale)
    const v = f32x4.mul(f32x4.abs(down), scale)
    a = f32x4.pmax(a, f32x4.pmax(spike(u, v), spike(v, u)))
  }
  return a
}

const THIN: f32 = 0.055

/** One spike: `along` and `across` in parts of its length. */
// @ts-ignore: decorator
@inline
function spike(along: v128, across: v128): v128 {
  const rest = f32x4.pmax(splat(0), f32x4.sub(splat(1), along))
  const side = f32x4.pmax(splat(0), f32x4.sub(splat(1), f32x4.mul(across, splat(1.0 / THIN))))
  return f32x4.mul(splat(spikePeak), f32x4.mul(f32x4.mul(rest, rest), f32x4.mul(side, side)))
}

// @ts-ignore: decorator
@inline
function deposit(column: i32, row: i32, sum: f32, squares: f32, colour: usize): void {
  const at = (<usize>(row * columns + column)) << 2
  store<f32>(meanPlane + at, load<f32>(meanPlane + at) + sum)
  store<f32>(squarePlane + at, load<f32>(squarePlane + at) + squares)
  store<f32>(redPlane + at, load<f32>(redPlane + at) + sum * load<f32>(colour))
  store<f32>(greenPlane + at, load<f32>(greenPlane + at) + sum * load<f32>(colour, 4))
  store<f32>(bluePlane + at, load<f32>(bluePlane + at) + sum * load<f32>(colour, 8))
}

/** Four neighbouring pixels at full size; those outside of from..to are left out. */
function depositFour(first: i32, row: i32, values: v128, from: i32, to: i32, colour: usize): void {
  if (!v128.any_true(f32x4.gt(values, splat(0)))) return
  for (let lane = 0; lane < 4; lane++) {
    const value = lane == 0 ? f32x4.extract_lane(values, 0) : lane == 1 ? f32x4.extract_lane(values, 1)
      : lane == 2 ? f32x4.extract_lane(values, 2) : f32x4.extract_lane(values, 3)
    const column = first + lane
    if (value > 0 && column >= from && column <= to) deposit(column, row, value, value * value, colour)
  }
}

// @ts-ignore: decorator
@inline
function sumOf(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + (f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3))
}

// @ts-ignore: decorator
@inline
function fromLanes(first: f64, step: f64): v128 {
  return mulAdd(splat(<f32>step), f32x4(0, 1, 2, 3), splat(<f32>first))
}

/** The star, or its trail, at four places side by side: (px, py) is the first, photo px, the others follow at `step`. 0 under the horizon. */
// @ts-ignore: decorator
@inline
function starAt(px: f64, py: f64, step: f64): v128 {
  const height = fromLanes((px - levelX) * upX + (py - levelY) * upY, step * upX)
  const dx = fromLanes(px - starX, step)
  const dy = splat(<f32>(py - starY))
  let away: v128
  if (onTrail) {
    const ox = fromLanes(px - centreX, step)
    const oy = splat(<f32>(py - centreY))
    const along = mulAdd(ox, splat(<f32>middleX), f32x4.mul(oy, splat(<f32>middleY)))
    const rho = f32x4.sqrt(mulAdd(ox, ox, f32x4.mul(oy, oy)))
    const off = f32x4.sub(rho, splat(<f32>arcRadius))
    const ends = f32x4.pmin(squaredFrom(px, py, step, endAX, endAY), squaredFrom(px, py, step, endBX, endBY))
    away = v128.bitselect(ends, f32x4.mul(off, off), f32x4.lt(along, f32x4.mul(rho, splat(<f32>cosHalf))))
  } else away = mulAdd(dx, dx, f32x4.mul(dy, dy))
  const seen = v128.and(f32x4.lt(away, splat(<f32>(reach * reach))), f32x4.ge(height, splat(0)))
  if (!v128.any_true(seen)) return splat(0)
  return v128.and(alphaAt(away, dx, dy), seen)
}

// @ts-ignore: decorator
@inline
function squaredFrom(px: f64, py: f64, step: f64, x: f64, y: f64): v128 {
  const dx = fromLanes(px - x, step)
  const dy = splat(<f32>(py - y))
  return mulAdd(dx, dx, f32x4.mul(dy, dy))
}

/** A run of pixels of one row, from..to of the rectangle. */
function drawRun(row: i32, from: i32, to: i32, colour: usize): void {
  const step = gridX / <f64>samples
  if (samples == 1) {
    // By fours of the whole picture, so that no border of a tile shows.
    const shift = firstColumn & 3
    const py = (<f64>(firstRow + row) + 0.5) * gridY
    for (let column = ((from + shift) & ~3) - shift; column <= to; column += 4) {
      depositFour(column, row, starAt((<f64>(firstColumn + column) + 0.5) * gridX, py, gridX), from, to, colour)
    }
    return
  }
  const share: f32 = <f32>(1.0 / <f64>(samples * samples))
  for (let column = from; column <= to; column++) {
    let sum = splat(0)
    let squares = splat(0)
    for (let j = 0; j < samples; j++) {
      const py = (<f64>(firstRow + row) + (<f64>j + 0.5) / <f64>samples) * gridY
      for (let i = 0; i < samples; i += 4) {
        const value = starAt((<f64>(firstColumn + column) + (<f64>i + 0.5) / <f64>samples) * gridX, py, step)
        sum = f32x4.add(sum, value)
        squares = mulAdd(value, value, squares)
      }
    }
    if (v128.any_true(f32x4.gt(sum, splat(0)))) deposit(column, row, sumOf(sum) * share, sumOf(squares) * share, colour)
  }
}

function drawPoint(colour: usize): void {
  const row0 = max(0, <i32>Math.floor((starY - reach) / gridY) - firstRow)
  const row1 = min(rows - 1, <i32>Math.ceil((starY + reach) / gridY) - firstRow)
  const column0 = max(0, <i32>Math.floor((starX - reach) / gridX) - firstColumn)
  const column1 = min(columns - 1, <i32>Math.ceil((starX + reach) / gridX) - firstColumn)
  if (column0 > column1) return
  for (let row = row0; row <= row1; row++) drawRun(row, column0, column1, colour)
}

/** An arc about the pole: along it the star is as bright as at one moment, as when many exposures are laid over each other by their lightest. */
function drawTrail(colour: usize, trail: f64): void {
  const offX = starX - centreX
  const offY = starY - centreY
  const radius = Math.sqrt(offX * offX + offY * offY)
  arcRadius = radius
  // The arc lies to both sides of its middle.
  const half = Math.min(0.5 * Math.abs(trail), 3.1415)
  cosHalf = NativeMath.cos(half)
  const sinHalf = NativeMath.sin(half)
  middleX = radius > 0 ? offX / radius : 1
  middleY = radius > 0 ? offY / radius : 0
  endAX = centreX + radius * (middleX * cosHalf - middleY * sinHalf)
  endAY = centreY + radius * (middleY * cosHalf + middleX * sinHalf)
  endBX = centreX + radius * (middleX * cosHalf + middleY * sinHalf)
  endBY = centreY + radius * (middleY * cosHalf - middleX * sinHalf)
  // What the arc spans: its ends, its middle, and the outermost places of the circle that it passes.
  let x1 = Math.min(Math.min(endAX, endBX), starX)
  let x2 = Math.max(Math.max(endAX, endBX), starX)
  let y1 = Math.min(Math.min(endAY, endBY), starY)
  let y2 = Math.max(Math.max(endAY, endBY), starY)
  if (middleX > cosHalf) x2 = centreX + radius
  if (-middleX > cosHalf) x1 = centreX - radius
  if (middleY > cosHalf) y2 = centreY + radius
  if (-middleY > cosHalf) y1 = centreY - radius
  const row0 = max(0, <i32>Math.floor((y1 - reach) / gridY) - firstRow)
  const row1 = min(rows - 1, <i32>Math.ceil((y2 + reach) / gridY) - firstRow)
  const least = max(0, <i32>Math.floor((x1 - reach) / gridX) - firstColumn)
  const most = min(columns - 1, <i32>Math.ceil((x2 + reach) / gridX) - firstColumn)
  if (row0 > row1 || least > most) return
  const outer = radius + reach
  const inner = Math.max(0, radius - reach)
  for (let row = row0; row <= row1; row++) {
    // Columns that can be within reach of the circle anywhere in this row: two runs, left and right of the pole.
    const upper = <f64>(firstRow + row) * gridY - centreY
    const lower = upper + gridY
    const nearest = upper <= 0 && lower >= 0 ? 0 : Math.min(Math.abs(upper), Math.abs(lower))
    const widest = Math.max(Math.abs(upper), Math.abs(lower))
    const far2 = outer * outer - nearest * nearest
    if (far2 <= 0) continue
    const far = Math.sqrt(far2)
    const near = Math.sqrt(Math.max(0, inner * inner - widest * widest))
    for (let side = -1; side <= 1; side += 2) {
      const a = centreX + (side < 0 ? -far : near)
      const b = centreX + (side < 0 ? -near : far)
      const from = max(least, <i32>Math.floor(a / gridX) - firstColumn)
      let to = min(most, <i32>Math.ceil(b / gridX) - firstColumn)
      // Where both runs meet, the left one ends before the right one begins.
      if (side < 0) to = min(to, <i32>Math.floor((centreX + near) / gridX) - firstColumn - 1)
      drawRun(row, from, to, colour)
    }
  }
}

