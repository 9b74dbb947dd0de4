import type { NumberControl } from '@welkinar/core'

/** From here on what comes after the point is not read, and has no room. */
const LARGE = 1000
/** Times from here on are written in seconds. */
const LONG = 0.3

type Words = Pick<NumberControl, 'step' | 'unit' | 'written'>

/** A number with its unit as it stands in its field: 1/60 s, f/5.6, 12 px. */
export function numberText(value: number, { step, unit, written }: Words): string {
  if (written === 'aperture') return `f/${Number(value.toFixed(1))}`
  if (written === 'fraction' && value > 0 && value < LONG) return `1/${Math.round(1 / value)}\u2009${unit}`
  const digits = Math.abs(value) >= LARGE ? 0 : step >= 1 && !Number.isInteger(value) ? 1 : digitsOf(written === 'fraction' ? 0.1 : step)
  return `${value.toFixed(digits).replace('-', '−')}${spaced(unit)}`
}

/** The number that was typed: one at the beginning, or a fraction of two; a unit may stand behind, and "f/" before an aperture. NaN if there is none. */
export function numberIn(text: string, written?: NumberControl['written']): number {
  const plain = text
    .replaceAll(',', '.')
    .replace('−', '-')
    .replace(written === 'aperture' ? /^\s*f\s*\/?/i : '', '')
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+))\s*(?:\/\s*(\d+\.?\d*))?\s*[a-z%°×/]*\s*$/i.exec(plain)
  return match ? Number(match[1]) / Number(match[2] ?? 1) : NaN
}

/** How many digits after the point a number with such a step is shown with. */
export function digitsOf(step: number): number {
  return step >= 1 ? 0 : step >= 0.1 ? 1 : step >= 0.01 ? 2 : 4
}

/** Degrees and factors stand close to the number, other units after a thin space. */
function spaced(unit: string): string {
  return unit === '' || unit === '°' || unit === '×' ? unit : `\u2009${unit}`
}
