import { z } from 'zod'
import { choiceControl, numberControl, percentControl } from '../../model/controls'
import { highPassNode } from '../../operations/fields/difference/difference'
import { mixNode } from '../../operations/mixing/mix/mix'
import { unsharpNode } from '../../operations/colour/unsharp/unsharp'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  by: choiceControl('Sharpened by', { unsharp: 'Unsharp mask', highPass: 'High-pass, Overlay' }),
  radius: numberControl({
    label: 'Radius',
    unit: 'px',
    usual: [0.3, 10],
    hard: [0.2, 500],
    step: 0.1,
    hint: 'What is seen pixel for pixel, whatever the size of the photo.',
  }),
})

const shape = z.strictObject({
  strength: numberControl({ label: 'Strength', unit: '%', usual: [0, 300], hard: [0, 1000], step: 1 }),
  threshold: percentControl('Threshold', 'Differences up to this stay: noise in even places. 100 % is a tenth of the range.'),
})

const controls = z.strictObject({ pattern, shape })
export type SharpenControls = z.infer<typeof controls>

export const sharpen = defineEffect({
  kind: 'sharpen',
  family: 'finish',
  label: 'Sharpen',
  place: 'finish',
  shownPart: 0.25,
  controls,
  ownColours: 'those of the picture',
  dials: ['pattern.radius', 'shape.strength', 'shape.threshold'],
  pulls: ['shape.strength', 'pattern.radius'],
  applies: (path, { pattern }) => path !== 'shape.threshold' || pattern.by === 'unsharp',
  neutral,
  startingLooks,
  inWords: () => 'Judge it pixel for pixel: Q shows the photo at 1:1.',
  summary: ({ pattern, shape }) => ({
    pattern: `${Number(pattern.radius.toFixed(1))} px`,
    shape: `${Math.round(shape.strength)} %`,
  }),
  pattern: () => constantFieldNode(1),
  contribute: ({ pattern, shape }, { beneath }) => ({
    gives: 'correction',
    field: constantFieldNode(1),
    picture() {
      const amount = shape.strength / 100
      if (pattern.by === 'unsharp') return unsharpNode(beneath, pattern.radius, amount, shape.threshold / 1000)
      const field = constantFieldNode(1)
      return mixNode(
        beneath,
        field,
        undefined,
        { mode: 'overlay', amount, linear: false, colour: [1, 1, 1] },
        highPassNode(beneath, pattern.radius),
      )
    },
  }),
})
