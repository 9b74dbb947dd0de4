import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect } from '../effectDefinition'
import { adjustControls, adjusted, appliesToAdjusted } from './adjusted'
import { neutral, startingLooks } from './startingLooks'

export const adjust = defineEffect({
  kind: 'adjust',
  family: 'finish',
  label: 'Adjust',
  place: 'finish',
  shownPart: 1,
  controls: adjustControls,
  ownColours: 'those of the picture',
  dials: ['pattern.shadows', 'pattern.highlights', 'pattern.contrast', 'pattern.exposure', 'shape.warmth', 'shape.saturation'],
  pulls: ['pattern.exposure', 'shape.warmth'],
  applies: appliesToAdjusted,
  neutral,
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `${pattern.exposure >= 0 ? '+' : ''}${Number(pattern.exposure.toFixed(2))} EV, contrast ${Math.round(pattern.contrast)}`,
    shape: `warmth ${Math.round(shape.warmth)}, saturation ${Math.round(shape.saturation)}`,
  }),
  pattern: () => constantFieldNode(1),
  contribute: (controls, { beneath }) => ({ gives: 'correction', field: constantFieldNode(1), picture: () => adjusted(beneath, controls) }),
})
