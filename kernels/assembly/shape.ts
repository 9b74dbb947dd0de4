import { clamp01, splat, storeSome } from './math'

// Masks with a place: open within a distance, shut beyond it, with a smooth step between.
// Coordinates are photo px; pixel (x, y) of the grid has its centre at ((x + 0.5) pitchX, (y + 0.5) pitchY).

/** 1 up to `middle - half`, 0 from `middle + half` on: 1 - t^2 (3 - 2 t). */
// @ts-ignore: decorator
@inline
function fall(v: v128, middle: f32, half: f32): v128 {
  const t = clamp01(f32x4.mul(f32x4.sub(v, splat(middle - half)), splat(<f32>0.5 / half)))
  return f32x4.sub(splat(1), f32x4.mul(f32x4.mul(t, t), f32x4.sub(splat(3), f32x4.add(t, t))))
}

// @ts-ignore: decorator
@inline
function columns(x: i32): v128 {
  return f32x4.convert_i32x4_s(i32x4.add(i32x4.splat(x), i32x4(0, 1, 2, 3)))
}

// @ts-ignore: decorator
@inline
function centres(columns: v128, pitch: f32): v128 {
  return f32x4.mul(f32x4.add(columns, splat(0.5)), splat(pitch))
}

/**
 * Ellipse about (cx, cy) with radii `rx`, `ry`, turned: `cos`, `sin` of its angle. Its distance is that of the unit circle it is
 * stretched from: 0 at the centre, 1 on the rim. `middle` and `half` say where in that distance it falls.
 */
export function ellipseMask(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  cx: f32, cy: f32, rx: f32, ry: f32, cos: f32, sin: f32, middle: f32, half: f32,
): void {
  for (let y = 0; y < height; y++) {
    const dy = (<f32>(y0 + y) + 0.5) * pitchY - cy
    const row = out + ((<usize>(y * width)) << 2)
    for (let x = 0; x < width; x += 4) {
      const dx = f32x4.sub(centres(columns(x0 + x), pitchX), splat(cx))
      const u = f32x4.mul(f32x4.sub(f32x4.mul(dx, splat(cos)), splat(dy * sin)), splat(<f32>1.0 / rx))
      const v = f32x4.mul(f32x4.add(f32x4.mul(dx, splat(sin)), splat(dy * cos)), splat(<f32>1.0 / ry))
      const q = f32x4.sqrt(f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v)))
      v128.store(row + ((<usize>x) << 2), fall(q, middle, half))
    }
  }
}

/**
 * Open on one side of a straight line, or along a band about it: the distance is (p - (px, py)) · (nx, ny), with `both` its absolute value.
 */
export function lineMask(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  px: f32, py: f32, nx: f32, ny: f32, both: bool, middle: f32, half: f32,
): void {
  for (let y = 0; y < height; y++) {
    const away = ((<f32>(y0 + y) + 0.5) * pitchY - py) * ny
    const row = out + ((<usize>(y * width)) << 2)
    for (let x = 0; x < width; x += 4) {
      let d = f32x4.add(f32x4.mul(f32x4.sub(centres(columns(x0 + x), pitchX), splat(px)), splat(nx)), splat(away))
      if (both) d = f32x4.abs(d)
      v128.store(row + ((<usize>x) << 2), fall(d, middle, half))
    }
  }
}

/**
 * Open away from the edges of a frame of `frameWidth` by `frameHeight` with corners of `radius`: the distance is that from the frame inwards, negated.
 */
export function frameMask(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  centreX: f32, centreY: f32, frameWidth: f32, frameHeight: f32, cos: f32, sin: f32, radius: f32, middle: f32, half: f32,
): void {
  const halfWidth = frameWidth * 0.5
  const halfHeight = frameHeight * 0.5
  for (let y = 0; y < height; y++) {
    const offY = (<f32>(y0 + y) + 0.5) * pitchY - centreY
    const row = out + ((<usize>(y * width)) << 2)
    for (let x = 0; x < width; x += 4) {
      const offX = f32x4.sub(centres(columns(x0 + x), pitchX), splat(centreX))
      // Turned counter-clockwise as it is seen, where y points down.
      const across = f32x4.add(f32x4.mul(offX, splat(cos)), splat(offY * sin))
      const down = f32x4.sub(splat(offY * cos), f32x4.mul(offX, splat(sin)))
      const dx = f32x4.sub(f32x4.abs(across), splat(halfWidth - radius))
      const dy = f32x4.sub(f32x4.abs(down), splat(halfHeight - radius))
      const ox = f32x4.pmax(splat(0), dx)
      const oy = f32x4.pmax(splat(0), dy)
      const outside = f32x4.sqrt(f32x4.add(f32x4.mul(ox, ox), f32x4.mul(oy, oy)))
      const inside = f32x4.pmin(splat(0), f32x4.pmax(dx, dy))
      v128.store(row + ((<usize>x) << 2), fall(f32x4.sub(f32x4.add(outside, inside), splat(radius)), middle, half))
    }
  }
}

/**
 * The lighter of `out` and one segment of a brush stroke: a disc that moves from (ax, ay) to (bx, by), its radius from `ra` to `rb` and
 * its strength from `fa` to `fb`. Full up to `hardness` of the radius, then a smooth fall to the rim.
 */
export function strokeSegment(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32,
  ax: f32, ay: f32, bx: f32, by: f32, ra: f32, rb: f32, fa: f32, fb: f32, hardness: f32,
): void {
  const pixel = sqrt<f32>(pitchX * pitchY)
  const reach = max<f32>(ra, rb) + pixel
  const left = max<i32>(x0, <i32>Math.floor((min<f32>(ax, bx) - reach) / pitchX))
  const right = min<i32>(x0 + width, <i32>Math.ceil((max<f32>(ax, bx) + reach) / pitchX) + 1)
  const top = max<i32>(y0, <i32>Math.floor((min<f32>(ay, by) - reach) / pitchY))
  const bottom = min<i32>(y0 + height, <i32>Math.ceil((max<f32>(ay, by) + reach) / pitchY) + 1)
  // Columns are taken in the same fours whatever the tile, and lanes outside it are not stored.
  const dx = bx - ax
  const dy = by - ay
  const squared = dx * dx + dy * dy
  const inverse: f32 = squared > 1e-6 ? <f32>1.0 / squared : 0
  for (let y = top; y < bottom; y++) {
    const oy = (<f32>y + 0.5) * pitchY - ay
    const row = out + ((<usize>((y - y0) * width)) << 2)
    for (let x = left; x < right; x += 4) {
      const at = row + ((<usize>(x - x0)) << 2)
      const ox = f32x4.sub(centres(columns(x), pitchX), splat(ax))
      const t = clamp01(f32x4.mul(f32x4.add(f32x4.mul(ox, splat(dx)), splat(oy * dy)), splat(inverse)))
      const ex = f32x4.sub(ox, f32x4.mul(t, splat(dx)))
      const ey = f32x4.sub(splat(oy), f32x4.mul(t, splat(dy)))
      const distance = f32x4.sqrt(f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey)))
      const radius = f32x4.pmax(splat(1e-3), f32x4.add(splat(ra), f32x4.mul(t, splat(rb - ra))))
      const strength = f32x4.add(splat(fa), f32x4.mul(t, splat(fb - fa)))
      // The fall is at least a pixel wide; a stroke thinner than a pixel covers only part of it.
      const soft = f32x4.mul(radius, splat(<f32>1.0 - hardness))
      const span = f32x4.pmax(soft, splat(pixel))
      const from = f32x4.sub(f32x4.sub(radius, f32x4.mul(splat(0.5), soft)), f32x4.mul(splat(0.5), span))
      const s = clamp01(f32x4.div(f32x4.sub(distance, from), span))
      const profile = f32x4.sub(splat(1), f32x4.mul(f32x4.mul(s, s), f32x4.sub(splat(3), f32x4.add(s, s))))
      const part = f32x4.pmin(splat(1), f32x4.mul(radius, splat(<f32>2.0 / pixel)))
      const found = f32x4.pmax(v128.load(at), f32x4.mul(f32x4.mul(profile, strength), part))
      if (x + 4 <= x0 + width) v128.store(at, found)
      else storeSome(at, found, x0 + width - x)
    }
  }
}

/** Moves a mask towards `level` where a stroke covers it. */
export function layStroke(mask: usize, stroke: usize, count: i32, level: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const m = v128.load(mask + i)
    v128.store(out + i, f32x4.add(m, f32x4.mul(v128.load(stroke + i), f32x4.sub(splat(level), m))))
  }
}
