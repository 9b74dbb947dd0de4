import { splat, storeSome } from './math'
import { fill } from './memory'

// Turbulence of W3C Filter Effects Module Level 1, section feTurbulence: the gradient noise of its reference code, one of its four channels, four pixels at a time.

const SIZE = 0x100
const MASK = 0xff
const OFFSET: f64 = 4096
const ENTRIES = 2 * SIZE + 2

// Tables of one seed: which gradient a lattice point has, and the gradients, x and y of the four channels.
const lattice = memory.data(ENTRIES * 4)
const gradients = memory.data(ENTRIES * 32, 16)
let tabled = false
let tabledSeed: i32 = 0

const RANDOM_M: i32 = 2147483647
const RANDOM_A: i32 = 16807
const RANDOM_Q: i32 = 127773
const RANDOM_R: i32 = 2836

function nextRandom(seed: i32): i32 {
  const result = RANDOM_A * (seed % RANDOM_Q) - RANDOM_R * (seed / RANDOM_Q)
  return result <= 0 ? result + RANDOM_M : result
}

function startSeed(seed: i32): i32 {
  if (seed <= 0) return -(seed % (RANDOM_M - 1)) + 1
  return seed > RANDOM_M - 1 ? RANDOM_M - 1 : seed
}

function prepare(wanted: i32): void {
  if (tabled && tabledSeed == wanted) return
  tabled = true
  tabledSeed = wanted
  let seed = startSeed(wanted)
  for (let channel = 0; channel < 4; channel++) {
    for (let i = 0; i < SIZE; i++) {
      store<i32>(lattice + ((<usize>i) << 2), i)
      seed = nextRandom(seed)
      const x = <f64>((seed % (SIZE + SIZE)) - SIZE) / <f64>SIZE
      seed = nextRandom(seed)
      const y = <f64>((seed % (SIZE + SIZE)) - SIZE) / <f64>SIZE
      // Both may be 0, which the reference code divides by itself: such a point has no gradient, as in Chromium.
      const length = Math.max(Math.sqrt(x * x + y * y), 1 / <f64>SIZE)
      const at = gradients + ((<usize>i) << 5) + ((<usize>channel) << 2)
      store<f32>(at, <f32>(x / length))
      store<f32>(at + 16, <f32>(y / length))
    }
  }
  for (let i = SIZE - 1; i > 0; i--) {
    const at = lattice + ((<usize>i) << 2)
    const own = load<i32>(at)
    seed = nextRandom(seed)
    const other = lattice + ((<usize>(seed % SIZE)) << 2)
    store<i32>(at, load<i32>(other))
    store<i32>(other, own)
  }
  for (let i = 0; i < SIZE + 2; i++) {
    store<i32>(lattice + ((<usize>(SIZE + i)) << 2), load<i32>(lattice + ((<usize>i) << 2)))
    memory.copy(gradients + ((<usize>(SIZE + i)) << 5), gradients + ((<usize>i) << 5), 32)
  }
}

// @ts-ignore: decorator
@inline
function latticeAt(index: i32): i32 {
  return load<i32>(lattice + ((<usize>index) << 2))
}

// @ts-ignore: decorator
@inline
function curve(t: v128): v128 {
  return f32x4.mul(f32x4.mul(t, t), f32x4.sub(splat(3), f32x4.mul(splat(2), t)))
}

// @ts-ignore: decorator
@inline
function blend(a: v128, b: v128, t: v128): v128 {
  return f32x4.add(a, f32x4.mul(t, f32x4.sub(b, a)))
}

// @ts-ignore: decorator
@inline
function dot(gx: v128, gy: v128, x: v128, y: v128): v128 {
  return f32x4.add(f32x4.mul(x, gx), f32x4.mul(y, gy))
}

/** The gradient of a lattice point, where all four pixels lie in the same cell. */
// @ts-ignore: decorator
@inline
function gradientAt(table: usize, index: i32, x: v128, y: v128): v128 {
  const at = table + ((<usize>index) << 5)
  return dot(v128.load32_splat(at), v128.load32_splat(at, 16), x, y)
}

// Gradients of the four corners of each pixel's cell, where the cells differ: x of four pixels, then y, corner by corner.
const corners = memory.data(8 * 16, 16)

// @ts-ignore: decorator
@inline
function takeCorner(table: usize, corner: usize, lane: usize, index: i32): void {
  const at = table + ((<usize>index) << 5)
  const to = corners + (corner << 5) + (lane << 2)
  store<f32>(to, load<f32>(at))
  store<f32>(to + 16, load<f32>(at + 16))
}

// @ts-ignore: decorator
@inline
function corner(which: usize, x: v128, y: v128): v128 {
  const at = corners + (which << 5)
  return dot(v128.load(at), v128.load(at, 16), x, y)
}

// What of an octave is the same for all pixels of a row.
const MOST_OCTAVES = 32
// @ts-ignore: decorator
@unmanaged
class Octave {
  /** Its frequency as a multiple of the first. */
  scale: f64
  /** Rows of lattice points above and below, and how far between them. */
  by0: i32
  by1: i32
  ry: f32
  /** How much of it is shown, by how much it counts; and what stands for the rest. */
  weight: f32
  mean: f32
  /** Where the tiles are stitched: width and height of a tile in lattice units, and where it wraps. */
  stitchWidth: i32
  wrapX: i32
  stitchHeight: i32
  wrapY: i32
}
const octaveSize = offsetof<Octave>()
const octaveRows = memory.data(MOST_OCTAVES * 56, 8)

// @ts-ignore: decorator
@inline
function octaveAt(index: i32): Octave {
  return changetype<Octave>(octaveRows + <usize>index * octaveSize)
}

/** Noise of one octave at four pixels of a row. @param table gradients of the channel; `ax`, `bx` are the places of two pixels each, in lattice units */
// @ts-ignore: decorator
@inline
function noise(table: usize, octave: Octave, ax: v128, bx: v128, stitched: bool): v128 {
  const wholeA = f64x2.floor(ax)
  const wholeB = f64x2.floor(bx)
  const rx0 = v128.shuffle<f32>(f32x4.demote_f64x2_zero(f64x2.sub(ax, wholeA)), f32x4.demote_f64x2_zero(f64x2.sub(bx, wholeB)), 0, 1, 4, 5)
  let x0 = v128.shuffle<i32>(i32x4.trunc_sat_f64x2_s_zero(wholeA), i32x4.trunc_sat_f64x2_s_zero(wholeB), 0, 1, 4, 5)
  let x1 = i32x4.add(x0, i32x4.splat(1))
  if (stitched) {
    const wrap = i32x4.splat(octave.wrapX)
    const width = i32x4.splat(octave.stitchWidth)
    x0 = i32x4.sub(x0, v128.and(width, i32x4.ge_s(x0, wrap)))
    x1 = i32x4.sub(x1, v128.and(width, i32x4.ge_s(x1, wrap)))
  }
  x0 = v128.and(x0, i32x4.splat(MASK))
  x1 = v128.and(x1, i32x4.splat(MASK))
  const rx1 = f32x4.sub(rx0, splat(1))
  const ry0 = splat(octave.ry)
  const ry1 = f32x4.sub(ry0, splat(1))
  const sx = curve(rx0)
  const sy = curve(ry0)
  const first = i32x4.extract_lane(x0, 0)
  if (i32x4.all_true(i32x4.eq(x0, i32x4.splat(first)))) {
    const i = latticeAt(first)
    const j = latticeAt(i32x4.extract_lane(x1, 0))
    const a = blend(gradientAt(table, latticeAt(i + octave.by0), rx0, ry0), gradientAt(table, latticeAt(j + octave.by0), rx1, ry0), sx)
    const b = blend(gradientAt(table, latticeAt(i + octave.by1), rx0, ry1), gradientAt(table, latticeAt(j + octave.by1), rx1, ry1), sx)
    return blend(a, b, sy)
  }
  takeCorners(table, octave, 0, first, i32x4.extract_lane(x1, 0))
  takeCorners(table, octave, 1, i32x4.extract_lane(x0, 1), i32x4.extract_lane(x1, 1))
  takeCorners(table, octave, 2, i32x4.extract_lane(x0, 2), i32x4.extract_lane(x1, 2))
  takeCorners(table, octave, 3, i32x4.extract_lane(x0, 3), i32x4.extract_lane(x1, 3))
  return blend(blend(corner(0, rx0, ry0), corner(1, rx1, ry0), sx), blend(corner(2, rx0, ry1), corner(3, rx1, ry1), sx), sy)
}

// @ts-ignore: decorator
@inline
function takeCorners(table: usize, octave: Octave, lane: usize, left: i32, right: i32): void {
  const i = latticeAt(left)
  const j = latticeAt(right)
  takeCorner(table, 0, lane, latticeAt(i + octave.by0))
  takeCorner(table, 1, lane, latticeAt(j + octave.by0))
  takeCorner(table, 2, lane, latticeAt(i + octave.by1))
  takeCorner(table, 3, lane, latticeAt(j + octave.by1))
}

/** A frequency whose waves fit whole into a tile: of the two nearest the one that is nearer as a ratio. */
function fitted(frequency: f64, side: f64): f64 {
  if (frequency == 0) return 0
  const low = Math.floor(side * frequency) / side
  const high = Math.ceil(side * frequency) / side
  return frequency / low < high / frequency ? low : high
}

/** Mean of the absolute noise of one octave: what an octave too fine to be shown is worth on the average. */
const MEAN_ABSOLUTE: f32 = 0.171

/** Fills in what of an octave is the same all over: its weight, and where its tiles are stitched. */
function prepareOctaves(
  octaves: i32, billowed: bool, stitch: bool, waveX: f64, waveY: f64, pitchX: f64, pitchY: f64, tileX: f64, tileY: f64, tileWidth: f64, tileHeight: f64,
): void {
  let ratio: f32 = 1
  let scale: f64 = 1
  let units = Math.max(waveX * (pitchX - 1), waveY * (pitchY - 1))
  let stitchWidth = <i32>(tileWidth * waveX + 0.5)
  let wrapX = <i32>(tileX * waveX + OFFSET + <f64>stitchWidth)
  let stitchHeight = <i32>(tileHeight * waveY + 0.5)
  let wrapY = <i32>(tileY * waveY + OFFSET + <f64>stitchHeight)
  for (let k = 0; k < octaves; k++) {
    const octave = octaveAt(k)
    // Fewer than two pixels a unit cannot be shown; from four on all of it is.
    const t: f32 = units <= 0 ? <f32>1 : <f32>Math.min(1, Math.max(0, (1.0 / units - 2) * 0.5))
    const shown: f32 = t * t * (3 - 2 * t)
    octave.scale = scale
    octave.weight = shown * ratio
    octave.mean = billowed && shown < 1 ? (1 - shown) * ratio * MEAN_ABSOLUTE : 0
    octave.stitchWidth = stitchWidth
    octave.wrapX = wrapX
    octave.stitchHeight = stitchHeight
    octave.wrapY = wrapY
    scale *= 2
    ratio *= 0.5
    units *= 2
    if (!stitch) continue
    stitchWidth *= 2
    wrapX = 2 * wrapX - <i32>OFFSET
    stitchHeight *= 2
    wrapY = 2 * wrapY - <i32>OFFSET
  }
}

/** Fills in where a row lies in an octave. */
function placeRow(octave: Octave, y: f64, stitched: bool): void {
  const whole = Math.floor(y)
  let by0 = <i32>whole
  let by1 = by0 + 1
  if (stitched) {
    if (by0 >= octave.wrapY) by0 -= octave.stitchHeight
    if (by1 >= octave.wrapY) by1 -= octave.stitchHeight
  }
  octave.by0 = by0 & MASK
  octave.by1 = by1 & MASK
  octave.ry = <f32>(y - whole)
}

/**
 * Turbulence of W3C Filter Effects at the pixels of a grid: one of its four outputs (0 red, 1 green, 2 blue, 3 alpha), 0-1, clamped. Pixel (x, y) stands for the point
 * ((x0 + x + 0.5) pitchX - 0.5, …) of the reference, so that a pixel of the full size is read where the reference reads it. `billowed` is type turbulence, otherwise
 * fractalNoise; `stitch` makes a tile of `tileWidth` by `tileHeight` from (`tileX`, `tileY`) repeat without a seam. An octave finer than a reduced grid gives way to its
 * mean. It is moved by (moveX, moveY) photo px; what is stitched has to stay. At most 32 octaves. With a `frequencyX` of 0 it is the same all
 * along a row.
 */
export function turbulence(
  channel: i32, out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64, frequencyX: f64, frequencyY: f64,
  octaves: i32, seed: i32, billowed: bool, stitch: bool, tileX: f64, tileY: f64, tileWidth: f64, tileHeight: f64,
  moveX: f64, moveY: f64,
): void {
  prepare(seed)
  const count = min(octaves, MOST_OCTAVES)
  const waveX = stitch ? fitted(frequencyX, tileWidth) : frequencyX
  const waveY = stitch ? fitted(frequencyY, tileHeight) : frequencyY
  prepareOctaves(count, billowed, stitch, waveX, waveY, pitchX, pitchY, tileX, tileY, tileWidth, tileHeight)
  const table = gradients + ((<usize>channel) << 2)
  const offset = f64x2.splat(OFFSET)
  for (let y = 0; y < height; y++) {
    const py = ((<f64>(y0 + y) + 0.5) * pitchY - 0.5 - moveY) * waveY
    for (let k = 0; k < count; k++) placeRow(octaveAt(k), py * octaveAt(k).scale + OFFSET, stitch)
    for (let x = 0; x < width; x += 4) {
      const a = placesOf(x0 + x, pitchX, moveX, waveX)
      const b = placesOf(x0 + x + 2, pitchX, moveX, waveX)
      let sum = splat(0)
      for (let k = 0; k < count; k++) {
        const octave = octaveAt(k)
        if (octave.weight > 0) {
          const scale = f64x2.splat(octave.scale)
          const n = noise(table, octave, f64x2.add(f64x2.mul(a, scale), offset), f64x2.add(f64x2.mul(b, scale), offset), stitch)
          sum = f32x4.add(sum, f32x4.mul(billowed ? f32x4.abs(n) : n, splat(octave.weight)))
        }
        if (octave.mean > 0) sum = f32x4.add(sum, splat(octave.mean))
      }
      const value = billowed ? sum : f32x4.mul(f32x4.add(sum, splat(1)), splat(0.5))
      const clamped = f32x4.pmin(splat(1), f32x4.pmax(splat(0), value))
      if (waveX == 0) {
        fill(out + ((<usize>(y * width)) << 2), width, f32x4.extract_lane(clamped, 0))
        break
      }
      const at = out + ((<usize>(y * width + x)) << 2)
      if (x + 4 <= width) v128.store(at, clamped)
      else storeSome(at, clamped, width - x)
    }
  }
}

/** Where two pixels of a row lie, in lattice units of the first octave. */
// @ts-ignore: decorator
@inline
function placesOf(x: i32, pitch: f64, move: f64, wave: f64): v128 {
  const middle = f64x2.add(f64x2.replace_lane(f64x2.splat(<f64>x), 1, <f64>(x + 1)), f64x2.splat(0.5))
  return f64x2.mul(f64x2.sub(f64x2.mul(middle, f64x2.splat(pitch)), f64x2.splat(0.5 + move)), f64x2.splat(wave))
}
