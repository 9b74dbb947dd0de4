import { newEffect, newMask, noMarks, type Scene } from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { ellipseBetween, ellipseOf, insertAbove, pulled, pulledTo } from './correctHere'

const photo = { width: 1200, height: 800 }
const adjust = (id: string) => newEffect(photo, { kind: 'adjust', look: 'neutral', id })

describe('a drag across the photo', () => {
  const plain = { round: false, least: 10 }

  it.each([
    ['down to the right', { x: 100, y: 100 }, { x: 300, y: 200 }, { x: 200, y: 150, radiusX: 100, radiusY: 50 }],
    ['up to the left', { x: 300, y: 200 }, { x: 100, y: 100 }, { x: 200, y: 150, radiusX: 100, radiusY: 50 }],
    // A fifth of its length wide.
    ['along one line', { x: 100, y: 100 }, { x: 300, y: 100 }, { x: 200, y: 100, radiusX: 100, radiusY: 20 }],
  ] as const)('%s makes the ellipse between', (_, from, to, made) => {
    expect(ellipseBetween(from, to, plain)).toEqual(made)
  })

  it('makes a circle if that is asked for, in the corner that it began in', () => {
    expect(ellipseBetween({ x: 100, y: 100 }, { x: 60, y: 200 }, { ...plain, round: true })).toEqual({
      x: 50,
      y: 150,
      radiusX: 50,
      radiusY: 50,
    })
  })

  it('of no length makes nothing', () => {
    expect(ellipseBetween({ x: 5, y: 5 }, { x: 9, y: 11 }, plain)).toBeUndefined()
  })
})

describe('a pull at the ring', () => {
  it('of seventy pixels is 0.7 EV, and stops at what the control can be', () => {
    const { up, across } = pulled.adjust!
    expect(pulledTo(up, 0, 70)).toBe(0.7)
    expect(pulledTo(up, 0.7, 1e5)).toBe(up.most)
    expect(pulledTo(across, 0, 50)).toBe(20)
    expect(pulledTo(across, 0, -1e5)).toBe(across.least)
  })
})

describe('where a correction lands', () => {
  const sceneWith = (): Scene => {
    const below = Object.assign(newEffect(photo, { kind: 'fog', id: 'fog' }), { place: 'middle', group: 'g' })
    return { effects: [below, adjust('top')] } as unknown as Scene
  }

  it('is right above what is selected, in its group; else in the finish', () => {
    const scene = sceneWith()
    insertAbove(scene, adjust('here'), 'fog')
    insertAbove(scene, adjust('last'), undefined)
    expect(scene.effects.map(({ id, place, group }) => [id, place, group])).toEqual([
      ['fog', 'middle', 'g'],
      ['here', 'middle', 'g'],
      ['top', 'finish', null],
      ['last', 'finish', null],
    ])
  })

  it('its ellipse is the only mask of what a drag can turn', () => {
    const effect = adjust('a')
    expect(ellipseOf(effect)).toBeUndefined()
    const ellipse = newMask(photo, { kind: 'ellipse', id: 'e', join: 'keep', marks: noMarks })
    effect.where.masks = [ellipse]
    expect(ellipseOf(effect)).toBe(ellipse)
    effect.where.masks = [ellipse, newMask(photo, { kind: 'line', id: 'l', join: 'keep', marks: noMarks })]
    expect(ellipseOf(effect)).toBeUndefined()
    expect(ellipseOf(undefined)).toBeUndefined()
  })
})
