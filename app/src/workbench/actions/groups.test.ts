import {
  emptyStack,
  newEffect,
  newMask,
  noMarks,
  documentVersion,
  sceneSchema,
  type Effect,
  type Group,
  type Scene,
  untouched,
} from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { canGiveMasks, canTakeMasks, copyGroupIn, giveMasksIn, settleGroups, takeMasksIn } from './groups'
import { moveEffect, stepEffect } from './moveEffect'

const photo = { id: 'p', fileName: 'p.jpg', width: 3000, height: 2000 }
const group = (id: string): Group => ({
  id,
  name: id,
  on: true,
  where: { masks: [], hold: 100 },
  mix: { mode: 'normal', amount: 100, linear: false },
})

/** A scene from words such as `a:sky:g`: id, place, group. */
function scene(...words: string[]): Scene {
  const effects = words.map((word): Effect => {
    const [id = '', place, inGroup] = word.split(':')
    return { ...newEffect(photo, { kind: 'rain', id, place: place as 'sky' }), group: inGroup ?? null }
  })
  const groups = [...new Set(effects.flatMap((effect) => effect.group ?? []))].map(group)
  const head = { format: 'welkinar-scene', ...documentVersion, id: 's', name: 'S', created: 0, edited: 0 } as const
  return { ...head, photo, ...untouched, ...emptyStack, effects, groups }
}

const words = ({ effects }: Scene): string =>
  effects.map(({ id, place, group: inGroup }) => [id, place, ...(inGroup ? [inGroup] : [])].join(':')).join(' ')

describe('groups on the depth line', () => {
  it('an effect that is dropped on a member joins, one dropped on a place leaves', () => {
    const made = scene('a:far:g', 'b:far:g', 'c:near')
    moveEffect(made, 'c', 'b')
    expect(words(made)).toBe('a:far:g c:far:g b:far:g')
    moveEffect(made, 'a', 'lens')
    expect(words(made)).toBe('c:far:g b:far:g a:lens')
    expect(made.groups.map(({ id }) => id)).toEqual(['g'])
  })

  it('members that came apart stand together again, where the first of them is', () => {
    const made = scene('a:sky:g', 'x:far', 'b:near:g')
    settleGroups(made)
    expect(words(made)).toBe('a:sky:g b:sky:g x:far')
  })

  it('a group without members goes', () => {
    const made = scene('a:far:g', 'b:far')
    moveEffect(made, 'a', 'b')
    expect(made.effects.every((effect) => effect.group === null)).toBe(true)
    expect(made.groups).toEqual([])
  })

  it('the keyboard steps into a group, through it, and out again', () => {
    const made = scene('a:far', 'b:far:g', 'c:far:g')
    const seen = Array.from({ length: 5 }, () => {
      stepEffect(made, 'a', 1)
      return words(made)
    })
    expect(seen).toEqual([
      'a:far:g b:far:g c:far:g',
      'b:far:g a:far:g c:far:g',
      'b:far:g c:far:g a:far:g',
      'b:far:g c:far:g a:far',
      'b:far:g c:far:g a:middle',
    ])
  })
})

describe('a group, masks and all', () => {
  const counter = (): (() => string) => {
    let count = 0
    return () => `new ${count++}`
  }
  const mask = (kind: 'ellipse' | 'pattern', id: string, part: object = {}) =>
    Object.assign(newMask(photo, { kind, id, join: 'keep', marks: noMarks }), part)

  it('is copied right in front of it; copies refer to one another, and to others as before', () => {
    const made = scene('x:far', 'a:near:g', 'b:near:g', 'y:lens')
    made.effects[1]!.where.masks = [mask('pattern', 'of b', { effectId: 'b' }), mask('pattern', 'of x', { effectId: 'x' })]
    made.groups[0]!.where.masks = [mask('ellipse', 'e')]
    const id = copyGroupIn(made, 'g', counter())!
    expect(words(made)).toBe(`x:far a:near:g b:near:g new 1:near:${id} new 2:near:${id} y:lens`)
    const [, , , first] = made.effects
    expect(first!.where.masks).toMatchObject([{ effectId: 'new 2' }, { effectId: 'x' }])
    expect(made.groups[1]!.where.masks).toMatchObject([{ kind: 'ellipse' }])
    // No two see the same noise.
    expect(first!.controls).not.toEqual(made.effects[1]!.controls)
    expect(sceneSchema.safeParse(made).error).toBeUndefined()
    expect(copyGroupIn(made, 'none', counter())).toBeUndefined()
  })

  it('takes the masks of a member, if it has none, and gives them to its members, if these have none', () => {
    const made = scene('a:near:g', 'b:near:g', 'c:near')
    const own = [mask('ellipse', 'e')]
    made.effects[0]!.where = { masks: own, hold: 60 }
    made.effects[1]!.where = { masks: [], hold: 100 }
    expect([canGiveMasks(made, 'a'), canGiveMasks(made, 'b'), canGiveMasks(made, 'c')]).toEqual([true, false, false])
    giveMasksIn(made, 'a')
    expect(made.groups[0]!.where).toEqual({ masks: own, hold: 60 })
    expect(made.effects[0]!.where.masks).toEqual([])
    expect([canGiveMasks(made, 'a'), canTakeMasks(made, 'g')]).toEqual([false, true])
    takeMasksIn(made, 'g', counter())
    expect(made.groups[0]!.where.masks).toEqual([])
    expect(made.effects.slice(0, 2).map(({ where }) => [where.hold, where.masks[0]?.kind])).toEqual([
      [60, 'ellipse'],
      [60, 'ellipse'],
    ])
    expect(canTakeMasks(made, 'g')).toBe(false)
  })
})
