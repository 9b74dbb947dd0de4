import { beforeAll, describe, expect, it } from 'vitest'
import { effectScene } from '../../../test-support/effectScene'
import { loadKernels, take } from '../../../test-support/kernels'
import { evaluatorFor } from '../../../test-support/pictures'
import { directionOf, lengthAlong, varianceOf } from '../../../test-support/streakMeasures'
import type { Evaluator } from '../../graph/evaluator'
import { gridAt, gridBounds } from '../../planes/grid'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { rain, type RainControls } from './definition'

let evaluator: Evaluator
beforeAll(async () => {
  evaluator = evaluatorFor(await loadKernels())
})

const photo = { width: 900, height: 700 }
const start = rain.startingLooks[0]!.controls

/** One layer of equal drops, so that what is measured is the smear itself. */
function single(shape: Partial<RainControls['shape']> = {}, pattern: Partial<RainControls['pattern']> = {}): RainControls {
  const plain = { drops: 100, size: 1, stretch: 1, brightness: 100, shiftX: 0, shiftY: 0 }
  return {
    pattern: { ...start.pattern, density: 12, layers: 1, dropSize: 2, evenness: 100, perLayer: [plain, plain, plain, plain], ...pattern },
    shape: { ...start.shape, windVariation: 0, lengthVariation: 0, taper: 0, black: 0, white: 100, ...shape },
  }
}

function field(
  controls: RainControls,
  scale = 1,
  size = photo,
): { mean: Float32Array; spread: Float32Array | undefined; width: number; height: number } {
  const grid = gridAt(size, scale)
  const value = evaluator.evaluate(rain.contribute(controls, effectScene(size), [1, 1, 1]).field, gridBounds(grid), grid)
  const planes = value.planes.map((plane) => take(evaluator.kernels, plane, grid.width * grid.height))
  evaluator.trim()
  return { mean: planes[0]!, spread: planes[1], width: grid.width, height: grid.height }
}

describe('rain', () => {
  // Speck of σ 2 px smeared by 25 px at 80°: common practice, no source. Angle by the structure tensor
  // (Bigün and Granlund 1987), length by where the autocorrelation along the streaks falls to one half.
  it.each([
    [25, 80],
    [40, 62],
    [18, 100],
    [60, 90],
  ])('of %s px at %s° has that angle within 2° and that length within 15 %%', (length, angle) => {
    const { mean, width, height } = field(single({ length, angle }))
    expect(Math.abs(directionOf(mean, width, height) - angle)).toBeLessThan(2)
    expect(Math.abs(lengthAlong(mean, width, height, angle) / length - 1)).toBeLessThan(0.15)
  })

  it('a blur of the specks is the blur of their picture', async () => {
    const controls = single({ blur: 3, length: 20, white: 400 })
    const grid = gridAt(photo, 1)
    const blurred = evaluator.evaluate(
      gaussianBlurNode(rain.contribute(single({ blur: 0, length: 20, white: 400 }), effectScene(photo), [1, 1, 1]).field, 3),
      gridBounds(grid),
      grid,
    )
    const expected = take(evaluator.kernels, blurred.planes[0]!, photo.width * photo.height)
    const { mean } = field(controls)
    let worst = 0
    for (let y = 30; y < photo.height - 30; y++)
      for (let x = 30; x < photo.width - 30; x++)
        worst = Math.max(worst, Math.abs(mean[y * photo.width + x]! - expected[y * photo.width + x]!))
    expect(worst).toBeLessThan(2 / 255)
  })

  it('wind bends the fall both ways about the angle', () => {
    const { mean, width, height } = field(single({ windVariation: 100, angle: 80, length: 40 }))
    expect(Math.abs(directionOf(mean, width, height) - 80)).toBeLessThan(4)
  })

  it.each([2, 4, 8])('reduced %s times, mean and variance are those of the full picture', (factor) => {
    const size = { width: 800, height: 640 }
    const controls = { ...start, shape: { ...start.shape, black: 0, white: 100 } }
    const full = field(controls, 1, size)
    const reduced = field(controls, 1 / factor, size)
    const { mean, variance } = varianceOf(full.mean, full.width, factor)
    const total = (plane: ArrayLike<number>): number => Array.from(plane).reduce((sum, v) => sum + v, 0)
    const error = reduced.mean.reduce((sum, v, i) => sum + Math.abs(v - mean[i]!), 0)
    expect(error).toBeLessThan(0.1 * total(mean))
    expect(Math.abs(total(reduced.mean) / total(mean) - 1)).toBeLessThan(0.01)
    // Where in a pixel a drop lies is not known there; the variance is right on the whole.
    expect(Math.abs(total(reduced.spread!) / total(variance) - 1)).toBeLessThan(0.12)
  })

  it('near layers are longer, larger and fewer than far ones', () => {
    for (const { controls } of rain.startingLooks) {
      const layers = controls.pattern.perLayer
      layers.slice(1).forEach((layer, i) => {
        expect(layer.size).toBeGreaterThan(layers[i]!.size)
        expect(layer.stretch).toBeGreaterThan(layers[i]!.stretch)
        expect(layer.drops).toBeLessThan(layers[i]!.drops)
      })
    }
  })

  it('no two layers and no two seeds are alike, and nothing repeats across the picture', () => {
    const correlation = (a: Float32Array, b: Float32Array): number => {
      const mean = (plane: Float32Array) => plane.reduce((sum, v) => sum + v, 0) / plane.length
      const [ma, mb] = [mean(a), mean(b)]
      let [ab, aa, bb] = [0, 0, 0]
      a.forEach((v, i) => {
        ab += (v - ma) * (b[i]! - mb)
        aa += (v - ma) ** 2
        bb += (b[i]! - mb) ** 2
      })
      return ab / Math.sqrt(aa * bb)
    }
    const one = field(single({}, { seed: 5 })).mean
    expect(Math.abs(correlation(one, field(single({}, { seed: 6 })).mean))).toBeLessThan(0.05)
    expect(correlation(one, field(single({}, { seed: 5 })).mean)).toBeCloseTo(1, 6)
    const shifted = (by: number) => Float32Array.from(one, (_, i) => one[(i + by) % one.length]!)
    for (const by of [100, 250, 333, 450 + 200 * photo.width]) expect(Math.abs(correlation(one, shifted(by)))).toBeLessThan(0.06)
  })

  it('the number of drops follows the density', () => {
    const light = (density: number) => field(single({ length: 0 }, { density })).mean.reduce((sum, v) => sum + v, 0)
    expect(light(20) / light(5)).toBeGreaterThan(3.4)
    expect(light(20) / light(5)).toBeLessThan(4.6)
    expect(light(0)).toBeLessThan(light(5) * 0.01)
  })
})
