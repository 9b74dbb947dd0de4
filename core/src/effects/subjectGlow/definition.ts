import { z } from 'zod'
import { percentControl } from '../../model/controls'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { defineEffect, light } from '../effectDefinition'
import { appliesToGlow, glowNode, glowShape, glowSummary } from '../glow'
import { startingLooks } from './startingLooks'

const controls = z.strictObject({
  pattern: z.strictObject({ brightness: percentControl('Brightness', 'Of the subject before it is blurred.') }),
  shape: glowShape,
})
export type SubjectGlowControls = z.infer<typeof controls>

export const subjectGlow = defineEffect({
  kind: 'subjectGlow',
  family: 'light',
  label: 'Subject glow',
  place: 'near',
  shownPart: 1,
  controls,
  dials: ['shape.tight', 'shape.middle', 'shape.wide', 'shape.spill'],
  region: { label: 'Subject', step: 'pattern', hint: 'What glows: outlined, painted, or taken by its colour.' },
  applies: (path, { shape }) => appliesToGlow(path, shape),
  startingLooks,
  summary: ({ pattern, shape }) => ({ pattern: `white on black, ${Math.round(pattern.brightness)} %`, shape: glowSummary(shape) }),
  pattern: ({ pattern }, { region }) => (region ? scaleFieldNode(region, pattern.brightness / 100) : constantFieldNode(0)),
  contribute: ({ pattern, shape }, scene) =>
    light(scene.region ? glowNode(scaleFieldNode(scene.region, pattern.brightness / 100), shape, scene) : constantFieldNode(0)),
})
