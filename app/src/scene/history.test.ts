import { emptyStack, newEffect, Refusal, documentVersion, type CheckedScene, type Scene, untouched } from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { insertEffect, moveEffect, stepEffect } from '../workbench/actions/moveEffect'
import { applyChange, goTo, redo as redoStep, undo as undoStep, type SceneHistory } from './history'

const photo = { id: 'p', fileName: 'p.jpg', width: 3000, height: 2000 }
const effect = (id: string, place?: 'sky' | 'far' | 'near') => newEffect(photo, { kind: 'rain', id, ...(place ? { place } : {}) })
const scene = (effects = [effect('a')]): Scene => ({
  format: 'welkinar-scene',
  ...documentVersion,
  id: 's',
  name: 'S',
  created: 0,
  edited: 0,
  photo,
  ...untouched,
  ...emptyStack,
  effects,
})
const checked = (made: Scene): CheckedScene => made as CheckedScene
const start = (): SceneHistory => ({ scene: checked(scene()), entries: [], position: 0, gesture: undefined })
/** The scene after something that is not refused. */
function made(outcome: SceneHistory | Refusal): SceneHistory {
  if (outcome instanceof Refusal) throw new Error(outcome.reason)
  return outcome
}
const undo = (history: SceneHistory, now: number) => made(undoStep(history, now))
const redo = (history: SceneHistory, now: number) => made(redoStep(history, now))
const amount = ({ scene: { effects } }: SceneHistory) => effects[0]!.mix.amount
const setAmount = (history: SceneHistory, value: number, gesture?: string) =>
  made(applyChange(history, 'Amount', (draft) => void (draft.effects[0]!.mix.amount = value), value, gesture))

describe('history', () => {
  it('goes back and forth through every change', () => {
    let history = start()
    for (let i = 1; i <= 250; i++) history = setAmount(history, i % 100)
    expect(history.position).toBe(250)
    for (let i = 249; i >= 1; i--) {
      history = undo(history, 0)
      expect(amount(history)).toBe(i % 100)
    }
    history = undo(history, 0)
    expect(amount(history)).toBe(55)
    expect(undo(history, 0)).toBe(history)
    history = redo(redo(history, 0), 0)
    expect(amount(history)).toBe(2)
  })

  it('goes to any step, and from there to any other; to none that is not there', () => {
    let history = start()
    for (let i = 1; i <= 40; i++) history = setAmount(history, i)
    for (const [position, value] of [
      [7, 7],
      [33, 33],
      [0, 55],
      [40, 40],
      [12, 12],
    ] as const) {
      history = made(goTo(history, position, 0))
      expect([history.position, amount(history), history.entries.length]).toEqual([position, value, 40])
    }
    expect(goTo(history, 12, 0)).toBe(history)
    expect(made(goTo(history, -5, 0)).position).toBe(0)
    expect(made(goTo(history, 900, 0)).position).toBe(40)
  })

  it('makes one step of a drag, and keeps it small', () => {
    let history = setAmount(start(), 10)
    for (let i = 0; i < 300; i++) history = setAmount(history, i / 4, 'drag 1')
    expect(history.position).toBe(2)
    expect(history.entries[1]!.patches).toHaveLength(1)
    expect(history.entries[1]!.inverse).toHaveLength(1)
    expect(amount(undo(history, 0))).toBe(10)
    expect(amount(redo(undo(history, 0), 0))).toBe(299 / 4)
  })

  it('keeps two drags apart, and a drag apart from what came before it', () => {
    let history = setAmount(start(), 30, 'drag 1')
    history = setAmount(history, 40, 'drag 2')
    expect(history.position).toBe(2)
    history = undo(history, 0)
    // After an undo the same drag does not go on in an older entry.
    history = setAmount(history, 35, 'drag 1')
    expect(history.position).toBe(2)
    expect(amount(undo(history, 0))).toBe(30)
  })

  it('drops what was undone when something else is done', () => {
    let history = setAmount(setAmount(start(), 20), 30)
    history = setAmount(undo(history, 0), 50)
    expect(history.entries).toHaveLength(2)
    expect(redo(history, 0)).toBe(history)
    expect(history.entries.map(({ index }) => index)).toEqual([0, 1])
  })

  it('a change that changes nothing is no step', () => {
    const history = start()
    expect(setAmount(history, amount(history))).toBe(history)
  })
})

describe('the depth line', () => {
  const ids = ({ effects }: Scene) => effects.map(({ id, place }) => `${id}:${place}`).join(' ')

  it('puts a new effect in front of its place and behind nearer ones', () => {
    const made = scene([effect('a', 'sky'), effect('b', 'near')])
    insertEffect(made, effect('c', 'far'))
    insertEffect(made, effect('d', 'sky'))
    expect(ids(made)).toBe('a:sky d:sky c:far b:near')
  })

  it('moves an effect to another one or to an empty place', () => {
    const made = scene([effect('a', 'sky'), effect('b', 'far'), effect('c', 'near')])
    moveEffect(made, 'c', 'b')
    expect(ids(made)).toBe('a:sky c:far b:far')
    moveEffect(made, 'a', 'lens')
    expect(ids(made)).toBe('c:far b:far a:lens')
    moveEffect(made, 'c', 'nowhere')
    expect(ids(made)).toBe('c:far b:far a:lens')
  })

  it('steps past a neighbour, then into the next place, and stops at the ends', () => {
    const made = scene([effect('a', 'sky'), effect('b', 'sky')])
    stepEffect(made, 'a', 1)
    expect(ids(made)).toBe('b:sky a:sky')
    stepEffect(made, 'a', 1)
    expect(ids(made)).toBe('b:sky a:far')
    stepEffect(made, 'b', -1)
    expect(ids(made)).toBe('b:sky a:far')
  })
})
