import { curveTable } from '../../operations/fields/curve/curveTable'
import type { LuminosityMask } from './definition'

type Curve = Pick<LuminosityMask, 'curve' | 'handles' | 'steepness'> & Partial<Pick<LuminosityMask, 'invert' | 'free'>>

const STEPS = 1024

/**
 * Openness 0-1 of a luminosity mask at one tone: the same curve as the kernel's, for drawing it and as its oracle.
 * Brights = L, darks = 1 - L, mids = 4 L (1 - L), self-multiplication: common practice, no source.
 */
export function maskCurve({ curve, free, handles, steepness, invert }: Curve, tone: number): number {
  if (free) {
    const drawn = curveTable(free, STEPS)[Math.round(STEPS * Math.min(1, Math.max(0, tone)))] ?? 0
    return invert ? 1 - drawn : drawn
  }
  const base = baseCurve(curve, handles, tone)
  const exponent = 1 + Math.abs(steepness)
  const steep = steepness >= 0 ? base ** exponent : 1 - (1 - base) ** exponent
  return invert ? 1 - steep : steep
}

function baseCurve(curve: LuminosityMask['curve'], handles: LuminosityMask['handles'], tone: number): number {
  if (curve === 'brights') return tone
  if (curve === 'darks') return 1 - tone
  if (curve === 'mids') return 4 * tone * (1 - tone)
  const [start, full, fullEnd, end] = handles
  const fall = fullEnd >= end ? Number(tone > end) : smoothStep(fullEnd, end, tone)
  return smoothStep(start, full, tone) * (1 - fall)
}

function smoothStep(from: number, to: number, tone: number): number {
  if (to <= from) return tone >= from ? 1 : 0
  const t = Math.min(1, Math.max(0, (tone - from) / (to - from)))
  return t * t * (3 - 2 * t)
}
