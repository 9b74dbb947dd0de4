import { z } from 'zod'
import { colourTableSchema } from '../../model/colourTable'
import { colourTableNode } from '../../operations/colour/colourTable/colourTable'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { defineEffect } from '../effectDefinition'
import { neutral, startingLooks } from './startingLooks'

const controls = z.strictObject({ pattern: z.strictObject({ table: colourTableSchema }), shape: z.strictObject({}) })
export type ColourTableControls = z.infer<typeof controls>

export const colourTable = defineEffect({
  kind: 'colourTable',
  family: 'finish',
  label: 'Colour table',
  place: 'finish',
  shownPart: 1,
  controls,
  ownColours: 'those of the picture',
  dials: [],
  neutral,
  startingLooks,
  summary: ({ pattern: { table } }) => ({
    pattern: `${table.name}, ${table.kind === 'cube' ? `${table.size} × ${table.size} × ${table.size}` : `curves of ${table.size}`}`,
    shape: 'as it is',
  }),
  pattern: () => constantFieldNode(1),
  contribute: ({ pattern }, { beneath }) => ({
    gives: 'correction',
    field: constantFieldNode(1),
    picture: () => colourTableNode(beneath, pattern.table),
  }),
})
