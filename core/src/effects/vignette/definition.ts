import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { mapRgb, type Rgb } from '../../colour/hex'
import { numberControl, percentControl } from '../../model/controls'
import { steady } from '../../graph/steady'
import { gainByMaskNode } from '../../operations/colour/gainByMask/gainByMask'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { ellipseMaskNode } from '../../operations/masks/shapeMasks/ellipseMask'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect, type EffectScene } from '../effectDefinition'
import { originControls, originOf, originPlace } from '../origin'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  ...originControls,
  size: numberControl({
    label: 'Size',
    unit: '%',
    usual: [60, 200],
    hard: [5, 1000],
    step: 1,
    hint: 'Where it is full, against the corners of the frame.',
  }),
  roundness: percentControl('How round', 'At 0 as long as the frame, at 100 a circle.'),
  softness: percentControl('Feather', 'Over how much of the way from the middle it falls.'),
})

const shape = z.strictObject({
  darken: numberControl({
    label: 'Darken',
    unit: 'EV',
    usual: [-2, 3],
    hard: [-8, 8],
    step: 0.05,
    hint: 'Below 0 the borders get lighter.',
  }),
  lift: numberControl({ label: 'Lift middle', unit: 'EV', usual: [0, 1], hard: [-4, 4], step: 0.05 }),
  spare: percentControl('Spare the brights', 'Lights near the border keep some of their strength.'),
})

const controls = z.strictObject({ pattern, shape })
export type VignetteControls = z.infer<typeof controls>

export const vignette = defineEffect({
  kind: 'vignette',
  family: 'finish',
  label: 'Vignette',
  place: 'finish',
  shownPart: 1,
  controls,
  ownColours: 'those of the picture',
  dials: ['shape.darken', 'shape.lift', 'pattern.size', 'pattern.softness', 'pattern.roundness'],
  inFrame: true,
  places: [{ ...originPlace, label: 'Middle' }],
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `full at ${Math.round(pattern.size)} %`,
    shape: `${Number(shape.darken.toFixed(2))} EV darker${shape.lift ? `, middle ${Number(shape.lift.toFixed(2))} EV lighter` : ''}`,
  }),
  pattern: ({ pattern }, scene) => invertedNode(within(pattern, scene)),
  contribute: (controls, scene) => ({ gives: 'correction', field: constantFieldNode(1), picture: () => darkened(controls, scene) }),
})

/** Half the diagonal of a square of side 1: a circle through the corners of the frame has the same area as the ellipse through them. */
const CORNER = Math.SQRT2

/** 1 in the middle, 0 where the vignette is full. */
function within({ size, roundness, softness, ...origin }: VignetteControls['pattern'], { frame, marks }: EffectScene): GraphNode {
  const { x, y } = originOf(origin, marks)
  const { width, height, turn } = frame
  const round = Math.sqrt(width * height) / 2
  const radius = (side: number): number => steady(((CORNER * size) / 100) * (side / 2 + (roundness / 100) * (round - side / 2)))
  return ellipseMaskNode({ x, y, radiusX: radius(width), radiusY: radius(height), turn: -turn, softness: Math.max(0.01, softness / 100) })
}

/** In linear light: times 2^lift in the middle, times 2^-darken outside, and between them in between. */
function darkened({ pattern, shape }: VignetteControls, scene: EffectScene): GraphNode {
  const gain = (ev: number): Rgb => mapRgb([1, 1, 1], () => steady(Math.pow(2, ev)))
  const middle = scaleFieldNode(within(pattern, scene), 1)
  const brights = (): GraphNode =>
    scaleFieldNode(
      luminosityMaskNode(scene.beneath, { channel: 'encodedLuma', curve: 'range', handles: [0.6, 1, 1, 1], steepness: 0 }),
      shape.spare / 100,
    )
  const inside = shape.spare > 0 ? joinFieldsNode([middle, brights()], 'screen') : middle
  return gainByMaskNode(scene.beneath, inside, { outside: gain(-shape.darken), inside: gain(shape.lift) })
}
