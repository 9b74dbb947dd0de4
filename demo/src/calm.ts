import type { Exposure } from './develop'

const RADIUS = 3
/** Standard deviations: pixels, and how far light may differ, as a logarithm. */
const NEAR = 1.7
const ALIKE = 0.3
/** A pixel this many times as bright as all its neighbours but two is a stray. */
const STRAY = 1.5

function luminance(light: Float32Array, i: number): number {
  return 0.2126 * (light[3 * i] ?? 0) + 0.7152 * (light[3 * i + 1] ?? 0) + 0.0722 * (light[3 * i + 2] ?? 0)
}

/** Noise reduction as in a camera: strays are brought down to their neighbours, then each pixel takes the mean of those near it and alike (bilateral). */
export function calm(exposure: Exposure): Exposure {
  const { width, height } = exposure
  return alike(alike({ width, height, light: withoutStrays(exposure) }))
}

/** Each pixel as the mean of those near it and alike. */
function alike({ width, height, light }: Exposure): Exposure {
  const tones = Float32Array.from({ length: width * height }, (_, i) => Math.log(luminance(light, i) + 0.004))
  const out = new Float32Array(light.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const own = tones[y * width + x] ?? 0
      const sum = [0, 0, 0]
      let weights = 0
      for (let v = Math.max(0, y - RADIUS); v <= Math.min(height - 1, y + RADIUS); v++) {
        for (let u = Math.max(0, x - RADIUS); u <= Math.min(width - 1, x + RADIUS); u++) {
          const j = v * width + u
          const off = ((tones[j] ?? 0) - own) / ALIKE
          const weight = Math.exp(-0.5 * (((u - x) ** 2 + (v - y) ** 2) / NEAR ** 2 + off * off))
          weights += weight
          for (let c = 0; c < 3; c++) sum[c] = (sum[c] ?? 0) + weight * (light[3 * j + c] ?? 0)
        }
      }
      for (let c = 0; c < 3; c++) out[3 * (y * width + x) + c] = (sum[c] ?? 0) / weights
    }
  }
  return { width, height, light: out }
}

function withoutStrays({ width, height, light }: Exposure): Float32Array {
  const out = light.slice()
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const around = [-width - 1, -width, -width + 1, -1, 1, width - 1, width, width + 1].map((step) => luminance(light, i + step))
      const most = STRAY * (around.sort((a, b) => b - a)[2] ?? 0) + 1e-3
      const own = luminance(light, i)
      if (own > most) for (let c = 0; c < 3; c++) out[3 * i + c] = ((light[3 * i + c] ?? 0) * most) / own
    }
  }
  return out
}
