import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { documentVersion } from './version'
import { maskOf } from '../../test-support/masks'
import { rain } from '../effects/rain/definition'
import { noAdjustment } from '../effects/adjust/adjusted'
import { newEffect } from '../effects/newEffect'
import { effectDefinitions } from '../effects/registry'
import { maskDefinitions, type Mask } from '../masks/registry'
import { sceneGraph } from '../render/sceneGraph'
import { marksFor, parseMarks } from './marksFile'
import { parseRecipe, picturesOfStack, stackFor, stackWithout } from './recipe'
import { picturesOfScene, sceneWithout, untouched, type Scene } from './scene'
import { emptyStack, withNewIds, type Stack } from './stack'
import { upgradeDocument, upgradePart } from './upgrade'

const madeFor = { width: 3000, height: 2000 }
const other = { width: 1500, height: 4000 }
const effectWith = (id: string, ...masks: Mask[]) => ({ ...newEffect(madeFor, { kind: 'rain', id }), where: { masks, hold: 100 } })
const recipeWith = (stack: Partial<Stack>) =>
  JSON.stringify({ format: 'welkinar-recipe', ...documentVersion, name: 'R', madeFor, ...emptyStack, ...stack })

describe('documents of version 1', () => {
  const first = fileURLToPath(new URL('../../../demo/photos/last-crossing.recipe.json', import.meta.url))

  it('a recipe written by the first version loads, with nothing in it changed', async () => {
    const text = await readFile(first, 'utf8')
    const old = JSON.parse(text) as {
      version: number
      effects: { name: string; where: { masks: object[] }; controls: object; mix: object }[]
    }
    expect(old.version).toBe(1)
    const read = parseRecipe(text, 'old.json')
    expect(read).toMatchObject({
      ...old,
      ...documentVersion,
      groups: [],
      pinned: [],
      effects: old.effects.map((one) => ({ ...one, name: '', look: one.name.toLowerCase() })),
    })
    expect(read.effects[0]!.where.masks[0]).toMatchObject({ grow: 0, edges: 0, name: '', pinned: null })
    expect(read.effects.map(({ group, colour }) => [group, colour.light])).toEqual(read.effects.map(() => [null, null]))
    expect(() => sceneGraph({ photo: { id: 'p', ...madeFor }, ...stackFor(read, madeFor) })).not.toThrow()
  })

  it('effects and masks inside the patches of a history are filled up as well, and new ones stay', () => {
    const mask = { id: 'm', kind: 'luminosity', join: 'keep', feather: 3, tonesFrom: 'photo', name: 'kept' }
    const patches = [
      {
        op: 'add',
        path: ['effects', 0],
        value: { kind: 'lost', controls: {}, where: { masks: [mask] }, mix: {}, colour: { tint: '#ffffff' } },
      },
    ]
    expect(upgradePart(patches)).toEqual([
      {
        op: 'add',
        path: ['effects', 0],
        value: {
          kind: 'lost',
          group: null,
          region: null,
          controls: {},
          where: { masks: [{ ...mask, grow: 0, edges: 0, pinned: null, free: null }] },
          mix: {},
          colour: { tint: '#ffffff', light: null, kelvin: null, lit: 0, ramp: null, balance: null },
        },
      },
    ])
    // What a step of an older history puts back by itself: a stroke, a glint, what was read.
    const stroke = { size: 9, hardness: 5, flow: 5, level: 5, pressure: 'size', erase: false, points: [1, 2, 1] }
    expect(upgradePart([{ op: 'add', value: stroke }])).toEqual([{ op: 'add', value: { ...stroke, guides: [], tolerance: 10 } }])
    expect(upgradePart({ x: 1, y: 2, size: 3 })).toEqual({ x: 1, y: 2, size: 3, turn: 0 })
    expect(upgradePart({ method: 3, horizon: null, sky: null, light: null, distance: null })).toMatchObject({
      water: null,
      brights: { few: 1, many: 0 },
    })
    expect(upgradePart({ tint: '#000000', light: 'sun' })).toMatchObject({ tint: '#000000', light: 'sun' })
    // Rain as it was before it could be set by weather and camera.
    const { by, rate, nearest, ...before } = rain.startingLooks[0]!.controls.pattern
    const old = { kind: 'rain', controls: { ...rain.startingLooks[0]!.controls, pattern: before }, where: { masks: [] }, mix: {} }
    expect(upgradePart(old)).toMatchObject({ controls: { pattern: { by, rate, nearest, density: before.density } } })
  })

  it.each([
    ['rain', 'Drizzle', { look: 'drizzle', name: '' }],
    // The word of this look is another now.
    ['stars', 'Stars drawn long', { look: 'star-trails', name: '' }],
    // What is called like the look of another kind has that as a name of its own.
    ['rain', 'Star trails', { name: 'Star trails' }],
    ['rain', 'Drizzle in the water', { name: 'Drizzle in the water' }],
  ])('%s called “%s” keeps its look and what it is called, in a document as in the patches of a history', (kind, name, expected) => {
    const { look, ...before } = { ...newEffect(madeFor, { kind: kind as 'rain', id: 'a' }), name }
    expect(look).not.toBe('')
    const nameless = expected.name ? { ...before, ...expected } : { ...before, look: '', ...expected }
    expect(upgradePart([{ op: 'add', value: before }])).toEqual([{ op: 'add', value: nameless }])
    for (const version of [{ version: 2 }, { version: 3, minor: 0 }, { version: 3 }]) {
      const document = { format: 'welkinar-recipe', ...version, effects: [before], pinned: [{ effects: [before] }] }
      expect(upgradeDocument(document)).toEqual({ ...document, ...documentVersion, effects: [nameless], pinned: [{ effects: [nameless] }] })
    }
  })

  it('what is of today stays as it is, wherever it stands: every kind of effect and of mask, the groundwork of a photo', () => {
    const effects = effectDefinitions.map(({ kind }) => newEffect(madeFor, { kind, id: kind }))
    const masks = maskDefinitions.map(({ kind }) => maskOf(madeFor, kind))
    const groundwork = { ...untouched.groundwork, tone: noAdjustment, crop: { x: 1, y: 2, width: 30, height: 20, turn: 1 } }
    for (const value of [...effects, ...masks, groundwork, noAdjustment, ...effects.map(({ controls }) => controls)]) {
      expect(upgradePart(value)).toEqual(value)
    }
  })

  it('a scene gets marks and depth; a newer document is left alone', () => {
    expect(upgradeDocument({ format: 'welkinar-scene', version: 1, effects: [] })).toEqual({
      format: 'welkinar-scene',
      ...documentVersion,
      effects: [],
      groups: [],
      pinned: [],
      marks: { lights: [], horizon: null, waterline: null, focal: null },
      depth: null,
    })
    const newer = { format: 'welkinar-scene', version: 4 }
    expect(upgradeDocument(newer)).toBe(newer)
    expect(upgradeDocument(null)).toBe(null)
  })
})

describe('a stack on a photo of another size', () => {
  // 6 megapixels both: lengths stay, places go with the sides.
  it('moves places with the sides of the frame and leaves lengths with the megapixels', () => {
    const corner = { x: 300, y: 200, inX: -30, inY: -20, outX: 30, outY: 20 }
    const stroke = {
      size: 90,
      hardness: 5,
      flow: 5,
      level: 5,
      pressure: 'size' as const,
      erase: false,
      guides: [],
      tolerance: 12,
      points: [100, 100, 0.5, 200, 300, 1],
    }
    const masks = [
      maskOf(madeFor, 'ellipse', { x: 1500, y: 1000, radiusX: 400, radiusY: 100, softness: 50 }),
      maskOf(madeFor, 'outline', { paths: [{ hole: false, corners: [corner] }] }),
      maskOf(madeFor, 'brush', { strokes: [stroke] }),
    ]
    const [fitted] = stackFor(parseRecipe(recipeWith({ effects: [effectWith('a', ...masks)] }), 'r.json'), other).effects
    const [ellipse, outline, brush] = fitted!.where.masks
    expect(ellipse).toMatchObject({ x: 750, y: 2000, radiusX: 400, radiusY: 100, softness: 50 })
    expect(outline).toMatchObject({ paths: [{ corners: [{ x: 150, y: 400, inX: -15, inY: -40, outX: 15, outY: 40 }] }] })
    expect(brush).toMatchObject({ strokes: [{ ...stroke, points: [50, 200, 0.5, 100, 600, 1] }] })
  })

  it('groups and pinned states are fitted with it', () => {
    const group = {
      id: 'g',
      name: 'G',
      on: true,
      where: { masks: [maskOf(madeFor, 'ellipse', { x: 300 })], hold: 100 },
      mix: newEffect(madeFor, { kind: 'rain', id: 'x' }).mix,
    }
    const pinned = [{ id: 'p', name: 'P', effects: [effectWith('b', maskOf(madeFor, 'ellipse', { x: 300 }))], groups: [], shared: [] }]
    const fitted = stackFor(parseRecipe(recipeWith({ groups: [group], pinned }), 'r.json'), other)
    expect(fitted.groups[0]!.where.masks[0]).toMatchObject({ x: 150 })
    expect(fitted.pinned[0]!.effects[0]!.where.masks[0]).toMatchObject({ x: 150 })
  })
})

describe('what a recipe may not hold', () => {
  const stroke = (points: number[]) => ({
    size: 9,
    hardness: 5,
    flow: 5,
    level: 5,
    pressure: 'size' as const,
    erase: false,
    guides: [],
    tolerance: 12,
    points,
  })
  it.each([
    [
      'a stroke of too many points',
      maskOf(madeFor, 'brush', { strokes: [stroke(new Array(12003).fill(1))] }),
      'expected at most 12000 numbers of stroke points',
    ],
    [
      'a stroke with a point cut off',
      maskOf(madeFor, 'brush', { strokes: [stroke([1, 2, 3, 4])] }),
      'expected x, y and pressure for each point',
    ],
    ['a place beyond all bounds', maskOf(madeFor, 'ellipse', { x: 1e7 }), 'too big: expected number to be <=100000'],
    ['an ellipse without a radius', maskOf(madeFor, 'ellipse', { radiusX: 0 }), 'too small: expected number to be >=0.5'],
    ['a tap without a colour', maskOf(madeFor, 'similar', { taps: [{ x: 1, y: 1, colour: 'red' }] }), 'expected a colour written #rrggbb'],
  ])('%s is named with what was expected', (_, mask, message) => {
    expect(() => parseRecipe(recipeWith({ effects: [effectWith('a', mask)] }), 'odd.json')).toThrow(message)
  })
})

describe('ids', () => {
  it('are renewed with all that refers to them, and nothing else', () => {
    const reading = maskOf(madeFor, 'luminosity', { id: 'rain', tonesFrom: 'pinned', pinned: 'pin' })
    const pattern = maskOf(madeFor, 'pattern', { effectId: 'a' })
    const shared = maskOf(madeFor, 'shared', { of: 'both' })
    const stack: Stack = {
      effects: [{ ...effectWith('a'), group: 'g' }, effectWith('rain', reading, pattern, shared)],
      groups: [{ id: 'g', name: 'G', on: true, where: { masks: [], hold: 100 }, mix: newEffect(madeFor, { kind: 'rain', id: 'x' }).mix }],
      shared: [{ id: 'both', name: 'Both', where: { masks: [reading], hold: 100 } }],
      pinned: [{ id: 'pin', name: 'P', effects: [effectWith('a')], groups: [], shared: [] }],
    }
    let count = 0
    const renewed = withNewIds(stack, () => `new ${count++}`)
    const [first, second] = renewed.effects
    expect(second!.kind).toBe('rain')
    expect(first!.group).toBe(renewed.groups[0]!.id)
    expect(second!.where.masks[0]).toMatchObject({ pinned: renewed.pinned[0]!.id })
    expect(second!.where.masks[1]).toMatchObject({ effectId: first!.id })
    expect(new Set([first!.id, second!.id, renewed.groups[0]!.id, renewed.pinned[0]!.id]).size).toBe(4)
    expect(second!.where.masks[2]).toMatchObject({ of: renewed.shared[0]!.id })
    expect(renewed.shared[0]!.where.masks[0]).toMatchObject({ pinned: renewed.pinned[0]!.id })
    expect(JSON.stringify(renewed)).not.toMatch(/"pin"|"both"/)
  })
})

describe('pictures beside a document', () => {
  const picture = { id: 'abc', fileName: 'fog.png', width: 9, height: 9 }
  const custom = newEffect(madeFor, { kind: 'customField', id: 'c' })
  Object.assign(custom.controls.pattern, { picture: { ...picture, id: 'field' } })
  const stack: Stack = {
    effects: [effectWith('a', maskOf(madeFor, 'picture', { picture })), custom],
    groups: [],
    shared: [],
    pinned: [
      {
        id: 'p',
        name: 'P',
        effects: [effectWith('b', maskOf(madeFor, 'picture', { picture: { ...picture, id: 'pinned' } }))],
        groups: [],
        shared: [],
      },
    ],
  }
  const scene: Scene = {
    ...{ format: 'welkinar-scene', ...documentVersion, id: 's', name: 'S', created: 0, edited: 0 },
    photo: { ...picture, id: 'photo' },
    ...untouched,
    depth: { picture: { ...picture, id: 'deep' }, near: 'white', nearDistance: 1, farDistance: 9, steps: 'inverse' },
    ...stack,
  }
  it('are found wherever they stand, and can be left out', () => {
    expect(
      picturesOfScene(scene)
        .map(({ id }) => id)
        .sort(),
    ).toEqual(['abc', 'deep', 'field', 'pinned'])
    expect(
      picturesOfStack(stack)
        .map(({ id }) => id)
        .sort(),
    ).toEqual(['abc', 'field', 'pinned'])
    const less = sceneWithout(scene, ['abc', 'field', 'photo'])
    expect(less.effects[0]!.where.masks[0]).toMatchObject({ kind: 'picture', picture: null })
    expect(less.effects[1]!.controls.pattern).toMatchObject({ picture: null })
    expect(less.photo).toEqual(scene.photo)
    expect(sceneWithout(scene, ['deep']).depth).toBe(null)
    expect(sceneWithout(scene, ['deep']).effects[0]).toBe(scene.effects[0])
    expect(stackWithout(stack, []).effects).toBe(stack.effects)
  })
})

describe('marks files', () => {
  it('are read and fitted to the photo', async () => {
    const path = fileURLToPath(new URL('../../../demo/photos/headland.marks.json', import.meta.url))
    const file = parseMarks(await readFile(path, 'utf8'), 'headland.marks.json')
    const marks = marksFor(file, { width: 6000, height: 4000 })
    expect(marks.lights[0]!.x).toBe(2 * file.marks.lights[0]!.x)
    expect(marks.horizon!.y).toBe(2 * file.marks.horizon!.y)
    expect(() => parseMarks('{"format":"welkinar-marks","version":4}', 'm.json')).toThrow('was made by a newer Welkinar')
    expect(() => parseMarks('{"format":"welkinar-recipe","version":1}', 'm.json')).toThrow('is not a valid marks file')
  })
})
