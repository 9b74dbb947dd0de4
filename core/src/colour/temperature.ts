import { mapRgb, type Rgb } from './hex'

/** Chromaticity x, y of the CIE 1931 standard observer. */
export type Chromaticity = readonly [number, number]

/** A glowing body. Approximation of the Planckian locus in CIE 1960 u, v: Krystek 1985, 1000-15000 K (from memory). */
function planckian(kelvin: number): Chromaticity {
  const t = kelvin
  const u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (1 + 8.42420235e-4 * t + 7.08145163e-7 * t * t)
  const v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (1 - 2.89741816e-5 * t + 1.61456053e-7 * t * t)
  const scale = 2 * u - 8 * v + 4
  return [(3 * u) / scale, (2 * v) / scale]
}

/** A phase of daylight, 4000-25000 K. CIE 15 (from memory). */
function daylight(kelvin: number): Chromaticity {
  const m = 1000 / kelvin
  const x =
    kelvin <= 7000 ? -4.607 * m ** 3 + 2.9678 * m ** 2 + 0.09911 * m + 0.244063 : -2.0064 * m ** 3 + 1.9018 * m ** 2 + 0.24748 * m + 0.23704
  return [x, -3 * x * x + 2.87 * x - 0.275]
}

const LAMPS_UP_TO = 4000
const DAYLIGHT_FROM = 5000

/** Chromaticity of light of a colour temperature, 1000-25000 K: of glowing lamps up to 4000 K, of daylight from 5000 K, and between them in between. */
export function chromaticityOf(kelvin: number): Chromaticity {
  const t = Math.min(25000, Math.max(1000, kelvin))
  if (t <= LAMPS_UP_TO) return planckian(t)
  if (t >= DAYLIGHT_FROM) return daylight(t)
  const part = (t - LAMPS_UP_TO) / (DAYLIGHT_FROM - LAMPS_UP_TO)
  const [[x0, y0], [x1, y1]] = [planckian(t), daylight(t)]
  return [x0 + part * (x1 - x0), y0 + part * (y1 - y0)]
}

/** Correlated colour temperature in kelvin of a chromaticity. McCamy 1992 (from memory). */
export function temperatureOf([x, y]: Chromaticity): number {
  const n = (x - 0.332) / (0.1858 - y)
  return 449 * n ** 3 + 3525 * n ** 2 + 6823.3 * n + 5520.33
}

/** Linear sRGB from CIE XYZ, IEC 61966-2-1. */
const FROM_XYZ = [
  [3.2404542, -1.5371385, -0.4985314],
  [-0.969266, 1.8760108, 0.041556],
  [0.0556434, -0.2040259, 1.0572252],
] as const

/** Linear sRGB of a chromaticity, its largest channel 1; what lies outside sRGB is cut off at 0. */
export function linearRgbOf([x, y]: Chromaticity): Rgb {
  const xyz = [x / y, 1, (1 - x - y) / y] as const
  const channel = (index: 0 | 1 | 2): number => {
    const row = FROM_XYZ[index]
    return Math.max(0, row[0] * xyz[0] + row[1] * xyz[1] + row[2] * xyz[2])
  }
  const rgb: Rgb = [channel(0), channel(1), channel(2)]
  const most = Math.max(...rgb)
  return mapRgb(rgb, (value) => value / most)
}

/** sRGB-encoded colour of light of a colour temperature, kelvin; its largest channel is 1. */
export function colourOfTemperature(kelvin: number): Rgb {
  return mapRgb(linearRgbOf(chromaticityOf(kelvin)), (v) => (v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055))
}

/** The word for a colour temperature (common practice, no source). */
export function temperatureInWords(kelvin: number): string {
  if (kelvin < 2300) return 'candle'
  if (kelvin < 3500) return 'lamp'
  if (kelvin < 4500) return 'low sun'
  if (kelvin < 6000) return 'sun'
  if (kelvin < 7500) return 'daylight'
  return 'blue sky'
}
