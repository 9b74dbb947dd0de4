import { z } from 'zod'
import { choiceControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { grainNode } from '../../operations/sources/grain/grain'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect, light } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const pattern = z.strictObject({
  size: numberControl({
    label: 'Size',
    unit: 'px',
    usual: [0.4, 3],
    hard: [0, 60],
    step: 0.05,
    hint: 'Of a grain, pixel for pixel, whatever the size of the photo.',
  }),
  clumping: percentControl('Clumping', 'How much of it lies together in coarser grains.'),
  colours: choiceControl('Grain', { one: 'Of one colour', own: 'Of its own in each channel' }),
  seed: seedControl(),
})

const shape = z.strictObject({
  strength: numberControl({
    label: 'Strength',
    unit: '%',
    usual: [0, 30],
    hard: [0, 100],
    step: 0.5,
    hint: 'Standard deviation, as a part of the range.',
  }),
})

const controls = z.strictObject({ pattern, shape })
export type GrainControls = z.infer<typeof controls>

export const grain = defineEffect({
  kind: 'grain',
  family: 'finish',
  label: 'Grain',
  place: 'finish',
  shownPart: 0.2,
  controls,
  ownColours: 'grey, or of its own',
  dials: ['pattern.size', 'pattern.clumping', 'shape.strength'],
  pulls: ['shape.strength', 'pattern.size'],
  neutral,
  startingLooks,
  inWords: () => 'Judge it pixel for pixel: Q shows the photo at 1:1.',
  summary: ({ pattern, shape }) => ({
    pattern: `grains of ${Number(pattern.size.toFixed(2))} px, seed ${pattern.seed}`,
    shape: `${Number(shape.strength.toFixed(1))} %`,
  }),
  pattern: () => constantFieldNode(1),
  contribute: ({ pattern, shape }) =>
    light(constantFieldNode(1), () =>
      grainNode({
        seed: pattern.seed,
        coloured: pattern.colours === 'own',
        size: pattern.size,
        deviation: shape.strength / 100,
        clumping: pattern.clumping / 100,
      }),
    ),
})
