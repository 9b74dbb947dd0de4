// Drops of water on a lens. A table holds for each drop, as numbers of 64 bits: its middle and its radius in photo px, how many times as high as wide it is above the middle,
// what makes it uneven (oval, leaning, cornered), against the radius how near to the middle it surely covers all and how far out nothing of it is, and the part of the rectangle
// that it may cover (left, top, right, bottom, in pixels of the grid).

const DROP_BYTES: usize = 13 << 3

// A place in a drop: across and down as parts of its radius, and how far out it is, 1 at the outline.
let across: f64 = 0
let down: f64 = 0
let out: f64 = 0

/**
 * Whether anything of a drop is at a place so far to the right of its middle and below it; says where in it that is. Divisions take longer than all the rest: there are two, where
 * the place is not surely in it.
 * @param perRadius 1 / radius; `perHeight` likewise for what lies above the middle
 */
// @ts-ignore: decorator
@inline
function isIn(drop: usize, perRadius: f64, perHeight: f64, right: f64, below: f64, nearest: f64, farthest: f64): bool {
  across = right * perRadius
  down = below * (below < 0 ? perHeight : perRadius)
  // What has run is narrow where it came from.
  if (down < 0 && load<f64>(drop, 24) > 1.5) across /= max<f64>(0.6, 1 + 0.35 * down)
  const square = across * across + down * down
  if (square > farthest * farthest * 1.0001) return false
  out = 0
  if (square < nearest * nearest || square < 1e-12) return true
  const distance = sqrt(square)
  const per = 1 / distance
  const oval = load<f64>(drop, 32) * (across * across - down * down) + load<f64>(drop, 40) * 2 * across * down
  const cornered = load<f64>(drop, 48) * across * (across * across - 3 * down * down)
  out = distance / max<f64>(0.3, 1 + (oval + cornered * per) * per * per)
  return true
}

// @ts-ignore: decorator
@inline
function smooth(t: f64): f64 {
  const within = max<f64>(0, min<f64>(1, t))
  return within * within * (3 - 2 * within)
}

/** How far a drop covers the place that was found: 1 inside, 0 outside, over twice the softness across its outline. */
// @ts-ignore: decorator
@inline
function covered(radius: f64, perSoft: f64): f64 {
  return smooth(0.5 * ((1 - out) * radius * perSoft + 1))
}

/**
 * Adds drops to a field, 1 in them.
 * @param field of `width` floats a row; its first pixel lies at (left, top) of the grid
 * @param soft half the width of outlines, photo px
 * @param sin of the turn of the frame that they stand upright in; `cos` likewise
 */
export function coverByDrops(
  drops: usize, count: i32, field: usize, left: i32, top: i32, width: i32, pitchX: f64, pitchY: f64, sin: f64, cos: f64, soft: f64,
): void {
  const perSoft = 1 / soft
  for (let drop = drops, end = drops + <usize>count * DROP_BYTES; drop < end; drop += DROP_BYTES) {
    const radius = load<f64>(drop, 16)
    const perRadius = 1 / radius
    const perHeight = 1 / (radius * load<f64>(drop, 24))
    const nearest = load<f64>(drop, 56)
    const farthest = load<f64>(drop, 64)
    const right = <i32>load<f64>(drop, 88)
    const bottom = <i32>load<f64>(drop, 96)
    for (let row = <i32>load<f64>(drop, 80); row < bottom; row++) {
      const dy = (<f64>row + 0.5) * pitchY - load<f64>(drop, 8)
      for (let column = <i32>load<f64>(drop, 72); column < right; column++) {
        const dx = (<f64>column + 0.5) * pitchX - load<f64>(drop)
        if (!isIn(drop, perRadius, perHeight, dx * cos + dy * sin, dy * cos - dx * sin, nearest, farthest)) continue
        const at = field + ((<usize>((row - top) * width + column - left)) << 2)
        const before = <f64>load<f32>(at)
        store<f32>(at, <f32>(before + (1 - before) * covered(radius, perSoft)))
      }
    }
  }
}

/**
 * Lays what drops show of a picture over it. The first in the table lie above the others.
 * @param field as in `coverByDrops`; 0 at first
 * @param red of what is laid over, as large as `field`; `green` and `blue` likewise
 * @param fromRed of what they show: `fromWidth` by `fromHeight` floats from (fromLeft, fromTop) of the grid on; beyond the borders of the grid it is seen in a mirror
 * @param view radii to what is seen at the outline
 * @param rim 0-1: how dark it gets there
 * @param glint 0-1: how bright the reflection of the light is
 */
export function refractByDrops(
  drops: usize, count: i32, field: usize, left: i32, top: i32, width: i32, pitchX: f64, pitchY: f64, sin: f64, cos: f64, soft: f64,
  red: usize, green: usize, blue: usize,
  fromRed: usize, fromGreen: usize, fromBlue: usize, fromLeft: i32, fromTop: i32, fromWidth: i32, fromHeight: i32, gridWidth: i32, gridHeight: i32,
  view: f64, rim: f64, glint: f64,
): void {
  const perSoft = 1 / soft
  const perX = 1 / pitchX
  const perY = 1 / pitchY
  for (let drop = drops, end = drops + <usize>count * DROP_BYTES; drop < end; drop += DROP_BYTES) {
    const middleX = load<f64>(drop)
    const middleY = load<f64>(drop, 8)
    const radius = load<f64>(drop, 16)
    const perRadius = 1 / radius
    const perHeight = 1 / (radius * load<f64>(drop, 24))
    const farthest = load<f64>(drop, 64)
    const right = <i32>load<f64>(drop, 88)
    const bottom = <i32>load<f64>(drop, 96)
    for (let row = <i32>load<f64>(drop, 80); row < bottom; row++) {
      const dy = (<f64>row + 0.5) * pitchY - middleY
      for (let column = <i32>load<f64>(drop, 72); column < right; column++) {
        const dx = (<f64>column + 0.5) * pitchX - middleX
        if (!isIn(drop, perRadius, perHeight, dx * cos + dy * sin, dy * cos - dx * sin, 0, farthest)) continue
        const offset = (<usize>((row - top) * width + column - left)) << 2
        const before = <f64>load<f32>(field + offset)
        const part = (1 - before) * covered(radius, perSoft)
        if (part <= 0) continue
        store<f32>(field + offset, <f32>(before + part))
        const weight = before > 0 ? part / (before + part) : 1
        const bend = (-view * radius * (0.4 + 0.6 * min(1.2, out * out))) / max<f64>(1, out)
        const seenRight = bend * across
        const seenBelow = bend * down
        const x = mirrored((middleX + seenRight * cos - seenBelow * sin) * perX - 0.5, gridWidth) - <f64>fromLeft
        const y = mirrored((middleY + seenRight * sin + seenBelow * cos) * perY - 0.5, gridHeight) - <f64>fromTop
        const dark = 1 - rim * smooth((out - 0.5) * (1 / 0.55)) * (0.65 - 0.35 * max<f64>(-1, down))
        const light = glint > 0 ? glint * shine() : 0
        const i = <i32>floor(x)
        const j = <i32>floor(y)
        const first = <usize>max(0, min(fromWidth - 1, i))
        const next = <usize>max(0, min(fromWidth - 1, i + 1))
        const upper = <usize>(max(0, min(fromHeight - 1, j)) * fromWidth)
        const lower = <usize>(max(0, min(fromHeight - 1, j + 1)) * fromWidth)
        upperLeft = (upper + first) << 2
        upperRight = (upper + next) << 2
        lowerLeft = (lower + first) << 2
        lowerRight = (lower + next) << 2
        toRight = x - <f64>i
        toBelow = y - <f64>j
        lay(red + offset, weight, dark * sample(fromRed), light)
        lay(green + offset, weight, dark * sample(fromGreen), light)
        lay(blue + offset, weight, dark * sample(fromBlue), light)
      }
    }
  }
}

// Four pixels about a place, as offsets in a plane, and how near the place is to the right and the lower ones, 0-1.
let upperLeft: usize = 0
let upperRight: usize = 0
let lowerLeft: usize = 0
let lowerRight: usize = 0
let toRight: f64 = 0
let toBelow: f64 = 0

/** What lies between the four pixels, in straight lines. */
// @ts-ignore: decorator
@inline
function sample(plane: usize): f64 {
  return (
    (<f64>load<f32>(plane + upperLeft) * (1 - toRight) + <f64>load<f32>(plane + upperRight) * toRight) * (1 - toBelow) +
    (<f64>load<f32>(plane + lowerLeft) * (1 - toRight) + <f64>load<f32>(plane + lowerRight) * toRight) * toBelow
  )
}

/** Lays a tone over another; light is added to it, the less the brighter it is. */
// @ts-ignore: decorator
@inline
function lay(at: usize, weight: f64, tone: f64, light: f64): void {
  store<f32>(at, <f32>(<f64>load<f32>(at) * (1 - weight) + weight * (tone + light * max<f64>(0, 1 - tone))))
}

/** The light as it is seen at the place that was found: a spot above on the left, and a crescent below. */
function shine(): f64 {
  const off = ((across + 0.36) * (across + 0.36) + (down + 0.46) * (down + 0.46)) * (1 / 0.035)
  const spot = off < 1 ? (1 - off) * (1 - off) : 0
  const crescent = down > 0 ? smooth((out - 0.62) * 5) * smooth((1.02 - out) * (1 / 0.12)) * down * down : 0
  return spot + 0.35 * crescent
}

function mirrored(at: f64, length: i32): f64 {
  const last = <f64>max(1, length - 1)
  if (at >= 0 && at <= <f64>(length - 1)) return at
  const turn = 2 * last
  const folded = abs(at) - floor(abs(at) / turn) * turn
  return min(<f64>(length - 1), folded > last ? turn - folded : folded)
}
