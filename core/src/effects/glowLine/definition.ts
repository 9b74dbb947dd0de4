import { z } from 'zod'
import { cornerSchema } from '../../model/corner'
import { choiceControl, lengthControl, percentControl } from '../../model/controls'
import { listOf, withRoles } from '../../model/roles'
import { pathFieldNode } from '../../operations/sources/pathField/pathField'
import { steady } from '../../graph/steady'
import { defineEffect, light } from '../effectDefinition'
import { appliesToGlow, glowNode, glowShape, glowSummary } from '../glow'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  /** Open Bézier paths. */
  paths: withRoles(listOf(listOf(cornerSchema, 500, 'corners', 1), 60, 'lines'), { byHand: true }),
  width: lengthControl({ label: 'Width', usual: [1, 40], hard: [0.1, 2000], step: 0.1 }),
  taper: percentControl('Taper', 'How much thinner the line is at its ends.'),
  hardness: percentControl('Hard edge'),
})

const shape = glowShape.extend({
  halo: choiceControl('Halo', {
    light: 'Thinner the farther it spreads',
    line: 'At the line as bright as it says',
  }).default('light'),
})

const controls = z.strictObject({ pattern, shape })
export type GlowLineControls = z.infer<typeof controls>

export const glowLine = defineEffect({
  kind: 'glowLine',
  family: 'light',
  label: 'Glow line',
  place: 'near',
  shownPart: 1,
  controls,
  dials: ['pattern.width', 'pattern.taper', 'shape.tight', 'shape.middle', 'shape.wide', 'shape.spill'],
  applies: (path, { shape }) => appliesToGlow(path, shape),
  startingLooks,
  inWords: ({ pattern }) => (pattern.paths.length === 0 ? 'Open Pattern and draw a line on the photo.' : ''),
  summary: ({ pattern, shape }) => ({
    pattern: pattern.paths.length === 1 ? `one line, ${Number(pattern.width.toFixed(1))} px` : `${pattern.paths.length} lines`,
    shape: glowSummary(shape),
  }),
  pattern: ({ pattern }) => pathFieldNode(pattern.paths, style(pattern)),
  contribute: ({ pattern, shape }, scene) => {
    const gain = shape.halo === 'line' ? (radius: number) => atTheLine(radius, pattern.width) : undefined
    return light(glowNode(pathFieldNode(pattern.paths, style(pattern)), shape, scene, gain))
  },
})

/**
 * What makes a straight line as bright as before when it is blurred: one over the integral of a Gaussian over its width, as width over the root of width² and 2 π σ², which is right for
 * narrow and for wide lines and off by a tenth between them.
 */
function atTheLine(sigma: number, width: number): number {
  return steady(Math.min(MOST_GAIN, Math.sqrt(1 + 2 * Math.PI * (sigma / Math.max(0.1, width)) ** 2)))
}

/** A hair-thin line that is blurred far would be all noise. */
const MOST_GAIN = 400

function style({ width, taper, hardness }: GlowLineControls['pattern']): { width: number; taper: number; hardness: number } {
  return { width, taper: taper / 100, hardness: hardness / 100 }
}
