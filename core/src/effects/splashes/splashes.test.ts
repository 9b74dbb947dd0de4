import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { effectOf, fieldOf, sumOf } from '../../../test-support/looks'
import { evaluatorFor } from '../../../test-support/pictures'
import type { Evaluator } from '../../graph/evaluator'
import { noMarks, type SceneMarks } from '../../model/marks'

const size = { width: 300, height: 200 }

let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  evaluator = evaluatorFor(kernels)
})

describe('splashes', () => {
  const marks: SceneMarks = { ...noMarks, horizon: { y: 80, turn: 0 } }
  const splash = (pattern: object = {}, shape: object = {}) =>
    effectOf(
      size,
      'splashes',
      'rain-on-the-ground',
      { density: 40, height: 12, droplets: 0, ripples: 0, seed: 3, ...pattern },
      { blur: 0, into: 100, ...shape },
    )

  it('lie under the horizon, and are the smaller the nearer to it', () => {
    const field = fieldOf(evaluator, size, splash(), marks)
    expect(sumOf(field, size, (_, y) => y < 78)).toBeLessThan(0.005 * sumOf(field, size))
    /** Mean height of what is bright in a strip: runs down the columns. */
    const height = (from: number, to: number): number => {
      const runs: number[] = []
      for (let x = 0; x < size.width; x++) {
        let run = 0
        for (let y = from; y < to; y++) {
          if (field[y * size.width + x]! > 0.04) run++
          else if (run > 0) {
            runs.push(run)
            run = 0
          }
        }
      }
      return runs.reduce((all, run) => all + run, 0) / runs.length
    }
    expect(height(150, 200)).toBeGreaterThan(1.3 * height(95, 115))
  })

  it('thin out upwards where no horizon is known, and reach into the distance as far as wanted', () => {
    const reading = {
      ...noMarks,
      reading: {
        method: 6 as const,
        horizon: null,
        sky: null,
        light: null,
        brightest: null,
        water: null,
        brights: { few: 1, many: 0 },
        distance: null,
      },
    }
    const field = fieldOf(evaluator, size, splash({ density: 400 }), reading)
    const [low, middle, high] = [170, 120, 80].map((row) => sumOf(field, size, (_, y) => Math.abs(y - row) < 15))
    expect(low).toBeGreaterThan(middle!)
    expect(middle).toBeGreaterThan(high!)
    const near = fieldOf(evaluator, size, splash({}, { into: 0 }), marks)
    expect(sumOf(near, size, (_, y) => y < 110)).toBeLessThan(
      0.1 * sumOf(fieldOf(evaluator, size, splash(), marks), size, (_, y) => y < 110),
    )
  })
})
