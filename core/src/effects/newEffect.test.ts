import { describe, expect, it } from 'vitest'
import { noMarks, type SceneMarks } from '../model/marks'
import { nothingRead, type Reading } from '../model/reading'
import { newEffect } from './newEffect'

const photo = { width: 6000, height: 4000 }
const read = (part: Partial<NonNullable<SceneMarks['reading']>>): SceneMarks => ({ ...noMarks, reading: { ...nothingRead, ...part } })

describe('a new effect starts where the photo wants it', () => {
  it('what takes its light from the brights starts from less, and stronger, where the brights are dark', () => {
    for (const [kind, from] of [
      ['lightBloom', 'threshold'],
      ['rays', 'tones'],
      ['catchLights', 'tones'],
    ] as const) {
      const [bright, dark] = [read({}), read({ brights: { few: 0.05, many: 0.03 } })].map(
        (marks) => newEffect(photo, { kind, id: kind, marks }).controls,
      )
      const plain = newEffect(photo, { kind, id: kind }).controls
      const number = (controls: typeof plain, step: 'pattern' | 'shape', key: string): number =>
        (controls[step] as Record<string, number>)[key]!
      expect(bright, kind).toEqual(plain)
      expect(number(dark!, 'pattern', from), kind).toBeLessThan(0.6 * number(plain, 'pattern', from))
      expect(number(dark!, 'shape', 'strength'), kind).toBeGreaterThan(1.4 * number(plain, 'shape', 'strength'))
    }
  })

  it('shafts, which take no light from the photo, start as on any other', () => {
    const shafts = (few: number) =>
      newEffect(photo, { kind: 'rays', look: 'shafts-from-above', id: 'r', marks: read({ brights: { few, many: 0.02 } }) }).controls
    expect(shafts(0.05)).toEqual(shafts(1))
  })

  it('rays and bloom add less where there is hardly any room up to white', () => {
    for (const kind of ['rays', 'lightBloom'] as const) {
      const strength = (many: number) =>
        (newEffect(photo, { kind, id: kind, marks: read({ brights: { few: 0.95, many } }) }).controls.shape as { strength: number })
          .strength
      expect(strength(0.1), kind).toBe(strength(0.2))
      expect(strength(0.75), kind).toBeLessThan(0.65 * strength(0.2))
      expect(strength(0.75), kind).toBeGreaterThan(0.3 * strength(0.2))
      // Of one of which the brightest 5 % are clipped, as with the sun in it.
      expect(strength(1), kind).toBeGreaterThanOrEqual(0.35 * strength(0.2))
    }
  })

  it('of a wide bright sky only its brightest part gives light', () => {
    const threshold = (many: number) =>
      (
        newEffect(photo, { kind: 'lightBloom', id: 'b', marks: read({ brights: { few: 0.9, many } }) }).controls.pattern as {
          threshold: number
        }
      ).threshold
    expect(threshold(0.2)).toBe(48)
    expect(threshold(0.8)).toBe(80)
  })

  it('silhouettes are as dark as the photo makes them', () => {
    const handles = (few: number, many = 0) => {
      const mask = newEffect(photo, { kind: 'sunburst', id: 's', marks: read({ brights: { few, many } }) }).where.masks[0]
      return mask?.kind === 'luminosity' ? mask.handles : undefined
    }
    expect(handles(1)).toEqual([0.3, 0.5, 1, 1])
    // Brights of 0.216 linear are 0.5 encoded: 5 eighths of what is usual.
    expect(handles(0.216)![1]).toBeCloseTo(0.5 * (5 / 8), 1)
    // A forest with gaps of sky: all but them is 0.275 encoded, half of what is usual.
    expect(handles(1, 0.0615)![1]).toBeCloseTo(0.25, 2)
    expect(handles(1, 0.4)).toEqual([0.3, 0.5, 1, 1])
  })

  it('a light beyond the border shines from there; what is seen of it itself lies in the frame', () => {
    const marks = read({ light: { x: 7200, y: 900 } })
    expect(newEffect(photo, { kind: 'catchLights', id: 'c', marks }).controls.pattern).toMatchObject({ x: 7200, y: 900 })
    expect(newEffect(photo, { kind: 'sunburst', id: 's', marks }).controls.pattern).toMatchObject({ x: 5760, y: 900 })
    const above = read({ light: { x: 3000, y: -900 } })
    expect(newEffect(photo, { kind: 'sunburst', id: 's', marks: above }).controls.pattern).toMatchObject({ x: 3000, y: 160 })
  })

  it('where no light stands out it shines from what is brightest, but above the horizon', () => {
    const sunburst = (part: Partial<Reading>) => newEffect(photo, { kind: 'sunburst', id: 's', marks: read(part) }).controls.pattern
    expect(sunburst({ brightest: { x: 800, y: 600 } })).toMatchObject({ x: 800, y: 600 })
    expect(sunburst({ brightest: { x: 800, y: 600 }, horizon: { y: 700, turn: 0 } })).toMatchObject({ x: 800, y: 380 })
    expect(sunburst({ brightest: { x: 800, y: 600 }, light: { x: 90, y: 2000 } })).toMatchObject({ x: 240, y: 2000 })
  })

  it('a bloom is wide enough to be seen on small pictures too', () => {
    const radius = (width: number, height: number) =>
      (newEffect({ width, height }, { kind: 'softFocus', look: 'dream-bloom', id: 'b' }).controls.pattern as { radius: number }).radius
    expect(radius(6000, 4000)).toBeCloseTo(60, 0)
    expect(radius(600, 400)).toBe(20)
  })
})
