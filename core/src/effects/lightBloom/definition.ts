import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { lengthControl, numberControl, percentControl } from '../../model/controls'
import { spreadLightNode } from '../../operations/light/brights/brights'
import { lightColoursNode, lightFieldNode } from '../../operations/light/lightOfTones/lightOfTones'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  threshold: percentControl('Threshold', 'Linear brightness from which light spreads.'),
  onset: percentControl('Onset', 'How softly it sets in.'),
})

const shape = z.strictObject({
  radius: lengthControl({ label: 'Radius', usual: [2, 150], hard: [0.5, 6000], step: 0.5, hint: 'Of the narrowest part.' }),
  reach: numberControl({ label: 'Reach', unit: '×', usual: [1, 12], hard: [1, 60], step: 0.1, hint: 'How much wider the widest part is.' }),
  tail: percentControl('Tail', 'How much light goes into the wide parts.'),
  strength: numberControl({ label: 'Strength', unit: '%', usual: [0, 300], hard: [0, 5000], step: 1 }),
})

const controls = z.strictObject({ pattern, shape })
export type LightBloomControls = z.infer<typeof controls>

/** Up to this reach two Gaussians have no gap between them. */
const TWO_UP_TO = 6

export const lightBloom = defineEffect({
  kind: 'lightBloom',
  family: 'light',
  label: 'Light bloom',
  place: 'lens',
  shownPart: 1,
  controls,
  ownColours: 'of the lights, tinted',
  dials: ['pattern.threshold', 'shape.radius', 'shape.reach', 'shape.tail', 'shape.strength'],
  takesBrights: { from: 'pattern.threshold', linear: true, strength: 'shape.strength', rises: 1 },
  startingLooks,
  summary: ({ pattern, shape }) => ({
    pattern: `lights above ${Math.round(pattern.threshold)} %`,
    shape: `${Math.round(shape.radius)} to ${Math.round(shape.radius * shape.reach)} px`,
  }),
  pattern: ({ pattern, shape }, scene) =>
    lightFieldNode(spread({ pattern, shape: { ...shape, radius: 0, reach: 1, strength: 100 } }, scene)),
  contribute(controls, scene, tint) {
    const spreading = spread(controls, scene)
    return light(lightFieldNode(spreading, true), () => lightColoursNode(spreading, tint))
  },
})

/** Radii in even steps of their logarithm, each with its share of the light. */
function spread({ pattern, shape }: LightBloomControls, { beneath }: EffectScene): GraphNode {
  const parts = shape.reach > TWO_UP_TO ? 3 : 2
  const shares = Array.from({ length: parts }, (_, k) => Math.pow(Math.max(0.02, shape.tail / 100), k))
  const whole = shares.reduce((sum, share) => sum + share, 0)
  const widths = shares.map((share, k) => {
    const sigma = shape.radius * Math.pow(shape.reach, k / (parts - 1))
    return [Number(sigma.toPrecision(7)), Number(((share / whole) * (shape.strength / 100)).toPrecision(7))] as const
  })
  return spreadLightNode(beneath, { threshold: pattern.threshold / 100, soft: 0.02 + (0.4 * pattern.onset) / 100, widths })
}
