import { describe, expect, it } from 'vitest'
import { documentVersion } from './version'
import { maskOf } from '../../test-support/masks'
import { newEffect } from '../effects/newEffect'
import { lamp } from '../effects/lamp/definition'
import { checkedAfter, checkedScene, Refusal, type ChangedPath } from './checked'
import { limitsOf, numberProblem, schemaAt } from './controls'
import { mend } from './mend'
import { sceneSchema, type Scene, untouched } from './scene'
import { emptyStack } from './stack'

const photo = { id: 'p', fileName: 'p.jpg', width: 1200, height: 800 }
const mask = maskOf(photo, 'similar', { taps: [] })
const scene = (): Scene => ({
  ...{ format: 'welkinar-scene', ...documentVersion, id: 's', name: 'S', created: 0, edited: 0 },
  photo,
  ...untouched,
  ...emptyStack,
  effects: [
    { ...newEffect(photo, { kind: 'rain', id: 'rain' }), where: { masks: [mask], hold: 100 } },
    newEffect(photo, { kind: 'lamp', id: 'lamp' }),
  ],
})

/** The scene with a value put somewhere, without looking. */
function changed(path: ChangedPath, value: unknown): Scene {
  const copy = structuredClone(scene())
  const parent = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], copy) as Record<string, unknown>
  parent[path.at(-1)!] = value
  return copy
}

const damage: readonly (readonly [string, ChangedPath, unknown, string])[] = [
  [
    'a decimal among whole numbers',
    ['effects', 0, 'controls', 'pattern', 'layers'],
    2.5,
    '“Depth layers” takes a whole number from 1 to 4; 2.5 came.',
  ],
  ['a number out of range', ['effects', 0, 'mix', 'amount'], 140, '“Amount” takes a number from 0 to 100; 140 came.'],
  ['text for a number', ['effects', 0, 'mix', 'amount'], 'much', '“Amount”: expected number'],
  ['a key that is not known', ['effects', 1, 'controls', 'pattern', 'seed'], 7, 'There is no “seed” here.'],
  ['another kind', ['effects', 1, 'kind'], 'hail', 'kind'],
  [
    'handles out of order',
    ['effects', 0, 'where', 'masks', 0],
    maskOf(photo, 'luminosity', { handles: [1, 0, 0, 1] }),
    'four tones in rising order',
  ],
  [
    'too many taps',
    ['effects', 0, 'where', 'masks', 0, 'taps'],
    Array.from({ length: 65 }, () => ({ x: 1, y: 1, colour: '#ffffff' })),
    'There is room for 64 places, not for more.',
  ],
  [
    'a mask too many',
    ['effects', 0, 'where', 'masks'],
    Array.from({ length: 33 }, (_, i) => ({ ...mask, id: `m${i}` })),
    'There is room for 32 masks, not for more.',
  ],
  ['one id twice', ['effects', 1, 'id'], 'rain', 'the id “rain” stands twice'],
]

describe('a change of a scene', () => {
  it.each(damage)('with %s is refused in words', (_, path, value, words) => {
    const outcome = checkedAfter(changed(path, value), [path])
    expect(outcome).toBeInstanceOf(Refusal)
    expect((outcome as Refusal).reason).toContain(words)
    expect(checkedScene(changed(path, value))).toBeInstanceOf(Refusal)
  })

  it('that is valid gives the very scene', () => {
    const next = changed(['effects', 0, 'mix', 'amount'], 44)
    expect(checkedAfter(next, [['effects', 0, 'mix', 'amount']])).toBe(next)
  })
})

describe('numbers that are typed', () => {
  it.each([
    ['pattern.height', 2.5, undefined],
    ['pattern.height', NaN, 'A number is needed here.'],
    ['pattern.height', 0, 'Between 1 and 60000, please.'],
    ['shape.seed', 2.5, 'A whole number, please.'],
    ['shape.seed', 1e12, 'Between 0 and 2147483647, please.'],
    ['shape.seed', 17, undefined],
  ])('%s: %s', (path, value, problem) => {
    expect(numberProblem(value, limitsOf(schemaAt(lamp.controls, path)))).toBe(problem)
  })
})

describe('a damaged scene', () => {
  it.each([
    ['a decimal among whole numbers', damage[0]!, ['Depth layers was 2.5 and is 3 now']],
    ['a number out of range', damage[1]!, ['Amount was 140 and is 100 now']],
    ['a key that is not known', damage[3]!, ['“seed” was not known and was dropped']],
    ['another kind', damage[4]!, ['“street lamp” was left out of the effects']],
    ['too many taps', damage[6]!, ['1 of the places were left out']],
  ] as const)('with %s is read with as little changed as can be', (_, [, path, value], changes) => {
    const mended = mend(sceneSchema, changed(path, value))!
    expect(checkedScene(mended.value)).not.toBeInstanceOf(Refusal)
    expect(mended.changes).toEqual(changes)
  })

  it('loses what cannot be read, and keeps the rest', () => {
    const broken = structuredClone(scene()) as unknown as {
      effects: { where: unknown; region?: unknown; controls: { pattern: Record<string, unknown> } }[]
    }
    broken.effects[0]!.controls.pattern['density'] = 'much'
    broken.effects[1]!.region = 5
    const mended = mend(sceneSchema, broken)!
    expect(mended.value.effects.map(({ id }) => id)).toEqual(['lamp'])
    expect(mended.value.effects[0]!.region).toBe(null)
  })

  it.each([null, 7, 'scene', [], {}, { ...scene(), photo: null }, { ...scene(), photo: { id: 'p' } }])('%j is none', (value) => {
    expect(mend(sceneSchema, value)).toBe(undefined)
  })
})
