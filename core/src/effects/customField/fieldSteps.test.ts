import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { planeOf } from '../../../test-support/masks'
import { evaluatorFor, renderAll } from '../../../test-support/pictures'
import type { Kernels } from '../../graph/operation'
import { maskAsTonesNode } from '../../operations/masks/maskAsTones/maskAsTones'
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

/** A ramp across: 0 at the left border, 1 at the right one, gently at both. */
const ramp = scaleFieldNode(lineMaskNode({ x: 200, y: 80, toX: 0, toY: 80 }), 1)
const whole = { x: 100, y: 80, ...size }
const light = (plane: Float32Array, y: number): number => row(plane, y).reduce((sum, value) => sum + value, 0)

describe('the line at 50 %', () => {
  it('is as bright in all as its width says, however thin: 1 - |v - 1/2| / reach, integrated', () => {
    // The ramp is s² (3 - 2 s): at its middle it rises by 1.5 / 200 a px.
    for (const width of [0.02, 0.5, 2]) {
      const plane = after({ kind: 'line', width }, ramp)
      expect(light(plane, 60) / ((width / 100) * (200 / 1.5))).toBeCloseTo(1, 1)
      expect(lit(row(plane, 60)).every((x) => Math.abs(x + 0.5 - 100) < 2 + (width / 100) * 150)).toBe(true)
    }
  })

  it('looks the same at a third of the size', () => {
    const node = applyStep(ramp, { kind: 'line', width: 0.6 }, whole)
    const render = (scale: number) => renderAll(evaluatorFor(kernels), maskAsTonesNode(node), { width: 1800, height: 60 }, scale)
    const [full, third] = [render(1), render(1 / 3)]
    const mean = ({ pixels }: { readonly pixels: Uint8ClampedArray }): number =>
      pixels.reduce((sum, v, at) => (at % 4 === 0 ? sum + v : sum), 0) / (pixels.length / 4)
    expect(mean(third) / mean(full)).toBeGreaterThan(0.9)
    expect(mean(third) / mean(full)).toBeLessThan(1.1)
  })
})

describe('a fork', () => {
  const fork: FieldStep = { kind: 'fork', from: 25, to: 75, aside: 20, width: 50 }
  const lines = (step: FieldStep) =>
    planeOf(evaluatorFor(kernels), applyStep(applyStep(ramp, step, whole), { kind: 'line', width: 1 }, whole), size)

  it('leaves the line as it was above where the arm parts, and below where it is gone', () => {
    const [before, plane] = [after({ kind: 'line', width: 1 }, ramp), lines(fork)]
    for (const y of [5, 35, 125, 158]) expect(row(plane, y)).toEqual(row(before, y))
  })

  it('has an arm that goes aside and is ever thinner', () => {
    // Halfway it lies where the ramp is 50 % and half of 20 % more: s² (3 - 2 s) = 0.6.
    const plane = lines(fork)
    const arm = lit(row(plane, 80)).filter((x) => x > 105)
    const s = 0.5 + Math.sin(Math.asin(2 * 0.6 - 1) / 3)
    expect(arm.reduce((sum, x) => sum + x + 0.5, 0) / arm.length).toBeCloseTo(200 * s, -0.3)
    const lightOfArm = (y: number): number => row(plane, y).reduce((sum, value, x) => (x > 108 ? sum + value : sum), 0)
    expect(lightOfArm(100)).toBeGreaterThan(0)
    expect(lightOfArm(100)).toBeLessThan(0.75 * lightOfArm(80))
  })

  it('is nothing without a width', () => {
    expect(lines({ ...fork, width: 0 } as FieldStep)).toEqual(after({ kind: 'line', width: 1 }, ramp))
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

describe('noise without an end across', () => {
  it('is the same all along a row, and differs from row to row', () => {
    const noise = { type: 'smooth', sizeX: 100000, sizeY: 30, octaves: 5, seed: 4 } as const
    const plane = after({ kind: 'second', mode: 'normal', amount: 100, ...noise })
    for (const y of [0, 50, 130]) expect(new Set(row(plane, y)).size).toBe(1)
    expect(new Set(Array.from({ length: size.height }, (_, y) => row(plane, y)[0])).size).toBeGreaterThan(100)
  })
})

describe('bending by noise', () => {
  it('keeps a ramp a ramp: its mean moves by no more than the reach, whatever the noise', () => {
    const noise = { type: 'smooth', sizeX: 50, sizeY: 40, octaves: 3, seed: 4 } as const
    const [before, moved] = [planeOf(evaluatorFor(kernels), ramp, size), after({ kind: 'bend', reach: 20, angle: 0, ...noise }, ramp)]
    let most = 0
    for (let x = 30; x < 170; x++) most = Math.max(most, Math.abs(row(moved, 77)[x]! - row(before, 77)[x]!) * 200)
    expect(most).toBeGreaterThan(2)
    expect(most).toBeLessThanOrEqual(20.5)
  })
})
