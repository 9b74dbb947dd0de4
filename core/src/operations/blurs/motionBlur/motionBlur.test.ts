import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels, put, take } from '../../../../test-support/kernels'
import { randomNumbers } from '../../../../test-support/pictures'
import type { Kernels, RunContext } from '../../../graph/operation'
import type { Value } from '../../../planes/value'
import { motionBlur } from './motionBlur'
import { motionTaps } from './motionTaps'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const [width, height] = [61, 47]
const whole = { x: 0, y: 0, width, height }

function smear(plane: ArrayLike<number>, length: number, angle: number): Float32Array {
  const context = {
    kernels,
    grid: { width, height, pitchX: 1, pitchY: 1 },
    plane: (count: number) => kernels.allocate(count * 4),
    scratch: (bytes: number) => kernels.allocate(bytes),
    photo: () => {
      throw new Error('not used')
    },
  } satisfies RunContext
  const input: Value = { kind: 'mask', rect: whole, planes: [put(kernels, plane)] }
  return take(kernels, motionBlur.run(context, { length, angle }, [input], whole).planes[0]!, width * height)
}

/** The definition: the mean of the bilinearly read picture along the line, finely sampled; the border repeats. */
function bruteForce(plane: ArrayLike<number>, length: number, angle: number): number[] {
  const samples = Math.max(1, Math.ceil(length * 64))
  const read = (x: number, y: number): number => plane[Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))]!
  return Array.from({ length: width * height }, (_, i) => {
    let sum = 0
    for (let k = 0; k < samples; k++) {
      const t = ((k + 0.5) / samples - 0.5) * length
      const x = (i % width) + t * Math.cos((angle * Math.PI) / 180)
      const y = Math.floor(i / width) - t * Math.sin((angle * Math.PI) / 180)
      const [ix, iy] = [Math.floor(x), Math.floor(y)]
      const [tx, ty] = [x - ix, y - iy]
      sum += (1 - ty) * ((1 - tx) * read(ix, iy) + tx * read(ix + 1, iy)) + ty * ((1 - tx) * read(ix, iy + 1) + tx * read(ix + 1, iy + 1))
    }
    return sum / samples
  })
}

describe('motion blur', () => {
  it.each([
    [25, 80],
    [25, 0],
    [9.5, 45],
    [40, -30],
    [3, 90],
    [0.6, 12],
    [17, 261],
  ])('of %s px at %s° is the mean along the line', (length, angle) => {
    const random = randomNumbers(8)
    const noise = Array.from({ length: width * height }, () => random())
    const expected = bruteForce(noise, length, angle)
    const found = smear(noise, length, angle)
    expect(Math.max(...found.map((v, i) => Math.abs(v - expected[i]!)))).toBeLessThan(1 / 255)
  })

  it('spreads an impulse along its direction and keeps the sum', () => {
    const impulse = new Float32Array(width * height)
    impulse[23 * width + 30] = 1
    const found = smear(impulse, 20, 0)
    for (let x = 21; x <= 39; x++) expect(found[23 * width + x]).toBeCloseTo(1 / 20, 5)
    expect(found.reduce((sum, v) => sum + v, 0)).toBeCloseTo(1, 5)
    expect(found[22 * width + 30]).toBeCloseTo(0, 6)
  })

  it('turns counter-clockwise: at 80° the smear leans to the right at the top', () => {
    const taps = motionTaps(kernels, 30, 80)
    const top = taps.filter(({ dy }) => dy < -12)
    expect(top.length).toBeGreaterThan(0)
    top.forEach(({ dx }) => expect(dx).toBeGreaterThanOrEqual(1))
  })
})
