import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../../test-support/colourDifference'
import { loadKernels } from '../../../test-support/kernels'
import { planeOf } from '../../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../../test-support/pictures'
import type { Evaluator } from '../../graph/evaluator'
import type { Kernels } from '../../graph/operation'
import { noMarks } from '../../model/marks'
import { withNewIds } from '../../model/stack'
import type { PhotoData } from '../../photo/photoData'
import type { PictureSource } from '../../render/pictureSource'
import { sceneGraph } from '../../render/sceneGraph'
import { newEffect } from '../newEffect'
import type { Effect } from '../registry'

const size = { width: 480, height: 320 }
const WATER = 180
let kernels: Kernels
let photo: PhotoData
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  evaluator = evaluatorFor(kernels, photo)
})

const fog = (): Effect => newEffect({ width: 1200, height: 800 }, { kind: 'fog', id: 'fog' })
const starry = (): Effect => newEffect({ width: 900, height: 600 }, { kind: 'stars', id: 'stars' })

function inWater(of: string, shape: object = {}, stretch = 1): Effect {
  const made = newEffect({ width: 2400, height: 1600 }, { kind: 'reflection', id: 'water' })
  Object.assign(made.controls.pattern, { of, stretch })
  Object.assign(made.controls.shape, { ripple: 0, fade: 0, blur: 0 }, shape)
  return { ...made, where: { masks: [], hold: 100 } }
}

function sourceOf(effects: readonly Effect[], turn = 0): PictureSource {
  return { photo, effects, marks: { ...noMarks, waterline: { y: WATER, turn } } }
}

const shapeOf = (effects: readonly Effect[], id: string, turn = 0): Float32Array =>
  planeOf(evaluator, sceneGraph(sourceOf(effects, turn), { kind: 'step', effectId: id, step: 'shape' }), size)

const greatest = (values: Float32Array): number => values.reduce((most, value) => Math.max(most, value), 0)

describe('a reflection', () => {
  it('shows below the waterline what the effect draws above it, row by row, and nothing above', () => {
    const effects = [fog(), inWater('fog')]
    const [above, below] = [shapeOf(effects, 'fog'), shapeOf(effects, 'water')]
    for (const d of [1, 20, 90]) {
      for (const x of [5, 240, 470]) expect(below[(WATER + d) * 480 + x]).toBeCloseTo(above[(WATER - 1 - d) * 480 + x]!, 4)
    }
    expect(greatest(below.slice(0, WATER * 480))).toBe(0)
    expect(greatest(above)).toBeGreaterThan(0.1)
  })

  it('stretched, it reaches as much further; faded, it falls by e', () => {
    const [plain, long, faded] = [inWater('fog'), inWater('fog', {}, 2), inWater('fog', { fade: 50 })].map((one) =>
      shapeOf([fog(), one], 'water'),
    )
    for (const d of [10, 30, 60])
      expect(long![(WATER + 2 * d) * 480 + 200]).toBeCloseTo(
        (plain![(WATER + d) * 480 + 200]! + plain![(WATER + d - 1) * 480 + 200]!) / 2,
        1,
      )
    const length = (320 * 30) / (50 * 1.5)
    for (const d of [10, 60])
      expect(faded![(WATER + d) * 480 + 200]! / plain![(WATER + d) * 480 + 200]!).toBeCloseTo(Math.exp(-(d + 0.5) / length), 3)
  })

  it('has the colours of what it mirrors: those of single stars too', () => {
    const stars = starry()
    Object.assign(stars.controls.pattern, { colour: 100, size: 3 })
    const picture = renderAll(
      evaluator,
      sceneGraph(sourceOf([{ ...stars, where: { masks: [], hold: 100 } }, inWater('stars')]), { kind: 'alone', effectId: 'water' }),
      size,
    )
    let [warm, cold] = [0, 0]
    for (let i = 0; i < picture.pixels.length; i += 4) {
      const [r, , b] = picture.pixels.slice(i, i + 3)
      if (r! > 120 && r! > b! + 25) warm++
      if (b! > 120 && b! > r! + 10) cold++
    }
    expect(warm).toBeGreaterThan(3)
    expect(cold).toBeGreaterThan(3)
  })

  it('of nothing, of something gone and of another reflection is nothing', () => {
    for (const of of ['gone', 'water']) expect(greatest(shapeOf([fog(), inWater(of)], 'water'))).toBe(0)
    const chained = { ...inWater('water'), id: 'second' }
    expect(greatest(shapeOf([fog(), inWater('fog'), chained], 'second'))).toBe(0)
  })

  it.each([0, 7])('rippled, about a line with a slope of %s°, it keeps the contract of preview and tiles', (turn) => {
    const node = sceneGraph(sourceOf([fog(), inWater('fog', { ripple: 20, rippleLength: 40, fade: 30, blur: 1 })], turn))
    const full = renderAll(evaluator, node, size)
    for (const factor of [2, 4]) {
      const found = compareColours(reduceInLinearLight(full, factor), renderAll(evaluator, node, size, 1 / factor))
      expect(found.mean).toBeLessThan(1)
      expect(found.percentile99).toBeLessThan(4)
    }
    expect(Buffer.compare(Buffer.from(full.pixels), Buffer.from(renderFresh(kernels, [photo], node, size, 1, 93).pixels))).toBe(0)
  })

  it('closes its loop', () => {
    const effects = [fog(), inWater('fog', { ripple: 20 })]
    const at = (phase: number) =>
      planeOf(evaluator, sceneGraph({ ...sourceOf(effects), phase }, { kind: 'step', effectId: 'water', step: 'shape' }), size)
    const [first, half, last] = [at(0), at(0.4), at(1)]
    expect(first.some((value, i) => Math.abs(value - half[i]!) > 0.02)).toBe(true)
    expect(first.reduce((most, value, i) => Math.max(most, Math.abs(value - last[i]!)), 0)).toBeLessThan(2e-3)
  })

  it('copied with its effect, mirrors the copy', () => {
    let next = 0
    const copy = withNewIds({ effects: [fog(), inWater('fog')], groups: [], shared: [], pinned: [] }, () => `new${next++}`)
    expect((copy.effects[1]!.controls.pattern as { of?: string }).of).toBe(copy.effects[0]!.id)
  })
})

describe('patterns that play', () => {
  it.each(['rain', 'snow', 'fog', 'haze', 'dust'] as const)('%s moves, and closes on itself', (kind) => {
    const made = newEffect({ width: 1200, height: 800 }, { kind, id: 'one', ...(kind === 'haze' ? { look: 'golden-haze' } : {}) })
    if (kind === 'haze') Object.assign(made.controls.shape, { unevenness: 80 })
    const at = (phase: number) =>
      planeOf(evaluator, sceneGraph({ ...sourceOf([made]), phase }, { kind: 'step', effectId: 'one', step: 'shape' }), size)
    const [first, half, last] = [at(0), at(0.43), at(1)]
    expect(first.some((value, i) => Math.abs(value - half[i]!) > 0.03)).toBe(true)
    // Positions come from sums of floats: a drop may be a hair off after a loop.
    expect(first.reduce((worst, value, i) => Math.max(worst, Math.abs(value - last[i]!)), 0)).toBeLessThan(0.02)
  })
})

describe('what falls behind near things', () => {
  it.each(['rain', 'snow'] as const)('%s is hidden by what is nearer, and not by what is farther', (kind) => {
    const square = [
      [100, 0],
      [220, 0],
      [220, 320],
      [100, 320],
    ].map(([x = 0, y = 0]) => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 }))
    const region = (distance: number) => ({ id: 'wall', name: 'Wall', distance, softness: 0, corners: square })
    const made = newEffect({ width: 900, height: 600 }, { kind, id: 'one' })
    Object.assign(made.controls.pattern, { nearest: 3, farthest: 60 })
    const inside = (distance: number | undefined) => {
      const marks = distance === undefined ? noMarks : { ...noMarks, regions: [region(distance)] }
      const values = planeOf(
        evaluator,
        sceneGraph({ photo, effects: [made], marks }, { kind: 'step', effectId: 'one', step: 'shape' }),
        size,
      )
      return values.filter((_, i) => i % 480 > 102 && i % 480 < 218).reduce((sum, value) => sum + value, 0)
    }
    expect(inside(2)).toBe(0)
    expect(inside(10)).toBeGreaterThan(0)
    expect(inside(10)).toBeLessThan(0.8 * inside(undefined))
    expect(inside(100)).toBeCloseTo(inside(undefined), 3)
  })
})
