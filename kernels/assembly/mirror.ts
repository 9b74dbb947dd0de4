import { hash3, unit } from './hash'

const TURN: f64 = 6.283185307179586

/** Smooth noise -1 to 1 along a line and in a circle of phases: each lattice place swings once or twice a loop. */
// @ts-ignore: decorator
@inline
function swing(i: i32, row: i32, seed: i32, phase: f64): f64 {
  const h = hash3(i, row, seed)
  const start = <f64>unit(h)
  const often: f64 = (h & 1) == 0 ? 1 : 2
  return NativeMath.cos(TURN * (start + often * phase))
}

function ripple(x: f64, y: f64, seed: i32, phase: f64): f64 {
  const wholeX = Math.floor(x)
  const wholeY = Math.floor(y)
  const ix = <i32>wholeX
  const iy = <i32>wholeY
  let tx = x - wholeX
  let ty = y - wholeY
  tx = tx * tx * (3 - 2 * tx)
  ty = ty * ty * (3 - 2 * ty)
  const top = swing(ix, iy, seed, phase) * (1 - tx) + swing(ix + 1, iy, seed, phase) * tx
  const bottom = swing(ix, iy + 1, seed, phase) * (1 - tx) + swing(ix + 1, iy + 1, seed, phase) * tx
  return top + ty * (bottom - top)
}

/**
 * Mirrors a plane about a line through (px, py), photo px, whose direction down is (sin, cos): a place `d` below it reads `shrink` d above it. Ripples
 * shift what is read by up to `rippleSize` px, `rippleLength` px long at 1000 px below the line and shorter in proportion towards it. With `fade` the value falls by
 * e^(-d / fade), to the power of `power` (2 for variances). Above the line 0. Read bilinearly; outside the source its border repeats.
 */
export function mirrorPlane(
  source: usize, fromX: i32, fromY: i32, fromWidth: i32, fromHeight: i32, out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64,
  px: f64, py: f64, sin: f64, cos: f64, shrink: f64, rippleSize: f64, rippleLength: f64, seed: i32, phase: f64, fade: f64, power: i32,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (<usize>(y * width + x)) << 2
      const x1 = (<f64>(x0 + x) + 0.5) * pitchX
      const y1 = (<f64>(y0 + y) + 0.5) * pitchY
      const d = (x1 - px) * sin + (y1 - py) * cos
      if (d < 0) {
        store<f32>(out + at, 0)
        continue
      }
      let shiftX: f64 = 0
      let shiftY: f64 = 0
      if (rippleSize > 0) {
        // Waves seen at a grazing angle: as tall as they are near, and flat.
        const near = Math.max(0.03, d / 1000)
        const long = rippleLength * near
        const rows = NativeMath.log(near) * 14
        shiftY = rippleSize * near * ripple(x1 / (long * 6), rows, seed, phase)
        shiftX = 0.35 * rippleSize * near * ripple(x1 / (long * 4), rows * 1.3 + 7, seed + 1, phase)
      }
      const back = d * (1 + shrink) + shiftY
      const u = Math.max(0, Math.min(<f64>(fromWidth - 1), (x1 - back * sin + shiftX) / pitchX - 0.5 - <f64>fromX))
      const v = Math.max(0, Math.min(<f64>(fromHeight - 1), (y1 - back * cos) / pitchY - 0.5 - <f64>fromY))
      const ix = min(<i32>u, max(fromWidth - 2, 0))
      const iy = min(<i32>v, max(fromHeight - 2, 0))
      const tx = <f32>(u - <f64>ix)
      const ty = <f32>(v - <f64>iy)
      const p = source + ((<usize>(iy * fromWidth + ix)) << 2)
      const stepX: usize = fromWidth > 1 ? 4 : 0
      const stepY: usize = fromHeight > 1 ? (<usize>fromWidth) << 2 : 0
      const top = load<f32>(p) + tx * (load<f32>(p + stepX) - load<f32>(p))
      const bottom = load<f32>(p + stepY) + tx * (load<f32>(p + stepY + stepX) - load<f32>(p + stepY))
      let value = top + ty * (bottom - top)
      if (fade > 0 && power > 0) value *= <f32>NativeMath.exp((-d * <f64>power) / fade)
      store<f32>(out + at, value)
    }
  }
}
