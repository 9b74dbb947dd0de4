import 'fake-indexeddb/auto'
import {
  choiceOf,
  definitionOf,
  depthPlaces,
  effectDefinitions,
  looksOf,
  emptyStack,
  maskDefinitions,
  mixModes,
  newEffect,
  documentVersion,
  sceneSchema,
  schemaAt,
  untouched,
  writePath,
  type CheckedScene,
  type Effect,
  type MaskListRef,
  type Scene,
  recipeFrom,
} from '@welkinar/core'
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { database } from '../storage/database'
import { addScenes, loadScene, saveScene } from '../storage/scenes'
import { wearStack } from '../workbench/actions/copyLook'
import { duplicate } from '../workbench/actions/duplicate'
import { correctHere, correctionKinds } from '../workbench/actions/corrections/correctHere'
import { draggedShapes, shapeBetween } from '../workbench/actions/corrections/shapes'
import { withLook } from '../workbench/actions/exchangeLook'
import {
  canGiveMasks,
  canTakeMasks,
  duplicateGroup,
  giveMasksIn,
  groupEffect,
  joinGroup,
  removeGroup,
  takeMasksIn,
  ungroup,
} from '../workbench/actions/groups'
import { insertEffect, moveEffect, stepEffect } from '../workbench/actions/moveEffect'
import { removeEffect } from '../workbench/actions/removeEffect'
import { setMode } from '../workbench/actions/mixModes'
import { asItIs, laidOn } from '../workbench/actions/recipes'
import { reflect } from '../workbench/actions/reflect'
import { addRegion, changeRegion, removeRegion } from '../workbench/actions/regions'
import { addMask, maskActions } from '../workbench/actions/maskActions'
import { pinAndRead } from '../workbench/actions/pinState'
import { changeEffect, changeMask, changeMaskList, changeOwner, useScene } from './sceneStore'

/** More in the soak (`npm run soak`). */
const SEQUENCES = Number(process.env['WELKINAR_SEQUENCES'] ?? 120)

const photo = { id: 'p', fileName: 'p.jpg', width: 1200, height: 800 }
const empty: Scene = {
  ...{ format: 'welkinar-scene', ...documentVersion, id: 's', name: 'S', created: 0, edited: 0 },
  photo,
  ...untouched,
  ...emptyStack,
}

/** What one command is made from: which one, and numbers that choose what it acts on. */
interface Throw {
  readonly command: number
  readonly picks: readonly number[]
  readonly value: number
}

const numbers = fc.oneof(
  fc.constantFrom(0, 1, -1, 2.5, 0.5, 99.9, 1e9, -1e9, 4294967295.5, NaN, Infinity, -Infinity, 1e-9),
  fc.integer({ min: -10, max: 110 }),
  fc.double({ min: -1e6, max: 1e6, noNaN: true }),
)
const throws: fc.Arbitrary<Throw> = fc.record({
  command: fc.nat(9999),
  picks: fc.array(fc.double({ min: 0, max: 0.999999, noNaN: true }), { minLength: 4, maxLength: 4 }),
  value: numbers,
})

const scene = (): CheckedScene => useScene.getState().history!.scene
const { change } = useScene.getState()

/** Each does one thing that a person can do, as the interface does it. Nothing if there is nothing to do it to. */
const commands: Readonly<Record<string, (from: (index: number) => number, value: number) => void>> = {
  addEffect(from) {
    const { kind, startingLooks } = of(effectDefinitions, from(0))
    const look = of(startingLooks, from(1)).id
    const effect = newEffect(photo, { kind, look, id: crypto.randomUUID(), place: of(depthPlaces, from(2)) })
    change(`Add ${look}`, (draft) => insertEffect(draft, effect))
  },
  removeEffect: (from) => withEffect(from, ({ id }) => removeEffect(id)),
  duplicateEffect: (from) => withEffect(from, duplicate),
  reflect: (from) => withEffect(from, (effect) => reflect(effect, scene())),
  moveEffect: (from) =>
    withEffect(from, ({ id }) => {
      const over = from(1) < 0.5 ? of(depthPlaces, from(2)) : of(scene().effects, from(2)).id
      change('Move', (draft) => moveEffect(draft, id, over))
    }),
  stepEffect: (from) => withEffect(from, ({ id }) => change('Step', (draft) => stepEffect(draft, id, from(1) < 0.5 ? -1 : 1))),
  switchEffect: (from) => withEffect(from, ({ id }) => changeOwner(id, 'Switch', (one) => void (one.on = !one.on))),
  /** Any number of any effect: pattern, shape, colour, mix, hold. */
  setNumber: (from, value) =>
    withEffect(from, (effect) => {
      const path = of(numberPaths({ controls: effect.controls, mix: effect.mix, colour: effect.colour, where: effect.where }), from(1))
      changeEffect(effect.id, 'Number', (one) => writePath(one, path, value), from(2) < 0.3 ? path : undefined)
    }),
  setChoice: (from) =>
    withEffect(from, (effect) => {
      const { pattern, shape } = effect.controls
      const paths = [...Object.keys(pattern).map((key) => `pattern.${key}`), ...Object.keys(shape).map((key) => `shape.${key}`)]
      const choices = paths.flatMap((path) => {
        const choice = choiceOf(schemaAt(definitionOf(effect.kind).controls, path))
        return choice ? [{ path, options: choice.options.map(([option]) => option) }] : []
      })
      pick(choices, from(1), ({ path, options }) =>
        changeEffect(effect.id, 'Choice', ({ controls }) => writePath(controls, path, of([...options, 'no such thing'], from(2)))),
      )
    }),
  setMode: (from) => withEffect(from, (effect) => setMode(effect, of(mixModes, from(1)))),
  setTint: (from) =>
    withEffect(from, ({ id }) =>
      changeEffect(id, 'Tint', ({ colour }) => void (colour.tint = of(['#aabbcc', '#000000', 'red', '#12345'], from(1)))),
    ),
  ramp: (from, value) =>
    withEffect(from, ({ id }) =>
      changeEffect(id, 'Ramp', ({ colour }) => {
        colour.ramp ??= [
          { at: 0, colour: '#000000' },
          { at: 100, colour: '#ffffff' },
        ]
        if (from(1) < 0.5) colour.ramp.push({ at: value, colour: '#808080' })
        else colour.ramp.splice(0, 1)
      }),
    ),
  group: (from) => withEffect(from, (effect) => groupEffect(effect, from(1) < 0.5 && effect !== scene().effects[0])),
  joinGroup: (from) => withEffect(from, ({ id }) => joinGroup(id, from(1) < 0.3 ? null : (pick(scene().groups, from(2))?.id ?? null))),
  ungroup: (from) => void pick(scene().groups, from(0), ({ id }) => ungroup(id)),
  removeGroup: (from) => void (from(1) < 0.3 && pick(scene().groups, from(0), ({ id }) => removeGroup(id))),
  duplicateGroup: (from) => void (from(1) < 0.4 && pick(scene().groups, from(0), ({ id }) => duplicateGroup(id))),
  groupMasks: (from) => {
    if (from(1) < 0.5) withEffect(from, ({ id }) => canGiveMasks(scene(), id) && change('Masks', (draft) => giveMasksIn(draft, id)))
    else
      pick(scene().groups, from(0), ({ id }) => {
        if (canTakeMasks(scene(), id)) change('Masks', (draft) => takeMasksIn(draft, id, () => crypto.randomUUID()))
      })
  },
  exchangeLook: (from) =>
    withEffect(from, (effect) => {
      const next = withLook(effect, of(looksOf(definitionOf(effect.kind)), from(1)).id, scene())
      change('Look', (draft) => void (draft.effects = draft.effects.map((one) => (one.id === effect.id ? next : one))))
    }),
  correctHere: (from, value) => {
    const drawn = shapeBetween(
      of(draggedShapes, from(1)),
      { x: value, y: 10 },
      { x: value + 500, y: 400 },
      { regular: from(2) < 0.5, least: 1 },
    )
    if (drawn) correctHere(of(correctionKinds, from(0)), drawn)
  },
  groupNumber: (from, value) =>
    void pick(scene().groups, from(0), ({ id }) => changeOwner(id, 'Amount', (one) => void (one.mix.amount = value))),
  addMask: (from) => withList(from, (list) => addMask(scene(), list, of(maskDefinitions, from(2)).kind)),
  maskNumber: (from, value) =>
    withMask(from, (list, mask) => {
      const keys = Object.entries(mask).flatMap(([key, found]) => (typeof found === 'number' ? [key] : []))
      changeMask(list, mask, 'Number', (target) => void Object.assign(target, { [of(keys, from(3))]: value }))
    }),
  maskAction: (from) =>
    withMask(from, (list, mask) => {
      const possible = maskActions(scene(), list, mask, () => undefined).filter(({ enabled }) => enabled !== false)
      of(possible, from(3)).run()
    }),
  maskPart: (from, value) =>
    withMask(from, (list, mask) => {
      if (mask.kind === 'brush') {
        const stroke = {
          size: 20,
          hardness: 50,
          flow: 100,
          level: 100,
          pressure: 'size' as const,
          erase: false,
          guides: [],
          tolerance: 12,
          points: [1, 2, value],
        }
        changeMask(list, mask, 'Paint', ({ strokes }) => void strokes.push(stroke))
      } else if (mask.kind === 'similar') {
        // More than there is room for.
        changeMask(
          list,
          mask,
          'Tap',
          ({ taps }) => void taps.push(...Array.from({ length: 70 }, () => ({ x: value, y: 1, colour: '#aaaaaa' }))),
        )
      } else if (mask.kind === 'outline') {
        const corner = { x: value, y: 4, inX: 0, inY: 0, outX: 0, outY: 0 }
        changeMask(list, mask, 'Draw', ({ paths }) => void paths.push({ hole: from(3) < 0.5, corners: [corner, corner, corner] }))
      } else if (mask.kind === 'luminosity') {
        changeMask(list, mask, 'Handles', (target) => void (target.handles[1] = value))
      } else if (mask.kind === 'pattern') {
        changeMask(list, mask, 'Effect', (target) => void (target.effectId = of(scene().effects, from(3)).id))
      }
    }),
  pin: (from) =>
    withMask(from, (list, mask) => {
      if (mask.kind === 'luminosity' || mask.kind === 'colour' || mask.kind === 'similar')
        pinAndRead(list, mask, from(3) < 0.5 ? 'beneath' : 'all')
    }),
  hold: (from, value) => withList(from, (list) => void changeMaskList(list, 'Hold', (target) => void (target.hold = value))),
  copyLook: (from) =>
    withEffect(from, (effect) => {
      const look = of(scene().effects, from(1))
      wearStack(effect, { effects: [{ ...look, group: null }], groups: [], shared: [], pinned: scene().pinned })
    }),
  recipe: (from) => {
    const laying = of(['in place', 'over', 'under'] as const, from(1))
    const recipe = recipeFrom(scene(), { name: 'R', withPhoto: from(2) < 0.5 })
    const choice = { ...asItIs, laying, strength: Math.round(100 * from(2)) }
    if (from(0) < 0.4) change('R', laidOn(scene(), recipe, choice, [], () => crypto.randomUUID()).change)
  },
  mark: (from, value) => {
    const light = { id: crypto.randomUUID(), name: 'L', x: value, y: 10, colour: '#ffffff', strength: 100, radius: 10 }
    if (from(0) < 0.3) change('Light', ({ marks }) => void marks.lights.push(light))
    else if (from(0) < 0.5) change('Horizon', ({ marks }) => void (marks.horizon = { y: value, turn: 0 }))
    else if (from(0) < 0.7) change('Eye height', ({ marks }) => void (marks.ground = { ...marks.ground, cameraHeight: value }))
    else if (from(0) < 0.8) change('Haze', ({ marks }) => void (marks.haze = { visibility: value, air: 50 }))
    else if (from(0) < 0.9) addRegion([0, 1, 2].map((x) => ({ x, y: x * x, inX: 0, inY: 0, outX: 0, outY: 0 })))
    else {
      const region = pick(scene().marks.regions, from(1))
      if (region && from(2) < 0.5) changeRegion(region.id, 'Distance', (one) => void (one.distance = value))
      else if (region) removeRegion(region.id)
    }
  },
  name: (from) => void change('Rename', (draft) => void (draft.name = of(['A', '', 'x'.repeat(200), 'Harbour'], from(0)))),
  unknownKey: (from, value) =>
    withEffect(from, ({ id }) => changeEffect(id, 'Forged', (one) => writePath(one.controls, 'pattern.nothing', value))),
  sameId: (from) =>
    void change('Forged', ({ effects }) => {
      const first = effects[0]
      if (first && from(0) < 0.3) effects.push(first)
    }),
  undo: () => useScene.getState().undo(),
  redo: () => useScene.getState().redo(),
  goTo: (from) => useScene.getState().goTo(Math.floor(from(0) * (useScene.getState().history!.entries.length + 1))),
}
const names = Object.keys(commands)

/** Paths of all numbers in a value. */
function numberPaths(value: object, before = ''): string[] {
  return Object.entries(value).flatMap(([key, item]: [string, unknown]) => {
    if (typeof item === 'number') return [`${before}${key}`]
    return typeof item === 'object' && item !== null ? numberPaths(item, `${before}${key}.`) : []
  })
}

function of<T>(list: readonly T[], part: number): T {
  return list[Math.floor(part * list.length)]!
}

function pick<T>(list: readonly T[], part: number, act?: (one: T) => void): T | undefined {
  const one = list.length > 0 ? of(list, part) : undefined
  if (one !== undefined) act?.(one)
  return one
}

function withEffect(from: (index: number) => number, act: (effect: Effect) => unknown): void {
  pick(scene().effects, from(0), (effect) => void act(effect))
}

/** A list of masks of an effect or group: of an effect also the region. */
function withList(from: (index: number) => number, act: (list: MaskListRef) => void): void {
  const owner = pick([...scene().effects, ...scene().groups, ...scene().shared], from(0))
  if (owner) act({ owner: owner.id, list: 'kind' in owner && from(1) < 0.4 ? 'region' : 'where' })
}

function withMask(from: (index: number) => number, act: (list: MaskListRef, mask: Effect['where']['masks'][number]) => void): void {
  withList(from, (list) => {
    const owner = [...scene().effects, ...scene().groups, ...scene().shared].find(({ id }) => id === list.owner)
    const masks = (list.list === 'region' ? (owner as Effect).region : owner?.where)?.masks ?? []
    pick(masks, from(2), (mask) => act(list, mask))
  })
}

function run({ command, picks, value }: Throw): string {
  const name = of(names, command / 10000)
  commands[name]!((index) => picks[index]!, value)
  return name
}

const timeless = (scene: Scene) => ({ ...scene, edited: undefined })

describe('whatever a person does', () => {
  beforeEach(async () => {
    await database.delete()
    await database.open()
    await addScenes([{ scene: empty as CheckedScene }], [])
  })

  it('the scene stays valid, is loaded as it was saved, and can be undone to its beginning and redone to its end', async () => {
    const done = new Map<string, number>()
    let revision = 0
    await fc.assert(
      fc.asyncProperty(fc.array(throws, { minLength: 5, maxLength: 40 }), async (sequence) => {
        useScene.getState().open(Symbol(), { scene: structuredClone(empty) as CheckedScene, history: [], position: 0 })
        // Something to act on.
        change('Start', (draft) => insertEffect(draft, newEffect(photo, { kind: 'subjectGlow', id: 'first' })))
        for (const one of sequence) {
          const name = run(one)
          done.set(name, (done.get(name) ?? 0) + 1)
          const parsed = sceneSchema.safeParse(scene())
          expect(parsed.error?.issues[0], name).toBe(undefined)
          expect(new Set(scene().effects.map(({ id }) => id)).size).toBe(scene().effects.length)
        }
        const history = useScene.getState().history!
        revision = await saveScene(history, -Infinity, revision)
        const loaded = await loadScene('s')
        expect(loaded).toEqual({ scene: history.scene, history: history.entries, position: history.position, revision })
        useScene.getState().open(Symbol(), loaded)
        while (useScene.getState().history!.position < useScene.getState().history!.entries.length) useScene.getState().redo()
        const last = timeless(scene())
        while (useScene.getState().history!.position > 0) useScene.getState().undo()
        expect(timeless(scene())).toEqual(timeless(empty))
        while (useScene.getState().history!.position < useScene.getState().history!.entries.length) useScene.getState().redo()
        expect(timeless(scene())).toEqual(last)
      }),
      { numRuns: SEQUENCES, seed: process.env['WELKINAR_SEQUENCES'] ? Date.now() : 7 },
    )
    // Every command was among them.
    expect(names.filter((name) => !done.has(name))).toEqual([])
  }, 3_600_000)
})
