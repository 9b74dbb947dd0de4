import { hash3, nextHash, unit } from './hash'
import { exp2, splat } from './math'
import { angleOf } from './radial'

// Light that spreads from a point: a core, a halo, spikes of thin light, and rays of noise that are the same all the way out.

const TURN: f64 = 6.283185307179586
const PER_RADIAN: f64 = 1 / TURN
const LOG2E: f32 = 1.4426950408889634
const STEPS: i32 = 8192
/** Power of two below which nothing is seen of a core. */
const FAINTEST: f32 = -16
/** A burst that reaches no farther than this, photo px, is a small one. */
const SMALL: f64 = 300

/** Integral of the noise over the angle, so that a pixel takes the mean of what it spans. */
const integral = memory.data((STEPS + 1) * 8)
let tabledSeed = 0
let tabledCount: f64 = -1
let tabledLow: f64 = 0
let tabledHigh: f64 = 0
let tabledPhase: f64 = 0

/** Value noise around the turn, `count` features, that closes on itself. */
function roundNoise(turned: f64, count: i32, seed: i32): f64 {
  const at = turned * <f64>count
  const cell = <i32>Math.floor(at)
  const t = at - <f64>cell
  const a = <f64>unit(hash3(cell % count, 0, seed))
  const b = <f64>unit(hash3((cell + 1) % count, 0, seed))
  return a + (b - a) * t * t * (3 - 2 * t)
}

function prepareRays(count: f64, seed: i32, low: f64, high: f64, phase: f64): void {
  if (tabledCount == count && tabledSeed == seed && tabledLow == low && tabledHigh == high && tabledPhase == phase) return
  tabledCount = count
  tabledSeed = seed
  tabledLow = low
  tabledHigh = high
  tabledPhase = phase
  let sum: f64 = 0
  store<f64>(integral, 0)
  const whole = max(3, <i32>count)
  // Where in the loop it is: the noise goes over into other noise and back.
  const there = 0.5 - 0.5 * NativeMath.cos(TURN * phase)
  const even = 1 / Math.sqrt(there * there + (1 - there) * (1 - there))
  for (let i = 0; i < STEPS; i++) {
    const turned = (<f64>i + 0.5) / <f64>STEPS
    let value: f64 = 0
    let other: f64 = 0
    let weight: f64 = 0.5
    let features = whole
    for (let octave = 0; octave < 4; octave++) {
      value += weight * roundNoise(turned, features, seed + octave * 71)
      if (there > 0) other += weight * roundNoise(turned, features, seed + octave * 71 + 5003)
      weight *= 0.5
      features = features * 2 + 1
    }
    value /= 0.9375
    if (there > 0) value = 0.5 + even * ((1 - there) * (value - 0.5) + there * (other / 0.9375 - 0.5))
    const s = Math.min(1, Math.max(0, (value - low) / Math.max(1e-3, high - low)))
    sum += (s * s * (3 - 2 * s)) / <f64>STEPS
    store<f64>(integral + ((<usize>(i + 1)) << 3), sum)
  }
}

/** Integral from 0 to `turned`, which may be anything; a whole turn adds the whole. */
function integralTo(turned: f64): f64 {
  const whole = Math.floor(turned)
  const at = (turned - whole) * <f64>STEPS
  const i = min(STEPS - 1, <i32>at)
  const a = load<f64>(integral + ((<usize>i) << 3))
  const b = load<f64>(integral + ((<usize>(i + 1)) << 3))
  return a + (b - a) * (at - <f64>i) + whole * load<f64>(integral + ((<usize>STEPS) << 3))
}

/**
 * Lays a burst of light over a field, as veils one behind the other: 1 - (1 - a) (1 - b). `spread`, if not 0, takes the variance inside each pixel. Lengths in photo px.
 * `core`: radius of the overexposed middle; `halo` 0-1 and `haloSize`; `spikes`: how many, 0 for none, their `reach`, `strength` 0-1, `thickness` (standard deviation where they
 * begin), `uneven` 0-1, `turn` radians; `paired`: spikes of a diaphragm, alike and exactly even. `rays`: how many features the noise has around the turn, 0 for none, between the tones
 * `low` and `high`, at `rayStrength`, over `rayReach`. `phase` 0-1 of the loop.
 */
export function addBurst(
  plane: usize, spread: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64, px: f64, py: f64,
  core: f64, halo: f64, haloSize: f64, spikes: i32, reach: f64, strength: f64, thickness: f64, uneven: f64, turn: f64, paired: bool,
  rays: f64, rayStrength: f64, rayReach: f64, low: f64, high: f64, seed: i32, phase: f64,
): void {
  if (rays > 0 && rayStrength > 0) prepareRays(rays, seed, low, high, phase)
  const spiked = spikes > 0 && strength > 0
  const spikeCount = min(MOST_SPIKES, spikes)
  if (spiked) prepareSpikes(spikeCount, reach, strength, uneven, turn, paired, seed, phase)
  const pitch = Math.sqrt(pitchX * pitchY)
  const pixel = Math.max(0, pitch * pitch - 1) / 12
  const coreSeen = Math.sqrt(core * core + pixel + 0.08)
  const coreShare = (core * core) / (coreSeen * coreSeen)
  const haloReach = halo > 0 ? 7 * haloSize : 0
  let farthest = Math.max(4 * coreSeen, haloReach)
  if (spikes > 0 && strength > 0) farthest = Math.max(farthest, reach)
  if (rays > 0 && rayStrength > 0) farthest = Math.max(farthest, rayReach)
  farthest += 2 * pitch
  const row0 = max(0, <i32>Math.floor((py - farthest) / pitchY) - y0)
  const row1 = min(height - 1, <i32>Math.ceil((py + farthest) / pitchY) - y0)
  const column0 = max(0, <i32>Math.floor((px - farthest) / pitchX) - x0)
  const column1 = min(width - 1, <i32>Math.ceil((px + farthest) / pitchX) - x0)
  // A small burst is sampled inside each pixel, as at full size; of a large one the variance is that of its thin parts.
  const samples = pitch > 1.01 && farthest < SMALL ? max(1, min(8, <i32>Math.ceil(pitch))) : 1
  const fine = samples > 1
  const coreWidth = fine ? core * core + 0.08 : coreSeen * coreSeen
  const coreFall = <f32>(-0.5) * LOG2E / <f32>coreWidth
  const shareOfCore = fine ? (core * core) / coreWidth : coreShare
  const thin = fine ? 0 : pixel
  const halfPixel = 0.5 * Math.max(1, pitch) * PER_RADIAN
  const perPixel = 0.5 / halfPixel
  const perReach = 1 / rayReach
  const wholeTurn = load<f64>(integral + ((<usize>STEPS) << 3))
  for (let row = row0; row <= row1; row++) {
    for (let column = column0; column <= column1; column++) {
      let sum: f64 = 0
      let squares: f64 = 0
      let variance: f64 = 0
      const middleX = (<f64>(x0 + column) + 0.5) * pitchX - px
      const middleY = (<f64>(y0 + row) + 0.5) * pitchY - py
      // Where there is nothing thin, one sample is as good as many.
      const own: i32 = fine && isThin(middleX, middleY, 3 * core + pitch, 4 * thickness + pitch, spiked ? spikeCount : 0, turn) ? samples : 1
      const part = own > 1 ? 1 / <f64>own : 1
      for (let sample = 0; sample < own * own; sample++) {
        let dx = middleX
        let dy = middleY
        if (own > 1) {
          dx = (<f64>(x0 + column) + (<f64>(sample % own) + 0.5) * part) * pitchX - px
          dy = (<f64>(y0 + row) + (<f64>(sample / own) + 0.5) * part) * pitchY - py
        }
        const r2 = dx * dx + dy * dy
        const r = Math.sqrt(r2)
        if (r > farthest) continue
        // The middle is overexposed, three times white, and comes near white with a soft shoulder.
        const fall = coreFall * <f32>r2
        let light = fall < FAINTEST ? 0 : overexposed(3 * shareOfCore * <f64>f32x4.extract_lane(exp2(splat(fall)), 0))
        if (!fine && light > 0) variance += light * light * Math.max(0, 1 / Math.max(0.02, coreShare) - 1)
        if (halo > 0 && r < haloReach) {
          const q = r / haloSize
          const edge = 1 - r / haloReach
          light = over(light, (halo * edge * edge) / (1 + q * q))
        }
        const rayed = rays > 0 && rayStrength > 0 && r < rayReach
        const lit = spiked && r < reach && (spikeCount > FEW_SPIKES || nearAny(dx, dy, spikeCount, 5.8 * Math.sqrt(thickness * thickness + 0.08 + thin)))
        const turned = rayed || lit ? (angleOf(-dy, dx) - turn) * PER_RADIAN : 0
        if (lit) {
          const nearest = <i32>Math.floor((turned - Math.floor(turned)) * <f64>spikeCount + 0.5)
          for (let k = nearest - 1; k <= nearest + 1; k++) {
            const own = spikeAt(dx, dy, spikeAddress(k, spikeCount), thickness, thin)
            if (!fine) variance += own * own * spikeVariance
            light = over(light, own)
          }
        }
        if (rayed) {
          // Half of what a pixel spans of the turn.
          const half = Math.min(0.5, halfPixel / Math.max(r, 0.5))
          const mean = half < 0.5 ? (integralTo(turned + half) - integralTo(turned - half)) * Math.max(r, 0.5) * perPixel : wholeTurn
          const rest = 1 - r * perReach
          light = over(light, rayStrength * mean * rest * rest)
        }
        sum += light
        squares += light * light
      }
      if (sum <= 0) continue
      const share = part * part
      const mean = sum * share
      if (fine) variance = Math.max(0, squares * share - mean * mean)
      const at = (<usize>(row * width + column)) << 2
      store<f32>(plane + at, <f32>over(<f64>load<f32>(plane + at), mean))
      if (spread != 0) store<f32>(spread + at, load<f32>(spread + at) + <f32>Math.min(0.25, variance))
    }
  }
}

/** So few spikes are looked at one by one, which is faster than to find the nearest. */
const FEW_SPIKES: i32 = 12

/** Whether any spike is so near that it may have light here. */
function nearAny(dx: f64, dy: f64, spikes: i32, around: f64): bool {
  for (let k = 0; k < spikes; k++) if (nearSpike(dx, dy, spikeTable + (<usize>k) * SPIKE_BYTES, around)) return true
  return false
}

/** Whether the core or a spike comes near a place. */
function isThin(dx: f64, dy: f64, aroundCore: f64, aroundSpike: f64, spikes: i32, turn: f64): bool {
  if (dx * dx + dy * dy < aroundCore * aroundCore) return true
  if (spikes == 0) return false
  const turned = (angleOf(-dy, dx) - turn) / TURN
  const nearest = <i32>Math.floor((turned - Math.floor(turned)) * <f64>spikes + 0.5)
  for (let k = nearest - 1; k <= nearest + 1; k++) if (nearSpike(dx, dy, spikeAddress(k, spikes), aroundSpike)) return true
  return false
}

/** 1 - e^(-1.6 v): nearly white where v is 2 and more. */
// @ts-ignore: decorator
@inline
function overexposed(v: f64): f64 {
  return v < 1e-4 ? 0 : 1 - <f64>f32x4.extract_lane(exp2(splat(<f32>(-1.6) * LOG2E * <f32>v)), 0)
}

// @ts-ignore: decorator
@inline
function over(a: f64, b: f64): f64 {
  return a + b - a * b
}

/** Variance inside a pixel of the spike last looked at, for a mean of 1. */
let spikeVariance: f64 = 0

/** Most spikes that a burst has. */
const MOST_SPIKES: i32 = 360
const SPIKE_BYTES: usize = 40
/** Of each spike of the burst being drawn: its direction, its reach, its peak, and its thickness against the others. */
const spikeTable = memory.data(360 * 40)

function prepareSpikes(count: i32, reach: f64, strength: f64, uneven: f64, turn: f64, paired: bool, seed: i32, phase: f64): void {
  for (let k = 0; k < count; k++) {
    let h = hash3(k, 17, seed)
    const a = <f64>unit(h)
    h = nextHash(h)
    const b = <f64>unit(h)
    h = nextHash(h)
    const c = <f64>unit(h)
    const place = paired ? 0 : 0.7 * uneven * (a - 0.5)
    const flicker = phase > 0 ? 1 + 0.12 * (NativeMath.sin(TURN * (phase + c)) - NativeMath.sin(TURN * c)) : 1
    const angle = turn + (TURN * (<f64>k + place)) / <f64>count
    const at = spikeTable + (<usize>k) * SPIKE_BYTES
    store<f64>(at, NativeMath.cos(angle))
    store<f64>(at, -NativeMath.sin(angle), 8)
    store<f64>(at, reach * (1 - 0.75 * uneven * b) * Math.min(1, flicker), 16)
    store<f64>(at, strength * (1 - 0.5 * uneven * a), 24)
    store<f64>(at, 1 - 0.5 * uneven * c, 32)
  }
}

/** Address of a spike; `index` may be one below 0 or one too many. */
// @ts-ignore: decorator
@inline
function spikeAddress(index: i32, count: i32): usize {
  const k = index < 0 ? index + count : index >= count ? index - count : index
  return spikeTable + (<usize>max(0, k)) * SPIKE_BYTES
}

/** Whether a place is so near to a spike that some of its light may reach `around` px about the place. */
// @ts-ignore: decorator
@inline
function nearSpike(dx: f64, dy: f64, at: usize, around: f64): bool {
  const across = dx * load<f64>(at, 8) - dy * load<f64>(at)
  return Math.abs(across) < around && dx * load<f64>(at) + dy * load<f64>(at, 8) > -around
}

/** One spike: brightest where it begins, ever thinner and fainter, and gone at its own reach. */
function spikeAt(dx: f64, dy: f64, at: usize, thickness: f64, pixel: f64): f64 {
  const dirX = load<f64>(at)
  const dirY = load<f64>(at, 8)
  const ownReach = load<f64>(at, 16)
  const along = dx * dirX + dy * dirY
  spikeVariance = 0
  if (along <= 0 || along >= ownReach) return 0
  const across = dx * dirY - dy * dirX
  const rest = 1 - along / ownReach
  const own = thickness * (0.12 + 0.88 * rest) * load<f64>(at, 32)
  const sharp = own * own + 0.08
  const seen = sharp + pixel
  const exponent = <f32>(-0.5) * LOG2E * <f32>((across * across) / seen)
  if (exponent < -24) return 0
  const narrow = Math.sqrt(sharp / seen)
  spikeVariance = 1 / narrow - 1
  return load<f64>(at, 24) * narrow * <f64>f32x4.extract_lane(exp2(splat(exponent)), 0) * rest * rest
}
