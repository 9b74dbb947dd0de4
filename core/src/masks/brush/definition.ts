import { z } from 'zod'
import { hexColour, lengthControl, percentControl, placeControl } from '../../model/controls'
import { listOf, withRoles } from '../../model/roles'
import { brushMaskNode } from '../../operations/masks/brushMask/brushMask'
import { calmTonesOf } from '../tonesFrom'
import { MOST_GUIDES } from './guides'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

/** Most points of one stroke; the interface begins a new one beyond it. */
export const MOST_STROKE_POINTS = 4000

export const pressureUses = ['nothing', 'size', 'flow', 'both'] as const

/** Of a new brush. */
export const TOLERANCE = 10

export const toleranceControl = percentControl(
  'Tolerance',
  'Of a brush that stops at edges: how far off a colour may be, in OKLab, times 100.',
)

export const brushControls = {
  size: lengthControl({ label: 'Size', usual: [2, 1000], hard: [0.5, 20000], step: 1, hint: 'Diameter. J and L change it.' }),
  hardness: percentControl('Hardness', 'Part of the radius that is fully painted.'),
  flow: percentControl('Flow', 'How far one stroke goes towards its level; strokes over each other build up.'),
  level: percentControl('Level', 'What is painted: 0 shut, 100 open.'),
  pressure: z.enum(pressureUses),
}

const points = withRoles(
  listOf(z.number().min(-100000).max(100000), 3 * MOST_STROKE_POINTS, 'numbers of stroke points', 3).refine(
    (values) => values.length % 3 === 0,
    { message: 'expected x, y and pressure for each point' },
  ),
  { measures: 'stroke points' },
)

const guideSchema = z.strictObject({ x: placeControl('x'), y: placeControl('y'), colour: hexColour })

const strokeSchema = z.strictObject({
  ...brushControls,
  erase: z.boolean(),
  points,
  /** Of a stroke that stops at edges: places along it, and the colour that it keeps to about each. */
  guides: listOf(guideSchema, MOST_GUIDES, 'guides').default([]),
  tolerance: toleranceControl.default(TOLERANCE),
})
/** One stroke: `points` are x, y in photo px and pressure 0-1, again and again. */
export type BrushStroke = z.infer<typeof strokeSchema>

export const brushMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('brush'),
  strokes: listOf(strokeSchema, 2000, 'strokes'),
})
export type BrushMask = z.infer<typeof brushMaskSchema>

export const brushMaskKind: MaskDefinition<BrushMask> = {
  kind: 'brush',
  label: 'Brush',
  hint: 'Painted by hand',
  start: () => ({ kind: 'brush', strokes: [] }),
  summary: ({ invert }) => (invert ? 'all but what is painted' : 'painted'),
  node: ({ strokes }, context) => brushMaskNode(strokes, calmTonesOf({ tonesFrom: 'photo', pinned: null }, context)),
  problem: ({ strokes }) => (strokes.length > 0 ? undefined : 'Nothing is painted yet: draw on the photo.'),
}
