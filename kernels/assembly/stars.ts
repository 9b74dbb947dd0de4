import { hash3, nextHash, poissonCount, unit } from './hash'
import { splat } from './math'
import { columns, drawStar, firstColumn, firstRow, gridX, gridY, levelX, levelY, rows, samples, upX, upY } from './starShape'

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
  // Stars whose trail may come into the rectangle lie anywhere within its chord.
  const farthest = Math.sqrt(Math.max(square(left - poleX), square(right - poleX)) + Math.max(square(top - poleY), square(bottom - poleY)))
  const margin = 90 * sigma + 8 + (trail != 0 ? Math.min(Math.abs(trail), 3.2) * farthest : 0)
  const x1 = <i32>Math.floor((left - margin) / spacing)
  const x2 = <i32>Math.floor((right + margin) / spacing)
  const y1 = <i32>Math.floor((top - margin) / spacing)
  const y2 = <i32>Math.floor((bottom + margin) / spacing)
  for (let cellY = y1; cellY <= y2; cellY++) {
    for (let cellX = x1; cellX <= x2; cellX++) {
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
