import { hash3, nextHash, unit } from './hash'

// Straight beams of light from one edge to another.

const TURN: f64 = 6.283185307179586
const STEPS: i32 = 8192

/**
 * Straight beams as a field. From the middle (px, py) of their source edge, `half` px to both sides of it, along (dirX, dirY) over `length`, where they are `opening` times as wide.
 * `count` beams, `uneven` 0-1, `soft` 0-1 edges, `fade` 0-1 along the length, broken up by `noise` 0-1 of the size `noiseSize` px. `phase` 0-1.
 */
export function drawShafts(
  plane: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64, px: f64, py: f64, half: f64, dirX: f64, dirY: f64, length: f64, opening: f64,
  count: i32, uneven: f64, soft: f64, fade: f64, noise: f64, noiseSize: f64, seed: i32, phase: f64,
): void {
  prepareBeams(count, uneven, soft, seed)
  const pitch = Math.sqrt(pitchX * pitchY)
  for (let row = 0; row < height; row++) {
    const dy = (<f64>(y0 + row) + 0.5) * pitchY - py
    for (let column = 0; column < width; column++) {
      const dx = (<f64>(x0 + column) + 0.5) * pitchX - px
      const t = (dx * dirX + dy * dirY) / length
      const at = plane + ((<usize>(row * width + column)) << 2)
      store<f32>(at, 0)
      if (t <= 0 || t >= 1) continue
      const wide = half * (1 + (opening - 1) * t)
      const s = (dx * dirY - dy * dirX) / wide
      if (s <= -1.2 || s >= 1.2) continue
      const step = Math.max(1, pitch) / wide
      // In parts of the table, which spans -1.2 to 1.2.
      const low = (s - 0.5 * step + 1.2) / 2.4
      const high = (s + 0.5 * step + 1.2) / 2.4
      const mean = (beamsTo(high) - beamsTo(low)) / (high - low)
      const start = Math.min(1, t / 0.04)
      const rest = 1 - t
      let light = mean * start * (2 - start) * (1 - fade + fade * rest * rest) * Math.min(1, rest / 0.15)
      if (noise > 0) light *= 1 - noise * slowNoise((s * wide) / noiseSize, (t * length) / (3 * noiseSize), seed, phase)
      store<f32>(at, <f32>light)
    }
  }
}

const beams = memory.data((STEPS + 1) * 8)

function prepareBeams(count: i32, uneven: f64, soft: f64, seed: i32): void {
  let sum: f64 = 0
  store<f64>(beams, 0)
  for (let i = 0; i < STEPS; i++) {
    const s = 2.4 * ((<f64>i + 0.5) / <f64>STEPS) - 1.2
    let dark: f64 = 1
    for (let k = 0; k < count; k++) {
      let h = hash3(k, 29, seed)
      const a = <f64>unit(h)
      h = nextHash(h)
      const b = <f64>unit(h)
      const c = <f64>unit(nextHash(h))
      const cell = 2.0 / <f64>count
      const middle = -1 + cell * (<f64>k + 0.5 + 0.8 * uneven * (a - 0.5))
      const half = 0.5 * cell * (0.62 + uneven * (0.9 * b - 0.45))
      const edge = Math.max(1e-3, half * (0.05 + 1.5 * soft))
      const e = Math.min(1, Math.max(0, (half + 0.5 * edge - Math.abs(s - middle)) / edge))
      dark *= 1 - e * e * (3 - 2 * e) * (1 - 0.6 * uneven * c)
    }
    sum += (1 - dark) / <f64>STEPS
    store<f64>(beams + ((<usize>(i + 1)) << 3), sum)
  }
}

function beamsTo(place: f64): f64 {
  const at = Math.min(1, Math.max(0, place)) * <f64>STEPS
  const i = min(STEPS - 1, <i32>at)
  const a = load<f64>(beams + ((<usize>i) << 3))
  return a + (load<f64>(beams + ((<usize>(i + 1)) << 3)) - a) * (at - <f64>i)
}

/** Smooth noise 0-1 in two octaves; over the loop it goes over into other noise and back. */
function slowNoise(x: f64, y: f64, seed: i32, phase: f64): f64 {
  const there = 0.5 - 0.5 * NativeMath.cos(TURN * phase)
  let value = 0.65 * valueNoise(x, y, seed) + 0.35 * valueNoise(2.1 * x + 7, 2.1 * y, seed + 11)
  if (there > 0) value += there * (0.65 * valueNoise(x, y, seed + 31) + 0.35 * valueNoise(2.1 * x + 7, 2.1 * y, seed + 43) - value)
  return value
}

function valueNoise(x: f64, y: f64, seed: i32): f64 {
  const wholeX = Math.floor(x)
  const wholeY = Math.floor(y)
  const ix = <i32>wholeX
  const iy = <i32>wholeY
  let tx = x - wholeX
  let ty = y - wholeY
  tx = tx * tx * (3 - 2 * tx)
  ty = ty * ty * (3 - 2 * ty)
  const a = <f64>unit(hash3(ix, iy, seed))
  const b = <f64>unit(hash3(ix + 1, iy, seed))
  const c = <f64>unit(hash3(ix, iy + 1, seed))
  const d = <f64>unit(hash3(ix + 1, iy + 1, seed))
  const top = a + tx * (b - a)
  return top + ty * (c + tx * (d - c) - top)
}
