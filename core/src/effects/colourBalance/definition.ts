import { z } from 'zod'
import { choiceControl, numberControl } from '../../model/controls'
import { balanceNode, type Shift } from '../../operations/colour/balance/balance'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const shift = (label: string): z.ZodNumber =>
  numberControl({
    label,
    unit: '%',
    usual: [-100, 100],
    hard: [-100, 100],
    step: 1,
    hint: 'Below 0 its complement: cyan, magenta or yellow.',
  })

const pattern = z.strictObject({
  shadowsRed: shift('Shadows, red'),
  shadowsGreen: shift('Shadows, green'),
  shadowsBlue: shift('Shadows, blue'),
  midtonesRed: shift('Midtones, red'),
  midtonesGreen: shift('Midtones, green'),
  midtonesBlue: shift('Midtones, blue'),
  highlightsRed: shift('Highlights, red'),
  highlightsGreen: shift('Highlights, green'),
  highlightsBlue: shift('Highlights, blue'),
})

const shape = z.strictObject({ luminosity: choiceControl('How light it is', { keep: 'Stays', follow: 'Goes with the colours' }) })

const controls = z.strictObject({ pattern, shape })
export type ColourBalanceControls = z.infer<typeof controls>

export const colourBalance = defineEffect({
  kind: 'colourBalance',
  family: 'finish',
  label: 'Colour balance',
  place: 'finish',
  shownPart: 1,
  controls,
  ownColours: 'those of the picture',
  dials: ['pattern.midtonesRed', 'pattern.midtonesGreen', 'pattern.midtonesBlue'],
  neutral,
  startingLooks,
  summary: ({ pattern: p, shape }) => ({
    pattern: `shadows ${p.shadowsRed}, ${p.shadowsGreen}, ${p.shadowsBlue}; highlights ${p.highlightsRed}, ${p.highlightsGreen}, ${p.highlightsBlue}`,
    shape: shape.luminosity === 'keep' ? 'as light as it was' : 'as light as its colours',
  }),
  pattern: () => constantFieldNode(1),
  contribute: ({ pattern: p, shape }, { beneath }) => ({
    gives: 'correction',
    field: constantFieldNode(1),
    picture: () =>
      balanceNode(beneath, {
        shadows: shiftOf(p.shadowsRed, p.shadowsGreen, p.shadowsBlue),
        midtones: shiftOf(p.midtonesRed, p.midtonesGreen, p.midtonesBlue),
        highlights: shiftOf(p.highlightsRed, p.highlightsGreen, p.highlightsBlue),
        keepLuminosity: shape.luminosity === 'keep',
      }),
  }),
})

function shiftOf(red: number, green: number, blue: number): Shift {
  return [red / 100, green / 100, blue / 100]
}
