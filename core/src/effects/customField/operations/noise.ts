import type { GraphNode } from '../../../graph/node'
import { steady } from '../../../graph/steady'
import { angleControl, choiceControl, lengthControl, numberControl, percentControl, seedControl } from '../../../model/controls'
import { fieldAsMaskNode } from '../../../operations/fields/fieldAsMask/fieldAsMask'
import { bendNode } from '../../../operations/geometry/bend/bend'
import { lightFieldNode } from '../../../operations/light/lightOfTones/lightOfTones'
import { maskAsTonesNode } from '../../../operations/masks/maskAsTones/maskAsTones'
import { mixNode } from '../../../operations/mixing/mix/mix'
import { modeLabels } from '../../../operations/mixing/mix/mixModes'
import { constantFieldNode } from '../../../operations/sources/constantField/constantField'
import { turbulenceNode } from '../../../operations/sources/turbulence/turbulence'
import type { z } from 'zod'
import { operation } from './fieldOperation'

// What brings noise of its own.

const { normal, multiply, screen, overlay, darken, lighten, difference, exclusion, subtract } = modeLabels
/** Those of the mix modes that have a meaning without colours. */
const fieldModes = {
  ...{ normal, multiply, screen, overlay, darken, lighten, difference, exclusion, subtract },
  'color-dodge': modeLabels['color-dodge'],
  'color-burn': modeLabels['color-burn'],
  'hard-light': modeLabels['hard-light'],
  'soft-light': modeLabels['soft-light'],
  'plus-lighter': modeLabels['plus-lighter'],
  'linear-light': modeLabels['linear-light'],
}

/** Noise that an operation has of its own. */
const ownNoise = {
  type: choiceControl('Noise', { smooth: 'Smooth', billowed: 'Billowed' }),
  sizeX: lengthControl({ label: 'Across', usual: [2, 1500], hard: [0.5, 100000], step: 1, hint: 'At 100 000 it is the same all across.' }),
  sizeY: lengthControl({ label: 'Down', usual: [2, 1500], hard: [0.5, 100000], step: 1, hint: 'At 100 000 it is the same all down.' }),
  octaves: numberControl({ label: 'Octaves', unit: '', usual: [1, 8], hard: [1, 10], step: 1, whole: true }),
  seed: seedControl(),
}

const WITHOUT_END = 100000

function ownNoiseNode({ type, sizeX, sizeY, octaves, seed }: z.infer<z.ZodObject<typeof ownNoise>>): GraphNode {
  const frequency = (size: number): number => (size >= WITHOUT_END ? 0 : steady(1 / size))
  return turbulenceNode({ type, frequencyX: frequency(sizeX), frequencyY: frequency(sizeY), octaves, seed, channel: 'red', tile: null })
}

export const second = operation(
  'second',
  'Another noise',
  { mode: choiceControl('Joined by', fieldModes), amount: percentControl('Amount'), ...ownNoise },
  { mode: 'multiply', amount: 100, type: 'smooth', sizeX: 400, sizeY: 400, octaves: 4, seed: 5 },
  (field, { mode, amount, ...noise }) => {
    const grey = (one: GraphNode): GraphNode => maskAsTonesNode(fieldAsMaskNode(one))
    const how = { mode, amount: amount / 100, linear: false, colour: [1, 1, 1] } as const
    return lightFieldNode(mixNode(grey(field), constantFieldNode(1), undefined, how, grey(ownNoiseNode(noise))))
  },
)

export const bent = operation(
  'bend',
  'Bend by noise',
  {
    reach: lengthControl({
      label: 'Reach',
      usual: [0, 300],
      hard: [0, 1000],
      step: 1,
      hint: 'How far it is moved at most, to either side.',
    }),
    angle: angleControl('Direction'),
    ...ownNoise,
  },
  { reach: 120, angle: 0, type: 'smooth', sizeX: 400, sizeY: 400, octaves: 4, seed: 9 },
  (field, { reach, angle, ...noise }) => bendNode(field, ownNoiseNode(noise), { reach, angle }),
)
