import { hash3, nextHash, poissonCount, unit } from './hash'
import { splat } from './math'
import { columns, drawStar, MOST_REACH, firstColumn, firstRow, gridX, gridY, levelX, levelY, rows, samples, upX, upY } from './starShape'

// Stars: points of a Poisson process, brighter ones the fewer.

const LOG2E: f64 = 1.4426950408889634
const LOG2_10: f64 = 3.321928094887362
const TURN: f64 = 6.283185307179586

/**
 * Draws stars. `spacing` px: side of the square that holds one on average, where the sky is densest; `faintest` magnitude; `growth`: stars a magnitude
 * against the one before, as a natural logarithm; `white`: the magnitude whose core is just white; `sigma` px; `halo`, `spikes` 0-1. Along a line through
 * (bandX, bandY) across (acrossX, acrossY) the sky is 1 + `band` times as dense, over `bandWidth` px. `extinction` magnitudes for each thickness of air
 * above the horizon, `focal` px. `trail` radians about (poleX, poleY), counter-clockwise. `phase` 0-1 for twinkling by the part `twinkle`. `table`: 32 colours
 * by colour index, linear red, green, blue as floats.
 */
export function drawStars(
  seed: i32, spacing: f64, faintest: f64, growth: f64, white: f64, sigma: f64, halo: f64, spikes: f64,
  bandX: f64, bandY: f64, acrossX: f64, acrossY: f64, bandWidth: f64, band: f64,
  extinction: f64, focal: f64, trail: f64, poleX: f64, poleY: f64, phase: f64, twinkle: f64, table: usize,
): void {
  const step = Math.sqrt(gridX * gridY) / <f64>samples
  // A sample stands for an area: it sees the star that much softer, and its light spread as far.
  const seen = Math.sqrt(sigma * sigma + Math.max(0, step * step - 1) / 12)
  const softer = (sigma * sigma) / (seen * seen)
  const left = <f64>firstColumn * gridX
  const top = <f64>firstRow * gridY
  const right = left + <f64>columns * gridX
  const bottom = top + <f64>rows * gridY
  const own = MOST_REACH * seen + 8
  const below = MOST_REACH * sigma + 8
  const x1 = left - own
  const y1 = top - own
  const x2 = right + own
  const y2 = bottom + own
  if (trail == 0) {
    const last = cellAt(x2, spacing)
    for (let cellY = cellAt(y1, spacing); cellY <= cellAt(y2, spacing); cellY++) {
      for (let cellX = cellAt(x1, spacing); cellX <= last; cellX++) {
        drawCell(cellX, cellY, seed, spacing, faintest, growth, white, seen, softer, halo, spikes, bandX, bandY, acrossX, acrossY, bandWidth, band, extinction, focal, trail, poleX, poleY, phase, twinkle, below, table)
      }
    }
    return
  }
  findSources(x1 - poleX, y1 - poleY, x2 - poleX, y2 - poleY, Math.abs(trail))
  const lastRow = cellAt(poleY + sourceY2, spacing)
  for (let cellY = cellAt(poleY + sourceY1, spacing); cellY <= lastRow; cellY++) {
    const upper = <f64>cellY * spacing - poleY
    const lower = upper + spacing
    const nearest = upper <= 0 && lower >= 0 ? 0 : Math.min(Math.abs(upper), Math.abs(lower))
    const widest = Math.max(Math.abs(upper), Math.abs(lower))
    const far2 = square(farthest) - square(nearest)
    if (far2 <= 0) continue
    const far = Math.sqrt(far2)
    const near = Math.sqrt(Math.max(0, square(closest) - square(widest)))
    // Left and right of the pole, each cell once.
    let next = cellAt(poleX + sourceX1, spacing)
    const end = cellAt(poleX + sourceX2, spacing)
    for (let side = -1; side <= 1; side += 2) {
      const from = max(next, cellAt(poleX + (side < 0 ? -far : near), spacing))
      const to = min(end, cellAt(poleX + (side < 0 ? -near : far), spacing))
      for (let cellX = from; cellX <= to; cellX++) {
        drawCell(cellX, cellY, seed, spacing, faintest, growth, white, seen, softer, halo, spikes, bandX, bandY, acrossX, acrossY, bandWidth, band, extinction, focal, trail, poleX, poleY, phase, twinkle, below, table)
      }
      next = max(next, to + 1)
    }
  }
}

// Where the stars stand whose trails may come into a rectangle: at these distances from the pole, and in this box about it.
let closest: f64 = 0
let farthest: f64 = 0
let sourceX1: f64 = 0
let sourceY1: f64 = 0
let sourceX2: f64 = 0
let sourceY2: f64 = 0

/** Finds that for a rectangle, as it lies from the pole. @param turn radians of the trail, of which half lies to each side of a star */
function findSources(x1: f64, y1: f64, x2: f64, y2: f64, turn: f64): void {
  const nearX = x1 > 0 ? x1 : x2 < 0 ? x2 : 0
  const nearY = y1 > 0 ? y1 : y2 < 0 ? y2 : 0
  closest = Math.sqrt(square(nearX) + square(nearY))
  farthest = Math.sqrt(Math.max(square(x1), square(x2)) + Math.max(square(y1), square(y2)))
  sourceX1 = -farthest
  sourceY1 = -farthest
  sourceX2 = farthest
  sourceY2 = farthest
  const half = 0.5 * turn
  // From the pole itself the rectangle is seen all around.
  if (closest == 0 || half >= 3) return
  const middle = NativeMath.atan2(0.5 * (y1 + y2), 0.5 * (x1 + x2))
  const wide = Math.max(Math.max(angleFrom(middle, x1, y1), angleFrom(middle, x2, y1)), Math.max(angleFrom(middle, x1, y2), angleFrom(middle, x2, y2)))
  const span = half + wide + 1e-6
  if (span >= 3.1) return
  const first = NativeMath.cos(middle - span)
  const last = NativeMath.cos(middle + span)
  const firstY = NativeMath.sin(middle - span)
  const lastY = NativeMath.sin(middle + span)
  sourceX1 = (reaches(middle, span, 3.141592653589793) ? -1.0 : Math.min(first, last)) * farthest
  sourceX2 = (reaches(middle, span, 0) ? 1.0 : Math.max(first, last)) * farthest
  sourceY1 = (reaches(middle, span, -1.5707963267948966) ? -1.0 : Math.min(firstY, lastY)) * farthest
  sourceY2 = (reaches(middle, span, 1.5707963267948966) ? 1.0 : Math.max(firstY, lastY)) * farthest
  // What is positive is least at the nearest distance.
  if (sourceX1 > 0) sourceX1 *= closest / farthest
  if (sourceY1 > 0) sourceY1 *= closest / farthest
  if (sourceX2 < 0) sourceX2 *= closest / farthest
  if (sourceY2 < 0) sourceY2 *= closest / farthest
}

/** How far the direction of a place lies from another, radians. */
function angleFrom(middle: f64, x: f64, y: f64): f64 {
  return apart(NativeMath.atan2(y, x), middle)
}

function apart(a: f64, b: f64): f64 {
  const d = Math.abs(a - b) % TURN
  return d > 0.5 * TURN ? TURN - d : d
}

/** Whether the directions within `span` of `middle` take in one more. */
function reaches(middle: f64, span: f64, angle: f64): bool {
  return apart(middle, angle) <= span
}

// @ts-ignore: decorator
@inline
function cellAt(place: f64, spacing: f64): i32 {
  return <i32>Math.floor(place / spacing)
}

/** Draws the stars of one cell. */
function drawCell(
  cellX: i32, cellY: i32, seed: i32, spacing: f64, faintest: f64, growth: f64, white: f64, seen: f64, softer: f64, halo: f64, spikes: f64,
  bandX: f64, bandY: f64, acrossX: f64, acrossY: f64, bandWidth: f64, band: f64,
  extinction: f64, focal: f64, trail: f64, poleX: f64, poleY: f64, phase: f64, twinkle: f64, margin: f64, table: usize,
): void {
  let h = hash3(cellX, cellY, seed)
  const count = poissonCount(unit(h))
  for (let k = 0; k < count; k++) {
    h = nextHash(h)
    const x = (<f64>cellX + <f64>unit(h)) * spacing
    h = nextHash(h)
    const y = (<f64>cellY + <f64>unit(h)) * spacing
    h = nextHash(h)
    const chance = <f64>unit(h)
    h = nextHash(h)
    const rank = 1 - <f64>unit(h)
    h = nextHash(h)
    const colour = table + 12 * (<usize>(h >>> 27))
    h = nextHash(h)
    const start = <f64>unit(h)
    const fromBand = ((x - bandX) * acrossX + (y - bandY) * acrossY) / bandWidth
    if (chance * (1 + band) > 1 + band * NativeMath.exp(-0.5 * fromBand * fromBand)) continue
    const magnitude = faintest + NativeMath.log(rank) / growth
    const height = (x - levelX) * upX + (y - levelY) * upY
    if (trail == 0 && height < -margin) continue
    const sine = height / Math.sqrt(height * height + focal * focal)
    const air = extinction * (1 / (Math.max(0, sine) + 0.025) - 0.9756)
    const flicker = twinkle > 0 && phase > 0 ? 1 + twinkle * (NativeMath.sin(TURN * (start + 3 * phase)) - NativeMath.sin(TURN * start)) : 1
    // log2 of the light at its middle, in parts of white.
    const light = 0.4 * LOG2_10 * (white - magnitude - air) + LOG2E * NativeMath.log(softer * Math.max(0.05, flicker))
    drawStar(x, y, light, seen, halo, spikes, trail, poleX, poleY, colour)
  }
}

// @ts-ignore: decorator
@inline
function square(x: f64): f64 {
  return x * x
}

/** From sums of squares to variances: square - mean², at least 0. */
export function spreadFromSquares(mean: usize, squares: usize, count: i32): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const m = v128.load(mean + i)
    v128.store(squares + i, f32x4.pmax(splat(0), f32x4.sub(v128.load(squares + i), f32x4.mul(m, m))))
  }
}
