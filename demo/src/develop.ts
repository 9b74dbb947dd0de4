import type { PhotoDefinition } from './photo'
import { hash } from './tracer/noise'

/** Light that fell on the sensor: interleaved RGB, linear. */
export interface Exposure {
  readonly width: number
  readonly height: number
  readonly light: Float32Array
}

/** Turns light into a picture as a camera would: glow of the lens, vignette, sensor noise, film-like curve. RGBA, 8 bit, sRGB. */
export function develop({ width, height, light }: Exposure, how: PhotoDefinition['develop']): Uint8ClampedArray<ArrayBuffer> {
  const glow = lensGlow(light, width, height)
  const pixels = new Uint8ClampedArray(width * height * 4)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      const rx = (x - width / 2) / (width / 2)
      const ry = (y - height / 2) / (width / 2)
      const fall = 1 / (1 + 0.22 * (rx * rx + ry * ry)) ** 2
      for (let c = 0; c < 3; c++) {
        const at = 3 * i + c
        const clear = (light[at] ?? 0) * (1 - how.flare) + how.flare * (glow[at] ?? 0)
        const exposed = clear * fall * how.exposure * (how.balance[c] ?? 1)
        const sensor = exposed + sensorNoise(exposed, x, y, c) * how.noise
        pixels[4 * i + c] = 255 * encoded(filmCurve(Math.max(0, sensor))) + hash(x, y, 90 + c) - 0.5
      }
      pixels[4 * i + 3] = 255
    }
  }
  return pixels
}

/** Photon noise grows with the root of the light, read noise is constant; both a little clumped, as after demosaicing. */
function sensorNoise(exposed: number, x: number, y: number, c: number): number {
  const fine = gaussian(x, y, c)
  const coarse = gaussian(x >> 1, y >> 1, c + 5)
  return (0.72 * fine + 0.45 * coarse) * Math.sqrt(0.00011 * exposed + 0.0000014)
}

function gaussian(x: number, y: number, c: number): number {
  return (hash(x, y, c) + hash(x, y, c + 20) + hash(x, y, c + 40) + hash(x, y, c + 60) - 2) * 1.732
}

/** Shoulder that rolls off the highlights, toe that keeps the blacks deep. */
function filmCurve(v: number): number {
  return (v * (2.51 * v + 0.03)) / (v * (2.43 * v + 0.59) + 0.14)
}

function encoded(v: number): number {
  return v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055
}

/** Light scattered in the lens: three wide blurs of a quarter-size copy. */
function lensGlow(light: Float32Array, width: number, height: number): Float32Array {
  const factor = 4
  const w = Math.ceil(width / factor)
  const h = Math.ceil(height / factor)
  const small = new Float32Array(w * h * 3)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const to = ((y >> 2) * w + (x >> 2)) * 3
      for (let c = 0; c < 3; c++) small[to + c] = (small[to + c] ?? 0) + (light[(y * width + x) * 3 + c] ?? 0) / 16
    }
  }
  const parts = [
    { radius: w / 230, share: 0.5 },
    { radius: w / 55, share: 0.32 },
    { radius: w / 14, share: 0.18 },
  ].map(({ radius, share }) => ({ blurred: boxBlurThrice(small, w, h, Math.max(1, Math.round(radius))), share }))
  const out = new Float32Array(light.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = Math.min(w - 1.001, Math.max(0, (x + 0.5) / factor - 0.5))
      const v = Math.min(h - 1.001, Math.max(0, (y + 0.5) / factor - 0.5))
      const from = (Math.floor(v) * w + Math.floor(u)) * 3
      const [tx, ty] = [u % 1, v % 1]
      for (let c = 0; c < 3; c++) {
        let sum = 0
        for (const { blurred, share } of parts) {
          const p = from + c
          const top = (blurred[p] ?? 0) * (1 - tx) + (blurred[p + 3] ?? 0) * tx
          const bottom = (blurred[p + w * 3] ?? 0) * (1 - tx) + (blurred[p + w * 3 + 3] ?? 0) * tx
          sum += share * (top * (1 - ty) + bottom * ty)
        }
        out[(y * width + x) * 3 + c] = sum
      }
    }
  }
  return out
}

function boxBlurThrice(source: Float32Array, width: number, height: number, radius: number): Float32Array {
  let plane = source
  for (let pass = 0; pass < 3; pass++) {
    plane = boxBlur(plane, width, height, radius, 3, width * 3)
    plane = boxBlur(plane, height, width, radius, width * 3, 3)
  }
  return plane
}

/** Running mean along lines of `count` pixels `step` apart; lines start `lineStep` apart. */
function boxBlur(source: Float32Array, count: number, lines: number, radius: number, step: number, lineStep: number): Float32Array {
  const out = new Float32Array(source.length)
  for (let line = 0; line < lines; line++) {
    for (let c = 0; c < 3; c++) {
      const start = line * lineStep + c
      const at = (i: number): number => source[start + Math.min(count - 1, Math.max(0, i)) * step] ?? 0
      let sum = 0
      for (let i = -radius; i <= radius; i++) sum += at(i)
      for (let i = 0; i < count; i++) {
        out[start + i * step] = sum / (2 * radius + 1)
        sum += at(i + radius + 1) - at(i - radius)
      }
    }
  }
  return out
}
