import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { choiceControl } from '../../model/controls'
import { listOf } from '../../model/roles'
import { joinChannelsNode } from '../../operations/colour/joinChannels/joinChannels'
import { curveNode } from '../../operations/fields/curve/curve'
import { mixNode } from '../../operations/mixing/mix/mix'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const part = z.number().min(0).max(1)
const curve = listOf(z.strictObject({ x: part, y: part }), 16, 'points', 2)

const pattern = z.strictObject({
  /** Tone that goes in and tone that comes out, each 0-1, encoded. */
  all: curve,
  red: curve,
  green: curve,
  blue: curve,
})

const shape = z.strictObject({
  keeps: choiceControl('Changes', { colours: 'Each channel, and so the colours', lightness: 'Lightness only; hue and saturation stay' }),
})

const controls = z.strictObject({ pattern, shape })
export type CurvesControls = z.infer<typeof controls>

export const curves = defineEffect({
  kind: 'curves',
  family: 'finish',
  label: 'Curves',
  place: 'finish',
  shownPart: 1,
  controls,
  ownColours: 'those of the picture',
  dials: [],
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.all.length} points`,
    shape: shape.keeps === 'lightness' ? 'lightness only' : 'each channel',
  }),
  pattern: () => constantFieldNode(1),
  contribute: (controls, { beneath }) => ({ gives: 'correction', field: constantFieldNode(1), picture: () => bent(beneath, controls) }),
})

function bent(tones: GraphNode, { pattern, shape }: CurvesControls): GraphNode {
  const all = curveNode(tones, pattern.all)
  const isStill = [pattern.red, pattern.green, pattern.blue].every((points) => curveNode(all, points) === all)
  const each = isStill ? all : joinChannelsNode(curveNode(all, pattern.red), curveNode(all, pattern.green), curveNode(all, pattern.blue))
  if (shape.keeps === 'colours') return each
  // Luminosity of W3C Compositing and Blending Level 1: the lightness of the one with the colours of the other.
  return mixNode(tones, constantFieldNode(1), undefined, { mode: 'luminosity', amount: 1, linear: false, colour: [1, 1, 1] }, each)
}
