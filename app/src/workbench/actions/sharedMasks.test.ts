import {
  newEffect,
  newMask,
  noMarks,
  sceneGraph,
  whereSchema,
  type Effect,
  type Mask,
  type MaskKind,
  type Scene,
  type SharedMask,
} from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { adoptShared, ownIn, removeSharedIn, shareIn, usersOf, whyNotShared } from './sharedMasks'

const photo = { id: 'p', fileName: 'p.jpg', width: 1200, height: 800 }
const maskOf = (kind: MaskKind, id: string, part: object = {}): Mask =>
  Object.assign(newMask(photo, { kind, id, join: 'keep', marks: noMarks }), part)
const effect = (id: string, ...masks: Mask[]): Effect =>
  Object.assign(newEffect(photo, { kind: 'adjust', look: 'warm-evening', id }), { where: { masks, hold: 100 } })
const sceneOf = (effects: Effect[], shared: SharedMask[] = []): Scene =>
  ({ photo, effects, groups: [], shared, pinned: [], marks: noMarks, amount: 100 }) as unknown as Scene
const list = (owner: string) => ({ owner, list: 'where' }) as const
const counter = (): (() => string) => {
  let count = 0
  return () => `new ${count++}`
}
const alike = (scene: Scene, other: Scene): void => expect(maskKeys(scene)).toEqual(maskKeys(other))
/** What stands for the masks of each effect: ids count for nothing in it. */
const maskKeys = (scene: Scene) => scene.effects.map(({ id }) => sceneGraph(scene, { kind: 'masks', of: list(id) }).key)

describe('sharing a mask', () => {
  it.each([
    ['an ellipse', maskOf('ellipse', 'm', { feather: 5 })],
    ['a painted one that is taken out, by half', maskOf('brush', 'm', { join: 'subtract', strength: 50 })],
    ['tones of the photo, turned over', maskOf('luminosity', 'm', { tonesFrom: 'photo', invert: true, grow: 4 })],
  ])('%s leaves a reference that does the same, and can be taken back', (_, mask) => {
    const scene = sceneOf([effect('a', maskOf('line', 'l'), mask), effect('b')])
    const before = structuredClone(scene)
    const id = shareIn(scene, list('a'), 'm', 'Wall', counter())!
    expect(scene.shared).toMatchObject([{ id, name: 'Wall', where: { masks: [{ kind: mask.kind }], hold: 100 } }])
    expect(scene.effects[0]!.where.masks[1]).toMatchObject({ kind: 'shared', of: id, join: mask.join, strength: mask.strength })
    expect(usersOf(scene, id)).toEqual(['Warm evening'])
    ownIn(scene, list('a'), scene.effects[0]!.where.masks[1]!.id, counter())
    alike(scene, before)
    expect(whereSchema.safeParse(scene.effects[0]!.where).error).toBeUndefined()
  })

  it('what read beneath goes on as a state that is pinned', () => {
    const scene = sceneOf([effect('under'), effect('a', maskOf('luminosity', 'm', { tonesFrom: 'beneath' }))])
    shareIn(scene, list('a'), 'm', 'Brights', counter())
    expect(scene.pinned).toMatchObject([{ effects: [{ id: 'under' }] }])
    expect(scene.shared[0]!.where.masks[0]).toMatchObject({ tonesFrom: 'pinned', pinned: scene.pinned[0]!.id })
  })

  it.each([
    ['reads its own effect', maskOf('luminosity', 'm', { tonesFrom: 'effect' })],
    ['reads another effect', maskOf('pattern', 'm')],
    ['is shared', maskOf('shared', 'm')],
  ])('is refused for one that %s', (_, mask) => {
    const scene = sceneOf([effect('a', mask)])
    expect(whyNotShared(mask)).toMatch(/\.$/)
    expect(shareIn(scene, list('a'), 'm', 'X', counter())).toBeUndefined()
    expect(scene.shared).toEqual([])
  })

  it('names are given once', () => {
    const scene = sceneOf([effect('a', maskOf('line', 'm'), maskOf('line', 'n'))])
    shareIn(scene, list('a'), 'm', 'Wall', counter())
    shareIn(scene, list('a'), 'n', 'Wall', counter())
    expect(scene.shared.map(({ name }) => name)).toEqual(['Wall', 'Wall 2'])
  })
})

describe('a shared mask of several', () => {
  const wall: SharedMask = {
    id: 'wall',
    name: 'Wall',
    where: { masks: [maskOf('line', 'l'), maskOf('band', 'b', { join: 'subtract' })], hold: 80 },
  }
  const scene = () =>
    sceneOf(
      [effect('a', maskOf('shared', 'x', { of: 'wall' })), effect('b', maskOf('shared', 'y', { of: 'wall' }))],
      [structuredClone(wall)],
    )

  it('mended once is mended for all', () => {
    const one = scene()
    const before = maskKeys(one)
    Object.assign(one.shared[0]!.where.masks[0]!, { feather: 30 })
    const after = maskKeys({ ...one })
    expect(after[0]).not.toBe(before[0])
    expect(after[0]).toBe(after[1])
  })

  it('that no masks of its own can stand for goes on as another that is shared by nobody', () => {
    const one = scene()
    const before = structuredClone(one)
    ownIn(one, list('a'), 'x', counter())
    alike(one, before)
    expect(one.shared.map(({ name }) => name)).toEqual(['Wall', 'Wall 2'])
    expect(usersOf(one, 'wall')).toHaveLength(1)
  })

  it('is removed for all: with copies all stays as it is, without them nothing of it does', () => {
    const [copied, gone] = [scene(), scene()]
    removeSharedIn(copied, 'wall', 'copies', counter())
    alike(copied, scene())
    expect(copied.shared.some(({ id }) => id === 'wall')).toBe(false)
    removeSharedIn(gone, 'wall', 'nothing', counter())
    expect(gone.effects.map(({ where }) => where.masks)).toEqual([[], []])
    expect(gone.shared).toEqual([])
  })

  it('comes with what is laid on a scene, unless there is one that is made and called alike', () => {
    const laid = () => ({
      effects: [effect('c', maskOf('shared', 'z', { of: 'other' }))],
      groups: [],
      shared: [{ ...structuredClone(wall), id: 'other' }],
    })
    const [same, none] = [laid(), laid()]
    const there = scene()
    adoptShared(there, same)
    expect(same.effects[0]!.where.masks[0]).toMatchObject({ of: 'wall' })
    expect(there.shared).toHaveLength(1)
    const empty = sceneOf([])
    adoptShared(empty, none)
    expect(empty.shared.map(({ id }) => id)).toEqual(['other'])
    const changed = laid()
    changed.shared[0]!.where.hold = 10
    adoptShared(there, changed)
    expect(there.shared.map(({ id }) => id)).toEqual(['wall', 'other'])
  })
})
