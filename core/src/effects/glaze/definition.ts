import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { choiceControl, levelControls, placeControl } from '../../model/controls'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { levelsNode } from '../../operations/fields/levels/levels'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  by: choiceControl('Laid', { even: 'Evenly', slope: 'Along a slope', tones: 'By the tones beneath' }),
  x: placeControl('x', 'From', { byHand: true }),
  y: placeControl('y', 'From', { byHand: true }),
  toX: placeControl('x', 'To', { byHand: true }),
  toY: placeControl('y', 'To', { byHand: true }),
})

const shape = z.strictObject({
  ...levelControls,
  changes: choiceControl('What changes along it', { amount: 'How much of it there is', colour: 'Its colour only, by a ramp' }),
})

const controls = z.strictObject({ pattern, shape })
export type GlazeControls = z.infer<typeof controls>

export const glaze = defineEffect({
  kind: 'glaze',
  family: 'own',
  label: 'Glaze',
  place: 'finish',
  shownPart: 1,
  controls,
  dials: ['shape.black', 'shape.white', 'shape.gamma'],
  places: [
    { label: 'Where it begins', x: 'pattern.x', y: 'pattern.y' },
    { label: 'Where it ends', x: 'pattern.toX', y: 'pattern.toY' },
  ],
  applies: (path, { pattern }) => (path.startsWith('shape.') ? pattern.by !== 'even' : path === 'pattern.by' || pattern.by === 'slope'),
  neutral,
  startingLooks,
  inWords: ({ pattern, shape }) =>
    pattern.by !== 'even' && shape.changes === 'colour' ? 'Its colours are those of a ramp: open Colour to change them.' : '',
  summary: ({ pattern, shape }) => ({
    pattern: { even: 'a plain colour', slope: 'along a slope', tones: 'by the tones beneath' }[pattern.by],
    shape: pattern.by === 'even' ? 'as it is' : shape.changes === 'colour' ? 'everywhere, in its colours' : 'more and less of it',
  }),
  pattern: ({ pattern }, scene) => rawOf(pattern, scene),
  contribute({ pattern, shape }, scene) {
    const { black, white, gamma } = shape
    const levels = { black: black / 100, white: Math.max(black + 1, white) / 100, gamma }
    const along = pattern.by === 'even' ? constantFieldNode(1) : levelsNode(rawOf(pattern, scene), levels)
    return shape.changes === 'colour' ? { ...light(constantFieldNode(1)), ramped: along } : light(along)
  },
})

function rawOf({ by, x, y, toX, toY }: GlazeControls['pattern'], { beneath }: EffectScene): GraphNode {
  if (by === 'even') return constantFieldNode(1)
  if (by === 'slope') return scaleFieldNode(lineMaskNode({ x, y, toX, toY }), 1)
  return scaleFieldNode(luminosityMaskNode(beneath, { channel: 'encodedLuma', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 }), 1)
}
