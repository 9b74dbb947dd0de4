import { z } from 'zod'
import type { GraphNode } from '../graph/node'
import { choiceControl, lengthControl, strengthControl } from '../model/controls'
import { invertedNode } from '../operations/masks/combineMasks/combineMasks'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../operations/fields/joinFields/joinFields'
import { luminosityMaskNode } from '../operations/masks/luminosityMask/luminosityMask'
import { sumFieldsNode } from '../operations/fields/sumFields/sumFields'
import type { EffectScene } from './effectDefinition'

/** Whether a control counts: behind what glows nothing of it is seen sharp. */
export function appliesToGlow(path: string, { sits }: GlowShape): boolean {
  return path !== 'shape.sharp' || sits === 'over'
}

/** A glow: what glows is kept sharp once and blurred three times, and all of it is added up. */
export const glowShape = z.strictObject({
  sits: choiceControl('Sits', { behind: 'Behind it, as a rim', over: 'Over it' }),
  sharp: strengthControl('Sharp', 'How bright what glows is itself.'),
  tight: strengthControl('Tight'),
  tightRadius: lengthControl({ label: 'Tight radius', usual: [1, 30], hard: [0, 3000], step: 0.5 }),
  middle: strengthControl('Middle'),
  middleRadius: lengthControl({ label: 'Middle radius', usual: [5, 80], hard: [0, 5000], step: 0.5 }),
  wide: strengthControl('Wide'),
  wideRadius: lengthControl({ label: 'Wide radius', usual: [20, 400], hard: [0, 10000], step: 1 }),
  spill: strengthControl('Spill', 'A faint wash of the same light on the surroundings, on their brights.'),
  spillReach: lengthControl({ label: 'Spill reach', usual: [50, 900], hard: [1, 20000], step: 5 }),
})
export type GlowShape = z.infer<typeof glowShape>

/** 5, 20–25 and 50 px: common practice, no source. For 6 megapixels. */
export const glowStart: GlowShape = {
  sits: 'over',
  sharp: 100,
  tight: 70,
  tightRadius: 5,
  middle: 60,
  middleRadius: 22,
  wide: 55,
  wideRadius: 50,
  spill: 12,
  spillReach: 260,
}

/** The glow of a field or mask, as a field. @param gain by which what is blurred by a radius is brightened */
export function glowNode(
  source: GraphNode,
  shape: GlowShape,
  { picture }: Pick<EffectScene, 'picture'>,
  gain: (radius: number) => number = () => 1,
): GraphNode {
  const part = (percent: number, radius: number): GraphNode[] =>
    percent > 0 ? [scaleFieldNode(gaussianBlurNode(source, radius), (gain(radius) * percent) / 100)] : []
  const spread = [
    ...(shape.sits === 'over' ? part(shape.sharp, 0) : []),
    ...part(shape.tight, shape.tightRadius),
    ...part(shape.middle, shape.middleRadius),
    ...part(shape.wide, shape.wideRadius),
  ]
  const glow = spread.length > 0 ? sumFieldsNode(spread) : scaleFieldNode(source, 0)
  const seen = shape.sits === 'behind' ? joinFieldsNode([glow, invertedNode(source)], 'product') : glow
  if (shape.spill === 0) return seen
  const brights = luminosityMaskNode(picture, { channel: 'encodedLuma', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })
  const wash = joinFieldsNode([gaussianBlurNode(source, shape.spillReach), brights], 'product')
  return sumFieldsNode([seen, scaleFieldNode(wash, (gain(shape.spillReach) * 2 * shape.spill) / 100)])
}

export function glowSummary({ tightRadius, middleRadius, wideRadius, sits }: GlowShape): string {
  return `${[tightRadius, middleRadius, wideRadius].map((radius) => Math.round(radius)).join(', ')} px, ${sits}`
}
