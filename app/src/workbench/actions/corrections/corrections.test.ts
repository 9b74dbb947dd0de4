import { definitionOf, effectSchema, newEffect, newMask, noMarks, type EffectKind, type Mask, type Scene } from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { correctionKinds, correctionOf, insertAbove, newCorrection } from './correctHere'
import { pulledInWords, pulledOf, pulledTo, steppedTo, turnTo, valueAt } from './pulls'
import { correctionShapes, middleOfShape, movedShape, shapeBetween, shapeInTheMiddle, type Drawn, type ShapeMask } from './shapes'

const photo = { width: 1200, height: 800 }
const source = { photo: { ...photo, id: 'p' }, effects: [], groups: [], marks: noMarks } as unknown as Scene
const adjust = (id: string) => newEffect(photo, { kind: 'adjust', look: 'neutral', id })
const plain = { regular: false, least: 10 }
const regular = { regular: true, least: 10 }
const stroke = (points: number[]) => ({ size: 40, hardness: 0, flow: 100, level: 100, pressure: 'nothing', erase: false, points }) as const
const corner = (x: number, y: number) => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 })

/** What the hand draws of each shape, and the middle of it. */
const drawn = {
  ellipse: [
    { kind: 'ellipse', x: 200, y: 150, radiusX: 100, radiusY: 50, turn: 0, follows: null },
    { x: 200, y: 150 },
  ],
  line: [
    { kind: 'line', x: 100, y: 100, toX: 300, toY: 200, follows: null },
    { x: 200, y: 150 },
  ],
  band: [
    { kind: 'band', x: 200, y: 150, turn: 0, width: 50, softness: 25, follows: null },
    { x: 200, y: 150 },
  ],
  outline: [
    { kind: 'outline', paths: [{ hole: false, corners: [corner(100, 100), corner(300, 100), corner(200, 200)] }] },
    { x: 200, y: 150 },
  ],
  brush: [
    { kind: 'brush', strokes: [{ ...stroke([100, 100, 1, 300, 200, 1]), guides: [], tolerance: 10 }] },
    { x: 200, y: 150 },
  ],
  sky: [{ kind: 'sky' }, undefined],
} satisfies Record<ShapeMask['kind'], [Drawn, { x: number; y: number } | undefined]>

describe('a drag across the photo', () => {
  it.each([
    ['ellipse', 'down to the right', plain, [100, 100, 300, 200], { x: 200, y: 150, radiusX: 100, radiusY: 50 }],
    ['ellipse', 'up to the left', plain, [300, 200, 100, 100], { x: 200, y: 150, radiusX: 100, radiusY: 50 }],
    // A fifth of its length wide.
    ['ellipse', 'along one line', plain, [100, 100, 300, 100], { x: 200, y: 100, radiusX: 100, radiusY: 20 }],
    ['ellipse', 'with Shift, in the corner that it began in', regular, [100, 100, 60, 200], { x: 50, y: 150, radiusX: 50, radiusY: 50 }],
    ['line', 'from what is open to what is shut', plain, [100, 100, 300, 200], { x: 100, y: 100, toX: 300, toY: 200 }],
    ['line', 'with Shift, level', regular, [100, 100, 300, 130], { x: 100, y: 100, toX: 300, toY: 100 }],
    ['band', 'down: a level one', plain, [100, 100, 100, 300], { x: 100, y: 200, turn: 0, width: 100, softness: 50 }],
    ['band', 'up: the same', plain, [100, 300, 100, 100], { x: 100, y: 200, turn: 0, width: 100, softness: 50 }],
    ['band', 'sideways: an upright one', plain, [100, 100, 300, 100], { x: 200, y: 100, turn: 90, width: 100, softness: 50 }],
    // Square to a drag down to the right the band rises to the right.
    ['band', 'aslant: a slanted one', plain, [100, 100, 200, 200], { x: 150, y: 150, turn: 45 }],
  ] as const)('makes a %s: %s', (shape, _, options, [x, y, toX, toY], made) => {
    expect(shapeBetween(shape, { x, y }, { x: toX, y: toY }, options)).toMatchObject({ kind: shape, ...made })
  })

  it.each(['ellipse', 'line', 'band'] as const)('of no length makes no %s; a key makes one in the middle', (shape) => {
    expect(shapeBetween(shape, { x: 5, y: 5 }, { x: 9, y: 11 }, plain)).toBeUndefined()
    const made = shapeInTheMiddle(shape, { x: 600, y: 400 }, photo)
    expect(middleOfShape(newMaskOf(made), source)).toMatchObject({ x: 600, y: 400 })
  })
})

function newMaskOf(values: Drawn): ShapeMask {
  return Object.assign(newMask(photo, { kind: values.kind, id: 'm', join: 'keep', marks: noMarks }), values) as ShapeMask
}

describe('a shape', () => {
  it.each(correctionShapes)('%s has a middle for its ring, and keys move and resize what has a place', (kind) => {
    const [values, middle] = drawn[kind]
    const mask = newMaskOf(values)
    expect(middleOfShape(mask, source)).toEqual(middle && expect.objectContaining(middle))
    const moved = Object.assign({}, mask, movedShape(mask, { x: 30, y: -20 }, 2)) as ShapeMask
    const stays = kind === 'outline' || kind === 'brush' || kind === 'sky'
    expect(middleOfShape(moved, source)).toEqual(middle && expect.objectContaining(stays ? middle : { x: 230, y: 130 }))
    if (moved.kind === 'ellipse') expect([moved.radiusX, moved.radiusY]).toEqual([200, 100])
    if (moved.kind === 'line') expect(Math.hypot(moved.toX - moved.x, moved.toY - moved.y)).toBeCloseTo(2 * Math.hypot(200, 100))
    if (moved.kind === 'band') expect([moved.width, moved.softness]).toEqual([100, 50])
  })

  it('that is painted or outlined without anything in it has no middle', () => {
    expect(middleOfShape(newMaskOf({ kind: 'brush', strokes: [] }), source)).toBeUndefined()
    expect(middleOfShape(newMaskOf({ kind: 'outline', paths: [] }), source)).toBeUndefined()
  })
})

describe.each(correctionKinds)('a correction of the kind %s', (kind: EffectKind) => {
  it.each(correctionShapes)('is a valid effect with the %s that was drawn as its only mask', (shape) => {
    const made = newCorrection(source, kind, drawn[shape][0])
    expect(effectSchema.safeParse(made).error).toBeUndefined()
    const correction = correctionOf(made)!
    expect(correction.mask).toMatchObject(drawn[shape][0])
    const { region } = definitionOf(kind)
    expect(correction.list.list).toBe(region?.step === 'pattern' ? 'region' : 'where')
  })

  it('is turned by a drag at its ring, within what its controls can be, and stays valid', () => {
    const made = newCorrection(source, kind, drawn.ellipse[0])
    const { upDown, sideways } = pulledOf(made, photo)
    for (const pulled of [upDown, ...(sideways ? [sideways] : [])]) {
      const start = valueAt(made, pulled.path)
      expect(pulledTo(pulled, start, -1e6)).toBe(pulled.limits.least)
      expect(pulledTo(pulled, start, 1e6)).toBe(pulled.limits.most)
      const next = pulledTo(pulled, start, start < pulled.control.usual[1] ? 60 : -60)
      expect(next).not.toBe(start)
      turnTo(made, pulled, next)
      expect(valueAt(made, pulled.path)).toBe(next)
      expect(pulledInWords(pulled, next)).toContain(pulled.control.label)
    }
    expect(effectSchema.safeParse(made).error).toBeUndefined()
  })
})

describe('the ring of Adjust', () => {
  it('is pulled by a hundred pixels for a stop, and by sixty for twenty per cent of warmth', () => {
    const { upDown, sideways } = pulledOf(adjust('a'), photo)
    expect(pulledTo(upDown, 0, 70)).toBe(0.7)
    expect(pulledInWords(upDown, 0.7).replace(/\s/g, ' ')).toBe('Exposure +0.70 EV')
    expect(pulledTo(sideways!, 0, 60)).toBe(20)
    expect(steppedTo(upDown, 0.7 + upDown.control.step)).toBe(0.75)
  })
})

describe('where a correction lands', () => {
  it('is right above what is selected, in its group; else in the finish', () => {
    const below = Object.assign(newEffect(photo, { kind: 'fog', id: 'fog' }), { place: 'middle', group: 'g' })
    const scene = { effects: [below, adjust('top')] } as unknown as Scene
    insertAbove(scene, adjust('here'), 'fog')
    insertAbove(scene, adjust('last'), undefined)
    expect(scene.effects.map(({ id, place, group }) => [id, place, group])).toEqual([
      ['fog', 'middle', 'g'],
      ['here', 'middle', 'g'],
      ['top', 'finish', null],
      ['last', 'finish', null],
    ])
  })

  it('has its light in the middle of its shape', () => {
    const burst = newCorrection(source, 'sunburst', drawn.ellipse[0])
    expect(burst.controls.pattern).toMatchObject({ x: 200, y: 150, follows: null })
  })

  it('is known by its one mask', () => {
    const effect = adjust('a')
    const mask = (kind: Mask['kind']) => newMask(photo, { kind, id: kind, join: 'keep', marks: noMarks })
    expect(correctionOf(effect)).toBeUndefined()
    effect.where.masks = [mask('ellipse')]
    expect(correctionOf(effect)?.mask).toBe(effect.where.masks[0])
    effect.where.masks = [mask('ellipse'), mask('line')]
    expect(correctionOf(effect)).toBeUndefined()
    effect.where.masks = [mask('cloud')]
    expect(correctionOf(effect)).toBeUndefined()
    expect(correctionOf(undefined)).toBeUndefined()
  })
})
