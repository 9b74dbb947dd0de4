import { distanceBetween } from './air'
import { loopHash, nextHash, poissonCount, unit } from './hash'

// Discs: points of a Poisson process, each seen out of focus and perhaps smeared along a line while the shutter was open.

/** A disc thinner than this, grid px, is drawn this thick and as much fainter, so that it keeps its light. */
const THINNEST: f64 = 0.8
const TURN: f64 = 6.283185307179586

/**
 * Adds discs to `mean`, and, where `spread` is not 0, the variance inside each pixel to `spread`. Lengths in photo px; pixel (x, y) of the grid
 * lies at ((gridX + x + 0.5) pitchX, …). `spacing`: side of the square that holds one point on average; `radius`, varied by the part `radiusVariation` either
 * way, towards the small; `softness` 0-1: part of the radius over which the rim falls; `rim` 0-1: how much brighter the rim is than the middle; `length`
 * and `angle` (radians) of the smear; `brightness`, varied downwards. The loop and `distance` are those of `drawStreaks`; besides, each disc goes
 * round a circle of about `sway` px, once a loop.
 */
export function drawDiscs(
  mean: usize, spread: usize, width: i32, height: i32, gridX: i32, gridY: i32, pitchX: f64, pitchY: f64,
  seed: i32, spacing: f64, radius: f64, radiusVariation: f64, softness: f64, rim: f64, length: f64, angle: f64,
  brightness: f64, brightnessVariation: f64, shiftX: f64, shiftY: f64,
  loopRows: i32, loopShift: i32, phase: f64, sway: f64, distance: usize, near: f64, far: f64,
): void {
  const movedX = shiftX + phase * <f64>loopShift * spacing
  const movedY = shiftY + phase * <f64>loopRows * spacing
  const pitch = Math.sqrt(pitchX * pitchY)
  const dirX = NativeMath.cos(angle)
  const dirY = -NativeMath.sin(angle)
  const largest = radius * (1 + radiusVariation)
  const reach = Math.max(largest, THINNEST * pitch) + 0.7 * length + 2 * pitch + 2 * sway
  const firstX = <i32>Math.floor((<f64>gridX * pitchX - movedX - reach) / spacing)
  const lastX = <i32>Math.floor((<f64>(gridX + width) * pitchX - movedX + reach) / spacing)
  const firstY = <i32>Math.floor((<f64>gridY * pitchY - movedY - reach) / spacing)
  const lastY = <i32>Math.floor((<f64>(gridY + height) * pitchY - movedY + reach) / spacing)
  for (let cellY = firstY; cellY <= lastY; cellY++) {
    for (let cellX = firstX; cellX <= lastX; cellX++) {
      let h = loopHash(cellX, cellY, loopRows, loopShift, seed)
      const count = poissonCount(unit(h))
      for (let k = 0; k < count; k++) {
        h = nextHash(h)
        let x = (<f64>cellX + <f64>unit(h)) * spacing + movedX
        h = nextHash(h)
        let y = (<f64>cellY + <f64>unit(h)) * spacing + movedY
        h = nextHash(h)
        const u = <f64>unit(h)
        const own = radius * (1 + radiusVariation * (2 * u * u - 1))
        h = nextHash(h)
        const v = <f64>unit(h)
        // The larger a disc, the more thinly its light is spread.
        const even = (radius / own) * (radius / own)
        const peak = brightness * Math.min(1.6, even) * (1 - brightnessVariation * (1 - v * v))
        h = nextHash(h)
        const ownLength = length * (0.6 + 0.8 * <f64>unit(h))
        h = nextHash(h)
        const away = distance != 0 ? distanceBetween(near, far, unit(h)) : 0
        if (sway > 0) {
          h = nextHash(h)
          const start = TURN * <f64>unit(h)
          const round = sway * (0.4 + 0.6 * <f64>unit(nextHash(h)))
          x += round * (NativeMath.cos(start + TURN * phase) - NativeMath.cos(start))
          y += round * (NativeMath.sin(start + TURN * phase) - NativeMath.sin(start))
        }
        drawDisc(mean, spread, width, height, gridX, gridY, pitchX, pitchY, x, y, own, softness, rim, ownLength, dirX, dirY, peak, distance, away)
      }
    }
  }
}

/** Integral of a disc whose rim falls by 1 - t² (3 - 2 t) over `span` about the radius `middle`, moved along `length`. */
function sweptArea(middle: f64, span: f64, length: f64): f64 {
  // The place of the rim has the density 6 t (1 - t), whose variance is 1/20.
  return 3.14159265358979 * (middle * middle + (span * span) / 20) + 2 * middle * length
}

function drawDisc(
  mean: usize, spread: usize, width: i32, height: i32, gridX: i32, gridY: i32, pitchX: f64, pitchY: f64,
  x: f64, y: f64, radius: f64, softness: f64, rim: f64, length: f64, dirX: f64, dirY: f64, brightness: f64, hiding: usize, away: f32,
): void {
  const pitch = Math.sqrt(pitchX * pitchY)
  const drawn = Math.max(radius, THINNEST * pitch)
  const halfX = 0.5 * length * dirX
  const halfY = 0.5 * length * dirY
  const span = Math.max(softness * drawn, pitch)
  const from = drawn - 0.5 * softness * drawn - 0.5 * span
  const reach = from + span
  // Its light stays the same when it is drawn thicker or with a wider rim, and is spread along the way when it moves.
  const still = sweptArea(radius - 0.5 * softness * radius, softness * radius, 0)
  const peak = (brightness * still) / sweptArea(from + 0.5 * span, span, length)
  // What it is as bright as where it covers all, at the size of the photo; and how much of the fall at its rim lies inside a pixel.
  const fullRadius = Math.max(radius, THINNEST)
  const fullSpan = Math.max(softness * fullRadius, 1)
  const bright = (brightness * still) / sweptArea(fullRadius - 0.5 * softness * fullRadius, fullSpan, length)
  const within = pitch / span
  const row0 = max(0, <i32>Math.floor((y - Math.abs(halfY) - reach) / pitchY) - gridY)
  const row1 = min(height - 1, <i32>Math.ceil((y + Math.abs(halfY) + reach) / pitchY) - gridY)
  const column0 = max(0, <i32>Math.floor((x - Math.abs(halfX) - reach) / pitchX) - gridX)
  const column1 = min(width - 1, <i32>Math.ceil((x + Math.abs(halfX) + reach) / pitchX) - gridX)
  const squared = length * length
  for (let row = row0; row <= row1; row++) {
    const dy = (<f64>(row + gridY) + 0.5) * pitchY - y
    for (let column = column0; column <= column1; column++) {
      const dx = (<f64>(column + gridX) + 0.5) * pitchX - x
      const t = squared > 0 ? Math.min(0.5, Math.max(-0.5, (dx * dirX + dy * dirY) / length)) : 0
      const ex = dx - t * length * dirX
      const ey = dy - t * length * dirY
      const distance = Math.sqrt(ex * ex + ey * ey)
      const at = (<usize>(row * width + column)) << 2
      if (distance >= reach || (hiding != 0 && load<f32>(hiding + at) <= away)) continue
      const s = Math.min(1, Math.max(0, (distance - from) / span))
      const q = distance / drawn
      const cover = 1 - s * s * (3 - 2 * s)
      const m = <f32>(peak * cover * (1 - rim * (1 - q * q)))
      store<f32>(mean + at, load<f32>(mean + at) + m)
      // At the rim, and all over where it is smaller than a pixel, a pixel holds the disc beside nothing.
      if (spread != 0) store<f32>(spread + at, load<f32>(spread + at) + m * <f32>(Math.max(0, bright * (1 - rim * (1 - q * q)) - <f64>m) * within))
    }
  }
}
