import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels, put, take } from '../../../test-support/kernels'
import type { Kernels } from '../../graph/operation'
import type { LuminosityMask } from './definition'
import { maskJoins, type MaskJoin } from '../../operations/masks/combineMasks/combineMasks'
import { toneCurves } from '../../operations/masks/luminosityMask/luminosityMask'
import { maskCurve } from './maskCurve'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

type Curve = Pick<LuminosityMask, 'curve' | 'handles' | 'steepness'>

const tones = Array.from({ length: 257 }, (_, i) => i / 256)
const curve = (part: Partial<Curve>): Curve => ({ curve: 'brights', handles: [0, 1, 1, 1], steepness: 0, ...part })

function mask(part: Partial<Curve>, input: number[] = tones): Float32Array {
  const { curve: kind, handles, steepness } = curve(part)
  const out = kernels.allocate(input.length * 4)
  kernels.maskCurve(
    put(kernels, input),
    input.length,
    toneCurves.indexOf(kind),
    ...(handles as [number, number, number, number]),
    steepness,
    out,
  )
  return take(kernels, out, input.length)
}

function combine(join: MaskJoin, a: ArrayLike<number>, b: ArrayLike<number>, strength = 1): Float32Array {
  const out = kernels.allocate(a.length * 4)
  kernels.combineMasks(put(kernels, a), put(kernels, b), a.length, maskJoins.indexOf(join), strength, out)
  return take(kernels, out, a.length)
}

// Brights = L, darks = 1 - L, mids = 4 L (1 - L), self-multiplication: common practice, no source.
describe('luminosity masks', () => {
  it('brights and darks add up to one before steepening', () => {
    const darks = mask({ curve: 'darks' })
    mask({ curve: 'brights' }).forEach((v, i) => expect(v + darks[i]!).toBeCloseTo(1, 6))
  })

  it('mids are 4 L (1 - L): zero at both ends, one in the middle', () => {
    mask({ curve: 'mids' }).forEach((v, i) => expect(v).toBeCloseTo(4 * tones[i]! * (1 - tones[i]!), 6))
  })

  it.each(['brights', 'darks', 'mids'] as const)('%s get narrower by self-multiplication and wider by that of the complement', (kind) => {
    const plain = mask({ curve: kind })
    const twice = mask({ curve: kind, steepness: 1 })
    const thrice = mask({ curve: kind, steepness: 2 })
    const wide = mask({ curve: kind, steepness: -1 })
    plain.forEach((v, i) => {
      expect(twice[i]).toBeCloseTo(v * v, 5)
      expect(thrice[i]).toBeCloseTo(v * v * v, 5)
      expect(wide[i]).toBeCloseTo(1 - (1 - v) * (1 - v), 5)
    })
  })

  it('mids less the brights leave no highlight in', () => {
    const left = combine('subtract', mask({ curve: 'mids' }), mask({ curve: 'brights' }))
    tones.forEach((tone, i) => tone >= 0.75 && expect(left[i]).toBe(0))
    expect(Math.max(...left)).toBeGreaterThan(0.3)
  })

  const cases: Partial<Curve>[] = [
    { curve: 'range', handles: [0.2, 0.4, 0.6, 0.9] },
    { curve: 'range', handles: [0, 0, 1, 1] },
    { curve: 'range', handles: [0.3, 0.3, 0.5, 0.5] },
    { curve: 'range', handles: [0.1, 0.7, 0.7, 0.7], steepness: 2.5 },
    { curve: 'range', handles: [0.5, 0.8, 1, 1], steepness: -3 },
    { curve: 'mids', steepness: -0.5 },
  ]
  it.each(cases)('$curve $handles, steepness $steepness: the kernel is the drawn curve', (part) => {
    mask(part).forEach((v, i) => expect(Math.abs(v - maskCurve(curve(part), tones[i]!))).toBeLessThan(1e-5))
  })

  it('a range is open between its inner handles and shut outside the outer ones', () => {
    const at = (tone: number) => mask({ curve: 'range', handles: [0.2, 0.4, 0.6, 0.9] }, [tone])[0]
    expect([0.1, 0.2, 0.9, 1].map(at)).toEqual([0, 0, 0, 0])
    expect([0.4, 0.5, 0.6].map(at)).toEqual([1, 1, 1])
    expect(at(0.3)).toBeCloseTo(0.5, 5)
  })
})

describe('lists of masks', () => {
  const a = [0, 0.2, 0.5, 0.9, 1]
  const b = [1, 0.6, 0.5, 0.3, 0]

  // Set operations on grey masks: product, maximum, difference cut at 0.
  it.each([
    ['keep', (x: number, y: number) => x * y],
    ['add', (x: number, y: number) => Math.max(x, y)],
    ['subtract', (x: number, y: number) => Math.max(0, x - y)],
  ] as const)('%s follows its definition, and strength blends towards no change', (join, define) => {
    combine(join, a, b).forEach((v, i) => expect(v).toBeCloseTo(define(a[i]!, b[i]!), 6))
    combine(join, a, b, 0.4).forEach((v, i) => expect(v).toBeCloseTo(a[i]! + 0.4 * (define(a[i]!, b[i]!) - a[i]!), 6))
  })

  it('hold lets a part through where the mask is black', () => {
    const out = kernels.allocate(20)
    kernels.holdMask(put(kernels, [0, 0.5, 1, 0, 0]), 5, 0.7, out)
    const [black, half, white] = take(kernels, out, 3)
    expect(black).toBeCloseTo(0.3, 6)
    expect(half).toBeCloseTo(0.65, 6)
    expect(white).toBe(1)
  })
})
