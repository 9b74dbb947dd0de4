import { beforeAll, describe, expect, it } from 'vitest'
import { effectScene } from '../../../test-support/effectScene'
import { loadKernels } from '../../../test-support/kernels'
import { planeOf } from '../../../test-support/masks'
import { evaluatorFor } from '../../../test-support/pictures'
import type { Kernels } from '../../graph/operation'
import { newEffect } from '../newEffect'
import type { Effect } from '../registry'
import { customField, type CustomFieldControls } from './definition'
import { newFieldStep } from './fieldOperations'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const size = { width: 256, height: 192 }

function field(
  pattern: Partial<CustomFieldControls['pattern']>,
  phase: number,
  steps: CustomFieldControls['shape']['steps'] = [],
): Float32Array {
  const made = newEffect(size, { kind: 'customField', look: 'fire', id: 'f' }) as Extract<Effect, { kind: 'customField' }>
  const controls = { pattern: { ...made.controls.pattern, sizeX: 60, sizeY: 60, octaves: 3, ...pattern }, shape: { steps } }
  const shaped = customField.contribute(controls, { ...effectScene(size), phase }, [1, 1, 1])
  return planeOf(evaluatorFor(kernels), shaped.field, size)
}

const meanDifference = (a: Float32Array, b: Float32Array): number =>
  a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0) / a.length

/** Of a shift along a row, how well two fields agree: Pearson's correlation. */
function agreement(a: Float32Array, b: Float32Array, dx: number, dy: number): number {
  let [ab, aa, bb] = [0, 0, 0]
  for (let y = 40; y < size.height - 40; y++) {
    for (let x = 60; x < size.width - 60; x++) {
      const [p, q] = [a[y * size.width + x]! - 0.5, b[(y + dy) * size.width + x + dx]! - 0.5]
      ab += p * q
      aa += p * p
      bb += q * q
    }
  }
  return ab / Math.sqrt(aa * bb)
}

describe('noise that moves', () => {
  const moving = { source: 'smooth', speed: 80, heading: 0 } as const
  const frames = 12

  it('closes its loop: the last frame differs from the first no more than any frame from the next', () => {
    const all = Array.from({ length: frames }, (_, i) => field(moving, i / frames))
    const steps = all.slice(1).map((frame, i) => meanDifference(frame, all[i]!))
    expect(Math.min(...steps)).toBeGreaterThan(0.002)
    expect(meanDifference(all[0]!, all.at(-1)!)).toBeLessThanOrEqual(1.05 * Math.max(...steps))
  })

  it.each([
    [0, 1, 0],
    [90, 0, -1],
  ])('goes as far as it is set, at a heading of %d°', (heading, ux, uy) => {
    // A tenth of the loop is 8 px; what takes over from one loop earlier weighs little yet.
    const [start, later] = [field({ ...moving, heading }, 0), field({ ...moving, heading }, 0.1)]
    const shifts = Array.from({ length: 17 }, (_, d) => agreement(start, later, d * ux, d * uy))
    const best = shifts.indexOf(Math.max(...shifts))
    expect(Math.abs(best - 8)).toBeLessThanOrEqual(0.8)
  })

  it('at rest, or tiled, stays as it is', () => {
    expect(field({ ...moving, speed: 0 }, 0.4)).toEqual(field(moving, 0))
    expect(field({ ...moving, tiling: 'frame' }, 0.4)).toEqual(field({ ...moving, tiling: 'frame' }, 0))
  })
})

describe('a second noise', () => {
  // Formulas of W3C Compositing and Blending Level 1.
  const modes = {
    multiply: (a: number, b: number) => a * b,
    screen: (a: number, b: number) => 1 - (1 - a) * (1 - b),
    difference: (a: number, b: number) => Math.abs(a - b),
    darken: Math.min,
    lighten: Math.max,
  } as const

  it.each(Object.keys(modes) as (keyof typeof modes)[])('is joined by %s', (mode) => {
    const second = newFieldStep('second', size)
    const step = { ...second, mode, amount: 100, sizeX: 30, sizeY: 45, octaves: 2, seed: 9 } as typeof second
    const [a, b] = [field({ source: 'smooth' }, 0), field({ source: 'smooth', sizeX: 30, sizeY: 45, octaves: 2, seed: 9 }, 0)]
    const joined = field({ source: 'smooth' }, 0, [step])
    for (let i = 0; i < a.length; i += 31) expect(Math.abs(joined[i]! - modes[mode](a[i]!, b[i]!))).toBeLessThan(1 / 255)
  })
})
