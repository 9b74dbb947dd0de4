import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { planeOf } from '../../../test-support/masks'
import { evaluatorFor } from '../../../test-support/pictures'
import type { Kernels } from '../../graph/operation'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { stripesNode } from '../../operations/sources/stripes/stripes'
import { applyStep, type FieldStep } from './fieldOperations'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const size = { width: 200, height: 160 }
/** One upright stripe of 4 px, from 96 to 100 px. */
const stem = stripesNode({ period: 400, part: 0.01, turn: 90, shift: -0.24 })

function after(step: FieldStep, field = stem): Float32Array {
  return planeOf(evaluatorFor(kernels), applyStep(field, step, { x: 100, y: 80, ...size }), size)
}

const row = (plane: Float32Array, y: number): Float32Array => plane.subarray(y * size.width, (y + 1) * size.width)
const lit = (values: Float32Array): number[] => [...values].flatMap((value, x) => (value > 0.02 ? [x] : []))

describe('a fork', () => {
  const fork: FieldStep = { kind: 'fork', from: 25, to: 75, reach: 60, strength: 80 }

  it('has nothing but the stem above where it parts and below where the arm is gone', () => {
    const [before, plane] = [planeOf(evaluatorFor(kernels), stem, size), after(fork)]
    for (const y of [5, 35, 125, 158]) expect(lit(row(plane, y))).toEqual(lit(row(before, y)))
  })

  it('has an arm that goes aside evenly and grows fainter, as wide as the stem', () => {
    const plane = after(fork)
    const stemAt = lit(row(plane, 5))
    expect(stemAt).toHaveLength(4)
    // Halfway, at 50 % of the height, it is half of 60 px aside, at half of its strength; it parts gently: s² (3 - 2 s) of the way. By definition.
    const arm = (y: number): number[] => lit(row(plane, y)).filter((x) => x > stemAt[0]! + 4)
    for (const [y, aside] of [
      [80, 30],
      [60, 60 * 0.25 ** 2 * 2.5],
    ] as const) {
      const x = arm(y)
      expect(x.reduce((sum, one) => sum + one, 0) / x.length - (stemAt[0]! + 1.5)).toBeCloseTo(aside, -0.4)
      expect(x.length).toBeGreaterThanOrEqual(4)
      expect(x.length).toBeLessThanOrEqual(6)
    }
    expect(Math.max(...arm(80).map((x) => row(plane, 80)[x]!))).toBeCloseTo(0.4, 1)
  })

  it.each([
    { reach: 0, strength: 60 },
    { reach: 60, strength: 0 },
  ])('is nothing with a reach of $reach px and a strength of $strength %', (none) => {
    expect(after({ kind: 'fork', from: 25, to: 75, ...none })).toEqual(planeOf(evaluatorFor(kernels), stem, size))
  })
})

describe('a halo', () => {
  it('lays a Gaussian of its radius over the field, and none is brighter than white', () => {
    const plane = after({ kind: 'halo', sigma: 6, strength: 200 })
    const before = row(planeOf(evaluatorFor(kernels), stem, size), 80)
    for (const x of [70, 84, 90, 97, 110, 130]) {
      // exp(-r² / 2σ²) / (σ √2π) over the four pixels of the stripe.
      const blurred = [...before].reduce((sum, v, at) => sum + v * (Math.exp(-((x - at) ** 2) / 72) / (6 * Math.sqrt(2 * Math.PI))), 0)
      expect(row(plane, 80)[x]!).toBeCloseTo(1 - (1 - before[x]!) * (1 - Math.min(1, 2 * blurred)), 2)
    }
    const bright = after({ kind: 'halo', sigma: 6, strength: 5000 })
    expect(Math.max(...bright)).toBeLessThanOrEqual(1)
    expect(after({ kind: 'halo', sigma: 6, strength: 0 })).toEqual(planeOf(evaluatorFor(kernels), stem, size))
  })
})

describe('bending by noise', () => {
  it('keeps a ramp a ramp: its mean moves by no more than the reach, whatever the noise', () => {
    const ramp = scaleFieldNode(lineMaskNode({ x: 0, y: 80, toX: 200, toY: 80 }), 1)
    const noise = { type: 'smooth', sizeX: 50, sizeY: 40, octaves: 3, seed: 4 } as const
    const [before, moved] = [planeOf(evaluatorFor(kernels), ramp, size), after({ kind: 'bend', reach: 20, angle: 0, ...noise }, ramp)]
    let most = 0
    for (let x = 30; x < 170; x++) most = Math.max(most, Math.abs(row(moved, 77)[x]! - row(before, 77)[x]!) * 200)
    expect(most).toBeGreaterThan(2)
    expect(most).toBeLessThanOrEqual(20.5)
  })
})
