import type { LuminosityMask, Where } from '@welkinar/core'

export const curveLabels: Record<LuminosityMask['curve'], string> = {
  brights: 'Brights',
  mids: 'Mids',
  darks: 'Darks',
  range: 'Range',
}

/** The list of masks in a few words. */
export function whereSummary(where: Where): string {
  const masks = where.masks.filter((mask) => mask.on)
  if (masks.length === 0) return 'everywhere'
  const words = masks.map((mask, index) => `${joinWord(mask.join, index)}${maskWords(mask)}`)
  const hold = where.hold < 100 ? `; hold ${Math.round(where.hold)} %` : ''
  return `${words.join(' ')}${hold}`
}

function joinWord(join: LuminosityMask['join'], index: number): string {
  if (index === 0) return join === 'subtract' ? 'all less ' : ''
  return { keep: 'and ', add: 'plus ', subtract: 'less ' }[join]
}

/** One mask in a word or two. */
export function maskWords(mask: LuminosityMask): string {
  const inverted = mask.invert ? 'not ' : ''
  if (mask.curve !== 'range') return `${inverted}${curveLabels[mask.curve].toLowerCase()}`
  const [, full, fullEnd] = mask.handles
  if (fullEnd >= 1) return `${inverted}tones above ${Math.round(full * 100)} %`
  if (full <= 0) return `${inverted}tones below ${Math.round(fullEnd * 100)} %`
  return `${inverted}tones ${Math.round(full * 100)}–${Math.round(fullEnd * 100)} %`
}
