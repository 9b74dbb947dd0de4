import { describe, expect, it } from 'vitest'
import { newEffect } from '../effects/newEffect'
import { noMarks } from '../model/marks'
import { nothingRead } from '../model/reading'
import { usesReading } from './usesReading'

const photo = { id: 'p', width: 600, height: 400 }

describe('what is read from a photo', () => {
  it.each([
    ['haze', 'blue-distance', true],
    ['rain', 'rain-by-the-camera', true],
    ['stars', 'clear-night', true],
    ['curves', 'gentle-s', false],
    ['grain', 'fine-grain', false],
    ['softFocus', 'veil', false],
  ] as const)('%s, %s: it changes the picture: %s', (kind, look, uses) => {
    expect(usesReading({ photo, effects: [newEffect(photo, { kind, look, id: 'a' })] })).toBe(uses)
  })

  it('changes nothing where marks are set for all that is used, or where there are no effects', () => {
    const haze = newEffect(photo, { kind: 'haze', look: 'blue-distance', id: 'a' })
    const marks = { ...noMarks, horizon: { y: 100, turn: 0 }, reading: nothingRead }
    expect(usesReading({ photo, effects: [haze], marks })).toBe(false)
    expect(usesReading({ photo, effects: [] })).toBe(false)
  })
})
