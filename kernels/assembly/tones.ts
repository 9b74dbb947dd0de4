import { clamp01, decode, encode, exp2, mulAdd, power, splat } from './math'

// Changes to the tones of a picture: exposure, curves, ramps, balance, lamps. Planes are sRGB-encoded unless said otherwise.

// @ts-ignore: decorator
@inline
function luma(r: v128, g: v128, b: v128): v128 {
  return mulAdd(splat(0.2126), r, mulAdd(splat(0.7152), g, f32x4.mul(splat(0.0722), b)))
}

/** Whatever a picture gives off, as a field and its colours: the brightest channel is the intensity, the colours are divided by it. `outs` may be the inputs. */
export function lightOfTones(r: usize, g: usize, b: usize, count: i32, field: usize, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = f32x4.pmax(splat(0), v128.load(r + i))
    const green = f32x4.pmax(splat(0), v128.load(g + i))
    const blue = f32x4.pmax(splat(0), v128.load(b + i))
    const most = f32x4.pmax(red, f32x4.pmax(green, blue))
    const inverse = f32x4.div(splat(1), f32x4.pmax(most, splat(1e-6)))
    if (field != 0) v128.store(field + i, most)
    if (outR != 0) {
      v128.store(outR + i, f32x4.mul(red, inverse))
      v128.store(outG + i, f32x4.mul(green, inverse))
      v128.store(outB + i, f32x4.mul(blue, inverse))
    }
  }
}

/**
 * The colours of what was cut out, from what it gives off and how much of it is there (grey): the one divided by the other in linear light; black where nothing is. All sRGB-encoded; `outs` may
 * be the inputs.
 */
export function uncover(r: usize, g: usize, b: usize, cover: usize, count: i32, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const inverse = f32x4.div(splat(1), f32x4.pmax(decode(v128.load(cover + i)), splat(1e-4)))
    v128.store(outR + i, encode(clamp01(f32x4.mul(decode(v128.load(r + i)), inverse)), true))
    v128.store(outG + i, encode(clamp01(f32x4.mul(decode(v128.load(g + i)), inverse)), true))
    v128.store(outB + i, encode(clamp01(f32x4.mul(decode(v128.load(b + i)), inverse)), true))
  }
}

/** What is brighter than a linear luminance `threshold`, in linear light, rising softly over `soft`; colours are kept. */
export function brightsOf(r: usize, g: usize, b: usize, count: i32, threshold: f32, soft: f32, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = decode(v128.load(r + i))
    const green = decode(v128.load(g + i))
    const blue = decode(v128.load(b + i))
    const y = f32x4.pmax(splat(0), luma(red, green, blue))
    const t = clamp01(f32x4.mul(f32x4.sub(y, splat(threshold - soft)), splat(<f32>1 / max<f32>(2 * soft, 1e-4))))
    const part = f32x4.mul(f32x4.mul(t, t), f32x4.sub(splat(3), f32x4.add(t, t)))
    v128.store(outR + i, f32x4.mul(part, red))
    v128.store(outG + i, f32x4.mul(part, green))
    v128.store(outB + i, f32x4.mul(part, blue))
  }
}

/**
 * Exposure, tones, saturation and contrast. Linear light times a gain for each channel; then shadows (-1 to 1) and highlights (-1 to 1) lift or lower luma where it is low or high; then
 * luma + (v - luma) saturation (feColorMatrix of type saturate, W3C Filter Effects Module Level 1), and (v - 0.5) contrast + 0.5 + brightness, on encoded values.
 */
export function adjustTones(
  r: usize, g: usize, b: usize, count: i32, gainR: f32, gainG: f32, gainB: f32, shadows: f32, highlights: f32, saturation: f32, contrast: f32,
  brightness: f32, outR: usize, outG: usize, outB: usize,
): void {
  const bytes = (<usize>count) << 2
  const gained = gainR != 1 || gainG != 1 || gainB != 1
  const toned = shadows != 0 || highlights != 0
  const lift = splat(0.5 + brightness - 0.5 * contrast)
  for (let i: usize = 0; i < bytes; i += 16) {
    let red = v128.load(r + i)
    let green = v128.load(g + i)
    let blue = v128.load(b + i)
    if (gained) {
      red = encode(f32x4.mul(decode(red), splat(gainR)))
      green = encode(f32x4.mul(decode(green), splat(gainG)))
      blue = encode(f32x4.mul(decode(blue), splat(gainB)))
    }
    if (toned) {
      const y = clamp01(luma(red, green, blue))
      const rest = f32x4.sub(splat(1), y)
      // Both act most at a quarter from their end, and leave the end itself.
      const low = f32x4.mul(f32x4.mul(y, rest), f32x4.mul(rest, rest))
      const high = f32x4.mul(f32x4.mul(rest, y), f32x4.mul(y, y))
      const moved = mulAdd(splat(1.6 * shadows), low, mulAdd(splat(1.6 * highlights), high, y))
      const factor = f32x4.div(moved, f32x4.pmax(y, splat(1e-4)))
      red = f32x4.mul(red, factor)
      green = f32x4.mul(green, factor)
      blue = f32x4.mul(blue, factor)
    }
    if (saturation != 1) {
      const y = luma(red, green, blue)
      red = mulAdd(splat(saturation), f32x4.sub(red, y), y)
      green = mulAdd(splat(saturation), f32x4.sub(green, y), y)
      blue = mulAdd(splat(saturation), f32x4.sub(blue, y), y)
    }
    v128.store(outR + i, mulAdd(red, splat(contrast), lift))
    v128.store(outG + i, mulAdd(green, splat(contrast), lift))
    v128.store(outB + i, mulAdd(blue, splat(contrast), lift))
  }
}

/**
 * A picture lit by a lamp, in linear light: times ambient + strength colour field; and a sheen of its own colour, strength (luminance ^ sharpness) field, added. `field` is how much of the
 * lamp falls on each place. Colours linear.
 */
export function litByLamp(
  r: usize, g: usize, b: usize, field: usize, count: i32, ambient: f32, strength: f32, colourR: f32, colourG: f32, colourB: f32, sheen: f32, sharpness: f32,
  sheenR: f32, sheenG: f32, sheenB: f32, outR: usize, outG: usize, outB: usize,
): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const light = v128.load(field + i)
    const red = decode(v128.load(r + i))
    const green = decode(v128.load(g + i))
    const blue = decode(v128.load(b + i))
    // Far beyond white a power leaves the range of floats, and no light of no size is no number.
    const peak = f32x4.pmin(splat(1e6), power(luma(red, green, blue), splat(sharpness)))
    const shine = f32x4.mul(splat(sheen), f32x4.mul(light, peak))
    const k = f32x4.mul(splat(strength), light)
    v128.store(outR + i, encode(mulAdd(red, mulAdd(k, splat(colourR), splat(ambient)), f32x4.mul(shine, splat(sheenR)))))
    v128.store(outG + i, encode(mulAdd(green, mulAdd(k, splat(colourG), splat(ambient)), f32x4.mul(shine, splat(sheenG)))))
    v128.store(outB + i, encode(mulAdd(blue, mulAdd(k, splat(colourB), splat(ambient)), f32x4.mul(shine, splat(sheenB)))))
  }
}

/** A table of `steps` + 1 values over 0-1, read in straight lines; outside, the end values. */
export function throughTable(src: usize, count: i32, table: usize, steps: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  const last = splat(<f32>steps)
  const lastStep = i32x4.splat(steps - 1)
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = f32x4.mul(clamp01(v128.load(src + i)), last)
    const k = i32x4.min_s(lastStep, i32x4.trunc_sat_f32x4_s(v))
    // Each value and the one after it.
    const p = v128.load64_lane(entry(table, i32x4.extract_lane(k, 0)), v128.load64_zero(entry(table, i32x4.extract_lane(k, 1))), 1)
    const q = v128.load64_lane(entry(table, i32x4.extract_lane(k, 2)), v128.load64_zero(entry(table, i32x4.extract_lane(k, 3))), 1)
    const from = v128.shuffle<f32>(p, q, 2, 0, 6, 4)
    const to = v128.shuffle<f32>(p, q, 3, 1, 7, 5)
    v128.store(out + i, f32x4.add(from, f32x4.mul(f32x4.sub(to, from), f32x4.sub(v, f32x4.convert_i32x4_s(k)))))
  }
}

// @ts-ignore: decorator
@inline
function entry(table: usize, step: i32): usize {
  return table + ((<usize>step) << 2)
}

/** a - b + 0.5, or, with `raw`, a - b. `out` may be one of them. */
export function difference(a: usize, b: usize, count: i32, raw: bool, out: usize): void {
  const bytes = (<usize>count) << 2
  const middle = splat(raw ? 0 : 0.5)
  for (let i: usize = 0; i < bytes; i += 16) v128.store(out + i, f32x4.add(f32x4.sub(v128.load(a + i), v128.load(b + i)), middle))
}

/**
 * Balance of shadows, midtones and highlights: each has a shift for red, green and blue, -1 to 1, at most a third of the range. Weights over luma: (1 - y)², 4 y (1 - y) · 0.75, y².
 * With `keep` each pixel gets its luma back (Rec. 709 weights on encoded values). `shifts`: nine floats, shadows first.
 */
export function balanceTones(r: usize, g: usize, b: usize, count: i32, shifts: usize, keep: bool, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  const third: f32 = 1.0 / 3.0
  for (let i: usize = 0; i < bytes; i += 16) {
    const red = v128.load(r + i)
    const green = v128.load(g + i)
    const blue = v128.load(b + i)
    const y = clamp01(luma(red, green, blue))
    const rest = f32x4.sub(splat(1), y)
    const low = f32x4.mul(splat(third), f32x4.mul(rest, rest))
    const middle = f32x4.mul(splat(third), f32x4.mul(splat(3), f32x4.mul(y, rest)))
    const high = f32x4.mul(splat(third), f32x4.mul(y, y))
    let red1 = shifted(red, low, middle, high, shifts)
    let green1 = shifted(green, low, middle, high, shifts + 4)
    let blue1 = shifted(blue, low, middle, high, shifts + 8)
    if (keep) {
      const d = f32x4.sub(luma(red, green, blue), luma(red1, green1, blue1))
      red1 = f32x4.add(red1, d)
      green1 = f32x4.add(green1, d)
      blue1 = f32x4.add(blue1, d)
    }
    v128.store(outR + i, red1)
    v128.store(outG + i, green1)
    v128.store(outB + i, blue1)
  }
}

// @ts-ignore: decorator
@inline
function shifted(v: v128, low: v128, middle: v128, high: v128, shifts: usize): v128 {
  const sum = mulAdd(low, v128.load32_splat(shifts), mulAdd(middle, v128.load32_splat(shifts + 12), f32x4.mul(high, v128.load32_splat(shifts + 24))))
  return f32x4.add(v, sum)
}

/**
 * How much of a lamp falls on each place of the picture, taken as a level surface with the lamp `lz` px over (lx, ly), shining at (tx, ty). The light is full within the angle whose cosine
 * is `inner`, and gone at `outer`, as the cone of feSpotLight (W3C Filter Effects Level 1) is at limitingConeAngle; it falls with the square of the distance, times `falloff` 0-1,
 * and is 1 where it is aimed.
 */
export function lampField(
  out: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f64, pitchY: f64, lx: f64, ly: f64, lz: f64, tx: f64, ty: f64, inner: f64, outer: f64, falloff: f64,
): void {
  const sx = tx - lx
  const sy = ty - ly
  const aimed2 = sx * sx + sy * sy + lz * lz
  const aimed = Math.sqrt(aimed2)
  for (let y = 0; y < height; y++) {
    const dy = (<f64>(y0 + y) + 0.5) * pitchY - ly
    for (let x = 0; x < width; x++) {
      const dx = (<f64>(x0 + x) + 0.5) * pitchX - lx
      const d2 = dx * dx + dy * dy + lz * lz
      const cosine = (dx * sx + dy * sy + lz * lz) / (Math.sqrt(d2) * aimed)
      const t = inner > outer ? Math.min(1, Math.max(0, (cosine - outer) / (inner - outer))) : cosine >= outer ? 1.0 : 0.0
      const near = 1 - falloff + falloff * Math.min(6, aimed2 / Math.max(1, d2))
      store<f32>(out + ((<usize>(y * width + x)) << 2), <f32>(t * t * (3 - 2 * t) * near))
    }
  }
}

/** 1 - 2^(-v) of light that may go beyond white, so that it comes near white without reaching it; about v while it is small. `out` may be `src`. */
export function softShoulder(src: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const v = f32x4.pmax(splat(0), v128.load(src + i))
    v128.store(out + i, f32x4.sub(splat(1), exp2(f32x4.mul(v, splat(-1.4426950408889634)))))
  }
}

/** OKLab planes from encoded, and the way back: encoded red, green, blue of OKLab, clamped to 0-1. Matrices: Ottosson 2020. */
export function encodedFromOklab(l: usize, a: usize, b: usize, count: i32, outR: usize, outG: usize, outB: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const light = v128.load(l + i)
    const x = v128.load(a + i)
    const y = v128.load(b + i)
    const p = cube(mulAdd(splat(0.3963377774), x, mulAdd(splat(0.2158037573), y, light)))
    const q = cube(mulAdd(splat(-0.1055613458), x, mulAdd(splat(-0.0638541728), y, light)))
    const s = cube(mulAdd(splat(-0.0894841775), x, mulAdd(splat(-1.291485548), y, light)))
    v128.store(outR + i, encode(clamp01(mulAdd(splat(4.0767416621), p, mulAdd(splat(-3.3077115913), q, f32x4.mul(splat(0.2309699292), s)))), true))
    v128.store(outG + i, encode(clamp01(mulAdd(splat(-1.2684380046), p, mulAdd(splat(2.6097574011), q, f32x4.mul(splat(-0.3413193965), s)))), true))
    v128.store(outB + i, encode(clamp01(mulAdd(splat(-0.0041960863), p, mulAdd(splat(-0.7034186147), q, f32x4.mul(splat(1.707614701), s)))), true))
  }
}

// @ts-ignore: decorator
@inline
function cube(v: v128): v128 {
  return f32x4.mul(v, f32x4.mul(v, v))
}

/** Codes from which on a channel is white, and up to which luma is black. */
const WHITE: f32 = 254.5 / 255
const BLACK: f32 = 0.5 / 255

// @ts-ignore: decorator
@inline
function highestOf(r: usize, g: usize, b: usize, i: usize): v128 {
  return f32x4.pmax(v128.load(r + i), f32x4.pmax(v128.load(g + i), v128.load(b + i)))
}

// @ts-ignore: decorator
@inline
function lumaOf(r: usize, g: usize, b: usize, i: usize): v128 {
  return mulAdd(splat(0.2126), v128.load(r + i), mulAdd(splat(0.7152), v128.load(g + i), f32x4.mul(splat(0.0722), v128.load(b + i))))
}

/** 1 where a picture (r, g, b) has become white, a channel of it at least, or black, and was not before (p, q, s); else 0. */
export function newlyClipped(p: usize, q: usize, s: usize, r: usize, g: usize, b: usize, count: i32, outWhite: usize, outBlack: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const white = v128.andnot(f32x4.ge(highestOf(r, g, b, i), splat(WHITE)), f32x4.ge(highestOf(p, q, s, i), splat(WHITE)))
    const black = v128.andnot(f32x4.le(lumaOf(r, g, b, i), splat(BLACK)), f32x4.le(lumaOf(p, q, s, i), splat(BLACK)))
    v128.store(outWhite + i, v128.and(white, splat(1)))
    v128.store(outBlack + i, v128.and(black, splat(1)))
  }
}

/** Linear light of an encoded plane times a gain that goes from `outside` where the mask is 0 to `inside` where it is 1; encoded again. */
export function gainByMask(source: usize, mask: usize, count: i32, outside: f32, inside: f32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const gain = mulAdd(splat(inside - outside), v128.load(mask + i), splat(outside))
    v128.store(out + i, encode(f32x4.mul(decode(v128.load(source + i)), gain)))
  }
}
