import { maskDefinitionOf, sharedMaskOf, type Mask, type MaskJoin, type PictureSource, type Where } from '@welkinar/core'

type Shared = Pick<PictureSource, 'shared'>

/** The list of masks in a few words. */
export function whereSummary(where: Where, scene: Shared): string {
  const masks = where.masks.filter((mask) => mask.on)
  if (masks.length === 0) return 'everywhere'
  const words = masks.map((mask, index) => `${joinWord(mask.join, index)}${maskWords(mask, scene)}`)
  const hold = where.hold < 100 ? `; hold ${Math.round(where.hold)} %` : ''
  return `${words.join(' ')}${hold}`
}

function joinWord(join: MaskJoin, index: number): string {
  if (index === 0) return join === 'subtract' ? 'all less ' : ''
  return { keep: 'and ', add: 'plus ', subtract: 'less ' }[join]
}

/** One mask in a word or two: its own name, or what it does. */
export function maskWords(mask: Mask, scene: Shared): string {
  if (mask.name) return mask.name
  const shared = mask.kind === 'shared' ? sharedMaskOf(scene, mask.of) : undefined
  if (shared) return mask.invert ? `not ${shared.name}` : shared.name
  const { summary } = maskDefinitionOf(mask.kind)
  const words = summary(mask)
  if (!mask.invert) return words
  const plain = summary({ ...mask, invert: false })
  return words === plain ? `not ${plain}` : words
}
