import { effectDefinitions, newEffect } from '@welkinar/core'
import { expect, it } from 'vitest'
import { firstSense, senseOf } from './brushSense'

it.each([
  ['keep', false, 'only here'],
  ['keep', true, 'not here'],
  ['subtract', false, 'not here'],
  ['subtract', true, 'only here'],
  ['add', false, undefined],
  ['add', true, undefined],
] as const)('a painted mask that joins by %s, inverted %s, is: %s', (join, invert, sense) => {
  expect(senseOf({ join, invert })).toBe(sense)
})

it('what corrects is painted where it is wanted, all else where it is not', () => {
  const photo = { width: 1200, height: 800 }
  const senses = Object.fromEntries(effectDefinitions.map(({ kind }) => [kind, firstSense(newEffect(photo, { kind, id: 'e' }))]))
  expect(senses).toMatchObject({
    adjust: 'only here',
    glaze: 'only here',
    oneHue: 'only here',
    rain: 'not here',
    softFocus: 'not here',
    fog: 'not here',
  })
  // A group is mostly weather.
  expect(firstSense(undefined)).toBe('not here')
})
