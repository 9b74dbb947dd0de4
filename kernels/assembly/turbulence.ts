// Turbulence of W3C Filter Effects Module Level 1, section feTurbulence: the gradient noise of its reference code, four channels at a time, a lane each.

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
      const length = Math.sqrt(x * x + y * y)
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
function curve(t: f32): f32 {
  return t * t * (3 - 2 * t)
}

// @ts-ignore: decorator
@inline
function gradientAt(index: i32, x: f32, y: f32): v128 {
  const at = gradients + ((<usize>index) << 5)
  return f32x4.add(f32x4.mul(f32x4.splat(x), v128.load(at)), f32x4.mul(f32x4.splat(y), v128.load(at, 16)))
}

// @ts-ignore: decorator
@inline
function latticeAt(index: i32): i32 {
  return load<i32>(lattice + ((<usize>index) << 2))
}

// Where the tiles are stitched: width and height of a tile in lattice units, and where it wraps.
let stitchWidth = 0
let stitchHeight = 0
let wrapX = 0
let wrapY = 0

function noise(px: f64, py: f64, stitched: bool): v128 {
  const x = px + OFFSET
  const y = py + OFFSET
  const wholeX = Math.floor(x)
  const wholeY = Math.floor(y)
  let bx0 = <i32>wholeX
  let by0 = <i32>wholeY
  let bx1 = bx0 + 1
  let by1 = by0 + 1
  const rx0 = <f32>(x - wholeX)
  const ry0 = <f32>(y - wholeY)
  if (stitched) {
    if (bx0 >= wrapX) bx0 -= stitchWidth
    if (bx1 >= wrapX) bx1 -= stitchWidth
    if (by0 >= wrapY) by0 -= stitchHeight
    if (by1 >= wrapY) by1 -= stitchHeight
  }
  bx0 &= MASK
  bx1 &= MASK
  by0 &= MASK
  by1 &= MASK
  const i = latticeAt(bx0)
  const j = latticeAt(bx1)
  const rx1 = rx0 - 1
  const ry1 = ry0 - 1
  const sx = f32x4.splat(curve(rx0))
  const sy = f32x4.splat(curve(ry0))
  const a = blend(gradientAt(latticeAt(i + by0), rx0, ry0), gradientAt(latticeAt(j + by0), rx1, ry0), sx)
  const b = blend(gradientAt(latticeAt(i + by1), rx0, ry1), gradientAt(latticeAt(j + by1), rx1, ry1), sx)
  return blend(a, b, sy)
}

// @ts-ignore: decorator
@inline
function blend(a: v128, b: v128, t: v128): v128 {
  return f32x4.add(a, f32x4.mul(t, f32x4.sub(b, a)))
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

/**
 * Turbulence of W3C Filter Effects at the pixels of a grid. Pixel (x, y) stands for the point ((x0 + x + 0.5) pitchX - 0.5, …) of the reference, so
 * that a pixel of the full size is read where the reference reads it. `billowed` is type turbulence, otherwise fractalNoise; `stitch` makes a tile of
 * `tileWidth` by `tileHeight` from (`tileX`, `tileY`) repeat without a seam. An octave finer than a reduced grid gives way to its mean. Any
 * of the four outputs (red, green, blue, alpha; 0-1, clamped) may be 0.
 */
export function turbulence(
  red: usize, green: usize, blue: usize, alpha: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64,
  frequencyX: f64, frequencyY: f64, octaves: i32, seed: i32, billowed: bool, stitch: bool, tileX: f64, tileY: f64, tileWidth: f64, tileHeight: f64,
): void {
  prepare(seed)
  const waveX = stitch ? fitted(frequencyX, tileWidth) : frequencyX
  const waveY = stitch ? fitted(frequencyY, tileHeight) : frequencyY
  const zero = f32x4.splat(0)
  const one = f32x4.splat(1)
  for (let y = 0; y < height; y++) {
    const py = (<f64>(y0 + y) + 0.5) * pitchY - 0.5
    for (let x = 0; x < width; x++) {
      const px = (<f64>(x0 + x) + 0.5) * pitchX - 0.5
      let vx = px * waveX
      let vy = py * waveY
      let ratio: f32 = 1
      let units = Math.max(waveX * (pitchX - 1), waveY * (pitchY - 1))
      if (stitch) {
        stitchWidth = <i32>(tileWidth * waveX + 0.5)
        wrapX = <i32>(tileX * waveX + OFFSET + <f64>stitchWidth)
        stitchHeight = <i32>(tileHeight * waveY + 0.5)
        wrapY = <i32>(tileY * waveY + OFFSET + <f64>stitchHeight)
      }
      let sum = zero
      for (let octave = 0; octave < octaves; octave++) {
        // Fewer than two pixels a unit cannot be shown; from four on all of it is.
        const t: f32 = units <= 0 ? <f32>1 : <f32>Math.min(1, Math.max(0, (1.0 / units - 2) * 0.5))
        const shown: f32 = t * t * (3 - 2 * t)
        if (shown > 0) {
          const n = noise(vx, vy, stitch)
          const own = billowed ? f32x4.abs(n) : n
          sum = f32x4.add(sum, f32x4.mul(own, f32x4.splat(shown * ratio)))
        }
        if (billowed && shown < 1) sum = f32x4.add(sum, f32x4.splat((1 - shown) * ratio * MEAN_ABSOLUTE))
        vx *= 2
        vy *= 2
        ratio *= 0.5
        units *= 2
        if (stitch) {
          stitchWidth *= 2
          wrapX = 2 * wrapX - <i32>OFFSET
          stitchHeight *= 2
          wrapY = 2 * wrapY - <i32>OFFSET
        }
      }
      const value = billowed ? sum : f32x4.mul(f32x4.add(sum, one), f32x4.splat(0.5))
      const out = f32x4.pmin(one, f32x4.pmax(zero, value))
      const at = (<usize>(y * width + x)) << 2
      if (red != 0) store<f32>(red + at, f32x4.extract_lane(out, 0))
      if (green != 0) store<f32>(green + at, f32x4.extract_lane(out, 1))
      if (blue != 0) store<f32>(blue + at, f32x4.extract_lane(out, 2))
      if (alpha != 0) store<f32>(alpha + at, f32x4.extract_lane(out, 3))
    }
  }
}
