import { beforeAll, describe, expect, it } from 'vitest'
import { effectScene } from '../../test-support/effectScene'
import { loadKernels } from '../../test-support/kernels'
import { planeOf } from '../../test-support/masks'
import { evaluatorFor } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import { noMarks } from '../model/marks'
import { movedBy, pulledAbout, turnedAbout, type PatternBox, type Placed } from '../model/patternBox'
import { newEffect } from './newEffect'
import { definitionOf, type Effect } from './registry'

// What a box does to a pattern, against the same done to its picture: a pattern that is moved shows what it showed beside; one that is turned or pulled
// about a place shows there what it showed.

const size = { width: 300, height: 200 }
const scene = { ...size, marks: noMarks }
const middle = { x: 140, y: 90 }

const kinds = {
  rain: { look: 'steady-rain', pattern: { layers: 1, density: 3, dropSize: 3 }, shape: { windVariation: 0, length: 4 } },
  snow: { look: 'first-flakes', pattern: { layers: 1, density: 2, flakeSize: 8 }, shape: { drift: 0, length: 0 } },
  dust: { look: 'fine-dust', pattern: { density: 30, size: 9 }, shape: { drift: 0 } },
  fog: { look: 'morning-fog', pattern: { layers: 1, scale: 120, octaves: 2 }, shape: { byDistance: 0, height: 0 } },
  customField: { look: 'scan-lines', pattern: { source: 'smooth', sizeX: 60, sizeY: 40, octaves: 2 }, shape: { steps: [] } },
} as const

describe('a box about a pattern', () => {
  let evaluator: Evaluator
  beforeAll(async () => {
    evaluator = evaluatorFor(await loadKernels())
  })

  const effectOf = (kind: keyof typeof kinds): Effect => {
    const { look, pattern, shape } = kinds[kind]
    const effect = newEffect({ width: 3000, height: 2000 }, { kind, look, id: 'e' })
    Object.assign(effect.controls.pattern, pattern)
    Object.assign(effect.controls.shape, shape)
    return effect
  }
  /** The pattern over the photo after a change of its box. */
  const shown = (kind: keyof typeof kinds, change: (placed: Placed) => Placed): Float32Array => {
    const effect = effectOf(kind)
    const box = definitionOf(kind).box as PatternBox
    const placed = box.read(effect.controls as never, scene)!
    box.write(effect.controls as never, change(placed), scene)
    const { contribute, pattern } = definitionOf(kind)
    // Rain is placed when it is shaped; fog is held down by the ground then.
    const field =
      kind === 'rain'
        ? contribute(effect.controls as never, effectScene(size), [1, 1, 1]).field
        : pattern(effect.controls as never, effectScene(size))
    return planeOf(evaluator, field, size)
  }
  const at = (plane: Float32Array, x: number, y: number): number => plane[Math.round(y) * size.width + Math.round(x)]!
  /** Mean difference of places of one plane and of another, against how much a plane varies. */
  const off = (a: Float32Array, b: Float32Array, to: (x: number, y: number) => { x: number; y: number }): number => {
    let [sum, count, spread] = [0, 0, 0]
    for (let y = 60; y < 120; y += 3) {
      for (let x = 100; x < 180; x += 3) {
        const other = to(x, y)
        sum += Math.abs(at(a, x, y) - at(b, other.x, other.y))
        spread += Math.abs(at(a, x, y) - at(a, x + 41, y + 23))
        count++
      }
    }
    expect(spread / count).toBeGreaterThan(0.005)
    return sum / spread
  }

  it.each(Object.keys(kinds) as (keyof typeof kinds)[])('moves %s as the hand goes', (kind) => {
    const [before, after] = [shown(kind, (placed) => placed), shown(kind, (placed) => movedBy(placed, { x: 20, y: -12 }))]
    expect(off(before, after, (x, y) => ({ x: x + 20, y: y - 12 }))).toBeLessThan(0.02)
  })

  it.each(['rain', 'fog', 'customField'] as const)('turns %s about the middle of the box', (kind) => {
    const [before, after] = [shown(kind, (placed) => placed), shown(kind, (placed) => turnedAbout(placed, middle, 90))]
    // A quarter turn counter-clockwise; y points down.
    expect(off(before, after, (x, y) => ({ x: middle.x + (y - middle.y), y: middle.y - (x - middle.x) - 1 }))).toBeLessThan(0.25)
  })

  it.each(Object.keys(kinds) as (keyof typeof kinds)[])('enlarges %s about the middle of the box', (kind) => {
    const [before, after] = [shown(kind, (placed) => placed), shown(kind, (placed) => pulledAbout(placed, middle, 1.5, 1.5))]
    expect(
      off(before, after, (x, y) => ({ x: middle.x + 1.5 * (x + 0.5 - middle.x) - 0.5, y: middle.y + 1.5 * (y + 0.5 - middle.y) - 0.5 })),
    ).toBeLessThan(0.25)
  })
})
