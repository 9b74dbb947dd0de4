import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { numberControl } from '../../model/controls'
import { middleOf } from '../../model/frame'
import { steady } from '../../graph/steady'
import { joinChannelsNode } from '../../operations/colour/joinChannels/joinChannels'
import { placeNode } from '../../operations/geometry/place/place'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const shift = (label: string, hint: string): z.ZodNumber =>
  numberControl({ label, unit: '‰', usual: [-2, 2], hard: [-30, 30], step: 0.05, hint })

const pattern = z.strictObject({
  red: shift('Red', 'How much larger red is drawn than green, in thousandths.'),
  blue: shift('Blue', 'How much larger blue is drawn than green, in thousandths.'),
})

const controls = z.strictObject({ pattern, shape: z.strictObject({}) })
export type FringeControls = z.infer<typeof controls>

export const fringe = defineEffect({
  kind: 'fringe',
  family: 'finish',
  label: 'Fringe',
  place: 'finish',
  shownPart: 0.25,
  controls,
  ownColours: 'those of the picture',
  dials: ['pattern.red', 'pattern.blue'],
  neutral,
  startingLooks,
  inWords: () => 'Judge it in a corner, pixel for pixel: Q shows the photo at 1:1.',
  summary: ({ pattern }) => ({
    pattern: `red ${Number(pattern.red.toFixed(2))} ‰, blue ${Number(pattern.blue.toFixed(2))} ‰`,
    shape: 'as it is',
  }),
  pattern: () => constantFieldNode(1),
  contribute: ({ pattern }, { beneath, frame }) => ({
    gives: 'correction',
    field: constantFieldNode(1),
    // Lateral chromatic aberration: a lens draws each colour at a size of its own.
    picture() {
      const { x: centreX, y: centreY } = middleOf(frame)
      const sized = (thousandths: number, only: 0 | 2): GraphNode =>
        placeNode(beneath, {
          enlarge: steady(1 + thousandths / 1000),
          turn: 0,
          moveX: 0,
          moveY: 0,
          centreX,
          centreY,
          only,
        })
      return joinChannelsNode(sized(pattern.red, 0), beneath, sized(pattern.blue, 2))
    },
  }),
})
