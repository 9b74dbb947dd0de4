import { describe, expect, it } from 'vitest'
import type { z } from 'zod'
import { maskDefinitions, maskSchemaOf } from '../masks/registry'
import { newMask } from '../masks/newMask'
import { controlOf } from '../model/controls'
import { noMarks } from '../model/marks'
import { spanOf } from '../model/span'
import { mapDocument } from '../model/walk'
import type { Size } from '../planes/grid'
import { newEffect } from './newEffect'
import { effectDefinitions } from './registry'

const sizes: readonly (readonly [string, Size])[] = [
  ['6', { width: 3000, height: 2000 }],
  ['24', { width: 6000, height: 4000 }],
  ['60 upright', { width: 6336, height: 9504 }],
]

/** Noise that is the same all along one side: as long as can be. */
const ENDLESS = 100000

/** Controls whose number lies beyond their slider on a photo. */
function beyond<T>(schema: z.ZodType<T>, value: T, photo: Size): string[] {
  const found: string[] = []
  mapDocument(schema, value, (number, _, at) => {
    const span = spanOf(at, photo)
    if (span && number !== ENDLESS && ((number as number) < span[0] - 1e-9 || (number as number) > span[1] + 1e-9))
      found.push(`${controlOf(at)?.label}: ${number as number} of ${span.join(' to ')}`)
    return number
  })
  return found
}

describe.each(sizes)('on a photo of %s megapixels no thumb is beyond its track', (_, photo) => {
  it.each(effectDefinitions.flatMap(({ kind, startingLooks }) => startingLooks.map(({ id }) => [kind, id] as const)))(
    '%s, %s',
    (kind, look) => {
      const definition = effectDefinitions.find((one) => one.kind === kind)!
      expect(beyond(definition.controls as z.ZodType, newEffect(photo, { kind, look, id: 'e' }).controls, photo)).toEqual([])
    },
  )

  it.each(maskDefinitions.map(({ kind }) => kind))('a mask of kind %s', (kind) => {
    const mask = newMask(photo, { kind, id: 'm', join: 'keep', marks: noMarks })
    expect(beyond(maskSchemaOf(kind) as z.ZodType, mask, photo)).toEqual([])
  })
})
