import { maskDefinitionOf, type Mask, type MaskJoin, type Where } from '@welkinar/core'

/** The list of masks in a few words. */
export function whereSummary(where: Where): string {
  const masks = where.masks.filter((mask) => mask.on)
  if (masks.length === 0) return 'everywhere'
  const words = masks.map((mask, index) => `${joinWord(mask.join, index)}${maskWords(mask)}`)
  const hold = where.hold < 100 ? `; hold ${Math.round(where.hold)} %` : ''
  return `${words.join(' ')}${hold}`
}

function joinWord(join: MaskJoin, index: number): string {
  if (index === 0) return join === 'subtract' ? 'all less ' : ''
  return { keep: 'and ', add: 'plus ', subtract: 'less ' }[join]
}

/** One mask in a word or two: its own name, or what it does. */
export function maskWords(mask: Mask): string {
  if (mask.name) return mask.name
  const { summary } = maskDefinitionOf(mask.kind)
  const words = summary(mask)
  if (!mask.invert) return words
  const plain = summary({ ...mask, invert: false })
  return words === plain ? `not ${plain}` : words
}
