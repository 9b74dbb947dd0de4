import { z } from 'zod'
import { cornerSchema } from '../../model/corner'
import { lengthControl, percentControl } from '../../model/controls'
import { listOf, withRoles } from '../../model/roles'
import { pathFieldNode } from '../../operations/sources/pathField/pathField'
import { defineEffect, light } from '../effectDefinition'
import { glowNode, glowShape, glowSummary } from '../glow'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  /** Open Bézier paths. */
  paths: withRoles(listOf(listOf(cornerSchema, 500, 'corners', 1), 60, 'lines'), { byHand: true }),
  width: lengthControl({ label: 'Width', usual: [1, 40], hard: [0.1, 2000], step: 0.1 }),
  taper: percentControl('Taper', 'How much thinner the line is at its ends.'),
  hardness: percentControl('Hard edge'),
})

const controls = z.strictObject({ pattern, shape: glowShape })
export type GlowLineControls = z.infer<typeof controls>

export const glowLine = defineEffect({
  kind: 'glowLine',
  family: 'light',
  label: 'Glow line',
  place: 'near',
  shownPart: 1,
  controls,
  dials: ['pattern.width', 'pattern.taper', 'shape.tight', 'shape.middle', 'shape.wide', 'shape.spill'],
  startingLooks,
  inWords: ({ pattern }) => (pattern.paths.length === 0 ? 'Open Pattern and draw a line on the photo.' : ''),
  summary: ({ pattern, shape }) => ({
    pattern: pattern.paths.length === 1 ? `one line, ${Number(pattern.width.toFixed(1))} px` : `${pattern.paths.length} lines`,
    shape: glowSummary(shape),
  }),
  pattern: ({ pattern }) => pathFieldNode(pattern.paths, style(pattern)),
  contribute: ({ pattern, shape }, scene) => light(glowNode(pathFieldNode(pattern.paths, style(pattern)), shape, scene)),
})

function style({ width, taper, hardness }: GlowLineControls['pattern']): { width: number; taper: number; hardness: number } {
  return { width, taper: taper / 100, hardness: hardness / 100 }
}
