import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { greatestDifference, planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, randomNumbers } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { graphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import { followEdgesNode } from './masks/followEdges/followEdges'
import { guidedFilterNode } from './blurs/guidedFilter/guidedFilter'
import { luminosityMaskNode } from './masks/luminosityMask/luminosityMask'
import { morphologyNode } from './blurs/morphology/morphology'
import { photoNode } from './sources/photo/photo'

const [width, height] = [96, 64]
const size = { width, height }
let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

type Grey = (x: number, y: number) => number

/** Codes of a grey picture. */
const codes = (grey: Grey): number[] =>
  Array.from({ length: width * height }, (_, i) => Math.round(255 * grey(i % width, Math.floor(i / width))))
const rgba = (values: readonly number[]): number[] => values.flatMap((value) => [value, value, value, 255])
const random = randomNumbers(11)
const noise: readonly number[] = codes(() => random())

function evaluatorWith(pictures: Record<string, readonly number[]>): Evaluator {
  return evaluatorFor(kernels, ...Object.entries(pictures).map(([id, values]) => photoFrom(kernels, id, width, height, rgba(values))))
}

const maskFrom = (id: string): GraphNode =>
  luminosityMaskNode(photoNode(id), { channel: 'red', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })

const at = (values: ArrayLike<number>, x: number, y: number): number =>
  values[Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))] ?? 0

describe('morphology', () => {
  function byDefinition(values: readonly number[], radius: number, window: 'disc' | 'square'): number[] {
    return values.map((_, i) => {
      const [x, y] = [i % width, Math.floor(i / width)]
      let found = radius > 0 ? 0 : 1
      for (let dy = -Math.abs(radius); dy <= Math.abs(radius); dy++) {
        for (let dx = -Math.abs(radius); dx <= Math.abs(radius); dx++) {
          if (window === 'disc' && dx * dx + dy * dy > radius * radius) continue
          const value = at(values, x + dx, y + dy) / 255
          found = radius > 0 ? Math.max(found, value) : Math.min(found, value)
        }
      }
      return found
    })
  }

  it.each([1, 2, 5, 9, -1, -4])('over a disc of %d px is the extreme by definition, borders repeating', (radius) => {
    const found = planeOf(evaluatorWith({ noise }), morphologyNode(maskFrom('noise'), radius), size)
    expect(greatestDifference(found, byDefinition(noise, radius, 'disc'))).toBeLessThan(1e-6)
  })

  it('between two radii lies between both', () => {
    const of = (radius: number) => planeOf(evaluatorWith({ noise }), morphologyNode(maskFrom('noise'), radius), size)
    const [two, three] = [of(2), of(3)]
    expect(
      greatestDifference(
        of(2.25),
        two.map((value, i) => value + 0.25 * (three[i]! - value)),
      ),
    ).toBeLessThan(1e-6)
  })
})

describe('guided filter', () => {
  /** He, Sun and Tang 2010, equations 5, 6 and 8, written out from the definition (from memory); borders repeat. */
  function byDefinition(input: readonly number[], guide: readonly number[], radius: number, epsilon: number): number[] {
    const mean = (f: (x: number, y: number) => number, x: number, y: number): number => {
      let sum = 0
      for (let dy = -radius; dy <= radius; dy++) for (let dx = -radius; dx <= radius; dx++) sum += f(x + dx, y + dy)
      return sum / (2 * radius + 1) ** 2
    }
    const i = (x: number, y: number) => at(guide, x, y) / 255
    const p = (x: number, y: number) => at(input, x, y) / 255
    const known = new Map<number, [number, number]>()
    const coefficients = (x: number, y: number): [number, number] => {
      const key = (y + 99) * 1000 + x + 99
      let found = known.get(key)
      if (!found) {
        const [mi, mp] = [mean(i, x, y), mean(p, x, y)]
        const covariance = mean((u, v) => i(u, v) * p(u, v), x, y) - mi * mp
        const variance = mean((u, v) => i(u, v) ** 2, x, y) - mi * mi
        const a = covariance / (variance + epsilon)
        known.set(key, (found = [a, mp - a * mi]))
      }
      return found
    }
    return input.map((_, n) => {
      const [x, y] = [n % width, Math.floor(n / width)]
      const q = mean((u, v) => coefficients(u, v)[0], x, y) * i(x, y) + mean((u, v) => coefficients(u, v)[1], x, y)
      return Math.min(1, Math.max(0, q))
    })
  }

  const blob = codes((x, y) => Math.min(1, Math.max(0, 1.6 - Math.hypot(x - 50, y - 30) / 18)))

  it.each([
    [1, 0.01],
    [3, 0.001],
    [4, 0.0009],
  ])('of radius %d px, epsilon %d is the filter by definition', (radius, epsilon) => {
    const found = planeOf(evaluatorWith({ blob, noise }), guidedFilterNode(maskFrom('blob'), photoNode('noise'), radius, epsilon), size)
    expect(greatestDifference(found, byDefinition(blob, noise, radius, epsilon))).toBeLessThan(1 / 255)
  })

  it('with a wide window, whose coefficients are computed on a coarser grid, stays near that', () => {
    const edge = codes((x, y) => (x + 0.5 < 40 + 0.25 * y ? 0.2 : 0.7) + 0.06 * Math.sin(x * 1.1) * Math.cos(y * 0.8))
    const found = planeOf(evaluatorWith({ blob, edge }), guidedFilterNode(maskFrom('blob'), photoNode('edge'), 14, 0.0009), size)
    const wanted = byDefinition(blob, edge, 14, 0.0009)
    const differences = [...found].map((value, i) => Math.abs(value - wanted[i]!))
    expect(differences.reduce((sum, one) => sum + one, 0) / differences.length).toBeLessThan(1.5 / 255)
    expect(Math.max(...differences)).toBeLessThan(8 / 255)
  })

  it('moves a rough edge to the edge of the photo, and leaves flat places as they are', () => {
    // A wall with a slanting edge, a little noise on it; the mask was painted 5 px too wide and soft.
    const grain = randomNumbers(3)
    const edgeAt = (y: number) => 40 + 0.25 * y
    const wall = codes((x, y) => (x + 0.5 < edgeAt(y) ? 0.2 : 0.7) + 0.02 * (grain() - 0.5))
    const painted = codes((x, y) => 1 - Math.min(1, Math.max(0, (x + 0.5 - edgeAt(y) - 1) / 8)))
    const found = planeOf(evaluatorWith({ wall, painted }), followEdgesNode(maskFrom('painted'), photoNode('wall'), 12), size)
    // Where each row crosses one half, and how wide it is from 80 % to 20 %.
    const crossing = (values: ArrayLike<number>, level: number, y: number): number => {
      for (let x = 0; x < width - 1; x++) {
        const [a, b] = [at(values, x, y), at(values, x + 1, y)]
        if (a >= level && b < level) return x + 0.5 + (a - level) / (a - b)
      }
      return NaN
    }
    for (let y = 16; y < height - 16; y++) {
      expect(Math.abs(crossing(found, 0.5, y) - edgeAt(y)), `row ${y}`).toBeLessThan(1)
      expect(
        Math.abs(
          crossing(
            painted.map((value) => value / 255),
            0.5,
            y,
          ) - edgeAt(y),
        ),
      ).toBeGreaterThan(4)
      expect(crossing(found, 0.25, y) - crossing(found, 0.75, y)).toBeLessThan(3)
      expect(at(found, 10, y)).toBeGreaterThan(0.95)
      expect(at(found, 85, y)).toBeLessThan(0.05)
    }
  })

  it('keeps the level of a mask that is flat', () => {
    const flat = codes(() => 0.4)
    const found = planeOf(evaluatorWith({ flat, noise }), followEdgesNode(maskFrom('flat'), photoNode('noise'), 8), size)
    expect(
      greatestDifference(
        found,
        found.map(() => 102 / 255),
      ),
    ).toBeLessThan(1e-3)
  })

  it.each([3, 3.4, 7.9])('of %d px gives the same bytes in any tiles', (radius) => {
    const evaluator = evaluatorWith({ blob, noise })
    const node = guidedFilterNode(maskFrom('blob'), photoNode('noise'), radius)
    const grid = { ...size, pitchX: 1, pitchY: 1 }
    const whole = planeOf(evaluator, node, size)
    for (const rect of [
      { x: 0, y: 0, width: 33, height: 17 },
      { x: 31, y: 15, width: 50, height: 40 },
      { x: 95, y: 63, width: 1, height: 1 },
    ]) {
      const value = evaluator.evaluate(node, rect, grid)
      const part = new Float32Array(kernels.memory.buffer, value.planes[0]!, rect.width * rect.height)
      part.forEach((v, i) => expect(v).toBe(whole[(rect.y + Math.floor(i / rect.width)) * width + rect.x + (i % rect.width)]))
    }
  })
})

describe('feather', () => {
  it('of a mask is the Gaussian of its standard deviation', () => {
    const step = codes((x) => Number(x >= 48))
    const found = planeOf(evaluatorWith({ step }), graphNode('gaussianBlur', { sigma: 5 }, [maskFrom('step')]), size)
    // The Gaussian's integral, as the error function (Abramowitz and Stegun 7.1.26).
    for (let x = 20; x < 76; x++)
      expect(at(found, x, 30)).toBeCloseTo(0.5 * (1 + kernels.errorFunction((x + 0.5 - 48) / (5 * Math.SQRT2))), 2)
  })
})
