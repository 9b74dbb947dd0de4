import { beforeAll, describe, expect, it } from 'vitest'
import { effectScene } from '../../test-support/effectScene'
import { loadKernels } from '../../test-support/kernels'
import { planeOf } from '../../test-support/masks'
import { evaluatorFor } from '../../test-support/pictures'
import { directionOf, lengthAlong } from '../../test-support/streakMeasures'
import type { Evaluator } from '../graph/evaluator'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { dropDensity, dropSpeed } from '../weather/rainDrops'
import { appliesToCamera, shutterInWords, slicesOfAir } from './camera'
import { rain, type RainControls } from './rain/definition'
import { cameraDrops, visibleDrops } from './rain/cameraDrops'
import { snow, type SnowControls } from './snow/definition'
import { visibleFlakes } from './snow/cameraFlakes'

let evaluator: Evaluator
beforeAll(async () => {
  evaluator = evaluatorFor(await loadKernels())
})

const photo = { width: 1200, height: 800 }
const rainStart = rain.startingLooks.find(({ id }) => id === 'rain-by-the-camera')!.controls
const snowStart = snow.startingLooks.find(({ id }) => id === 'snow-by-the-camera')!.controls

const rainOf = (pattern: Partial<RainControls['pattern']>, shape: Partial<RainControls['shape']> = {}): RainControls => ({
  pattern: { ...rainStart.pattern, ...pattern },
  shape: { ...rainStart.shape, ...shape },
})
const snowOf = (pattern: Partial<SnowControls['pattern']>): SnowControls => ({
  ...snowStart,
  pattern: { ...snowStart.pattern, ...pattern },
})

describe('air before a camera', () => {
  it('is cut into slices that fill the view between the two distances', () => {
    const view = { focalLength: 35, nearest: 0.5, farthest: 40 }
    const slices = slicesOfAir(view, photo, 6)
    expect(slices.at(-1)!.near).toBeCloseTo(0.5, 6)
    expect(slices[0]!.far).toBeCloseTo(40, 4)
    // A pyramid: base times height over three, less its tip.
    const pyramid = (z: number) => ((36 / 35) * z * (24 / 35) * z * z) / 3
    expect(slices.reduce((sum, { volume }) => sum + volume, 0)).toBeCloseTo(pyramid(40) - pyramid(0.5), 2)
  })

  it('nearest beyond farthest is the same the other way round', () => {
    expect(slicesOfAir({ focalLength: 35, nearest: 40, farthest: 0.5 }, photo, 3)).toEqual(
      slicesOfAir({ focalLength: 35, nearest: 0.5, farthest: 40 }, photo, 3),
    )
  })

  it('shows what counts: by eye no shutter, by the camera no density', () => {
    expect(appliesToCamera('pattern.shutter', 'eye', ['pattern.density'], 'pattern.rate')).toBe(false)
    expect(appliesToCamera('pattern.rate', 'eye', ['pattern.density'], 'pattern.rate')).toBe(false)
    expect(appliesToCamera('pattern.density', 'camera', ['pattern.density'], 'pattern.rate')).toBe(false)
    expect(appliesToCamera('pattern.nearest', 'eye', ['pattern.density'], 'pattern.rate')).toBe(true)
    expect([1 / 60, 1 / 250, 0.5, 2].map(shutterInWords)).toEqual(['1/60 s', '1/250 s', '0.5 s', '2 s'])
  })
})

describe('rain by the camera', () => {
  // Pinhole geometry, with the fall speeds of Atlas et al. 1973; numbers by Marshall and Palmer 1948 (both from memory).
  it.each([
    [4, 1 / 60, 35],
    [40, 1 / 250, 85],
  ])('at %s mm/h, %s s, %s mm has streaks as long as the drops fall, and as many as there are', (rate, shutter, focalLength) => {
    const drawn = visibleDrops(rainOf({ rate, shutter, focalLength }), effectScene(photo))
    expect(drawn.length).toBeGreaterThan(2)
    for (const { slice, diameter, length, count } of drawn) {
      expect(length).toBeCloseTo((dropSpeed(diameter) * shutter * (focalLength / 36) * 1200) / slice.middle, 2)
      if (count >= 1500) continue
      const [low, high] = [0.5, 1, 2, 8].reduce(([a, b], bound, i, all) => (diameter > bound ? [bound, all[i + 1] ?? 8] : [a, b]), [0.5, 1])
      let perCubicMetre = 0
      for (let d = low!; d < high!; d += 0.002) perCubicMetre += dropDensity(rate)(d + 0.001) * 0.002
      expect(count / (perCubicMetre * slice.volume * (1 + length / 800))).toBeCloseTo(1, 1)
    }
  })

  it('falls by its angle, in streaks of that length, in the picture too', () => {
    const size = { width: 1200, height: 900 }
    const one = rainOf(
      { rate: 25, shutter: 1 / 125, focalLength: 135, aperture: 8, nearest: 3, farthest: 5, focusDistance: 3.4 },
      { angle: 75, windVariation: 0, taper: 0 },
    )
    // Thin streaks alias in the tensor's differences; a blur of them has the same direction.
    const drops = cameraDrops(one, effectScene(size), true)
    const values = planeOf(evaluator, gaussianBlurNode(drops, 1.6), size)
    expect(Math.abs(directionOf(values, 1200, 900) - 75)).toBeLessThan(2)
    const lengths = visibleDrops(one, effectScene(size)).map(({ length }) => length)
    const found = lengthAlong(values, 1200, 900, 75)
    expect(found).toBeGreaterThan(0.6 * Math.min(...lengths))
    expect(found).toBeLessThan(1.2 * Math.max(...lengths))
  })

  it('none is none, 300 mm/h is defined, and more rain is more light', () => {
    const light = (rate: number) =>
      planeOf(evaluator, rain.pattern(rainOf({ rate }), effectScene(photo)), photo, 0.25).reduce((sum, v) => sum + v, 0)
    expect(visibleDrops(rainOf({ rate: 0 }), effectScene(photo))).toEqual([])
    expect(light(0)).toBe(0)
    expect(light(30)).toBeGreaterThan(1.5 * light(6))
    expect(Number.isFinite(light(300))).toBe(true)
    expect(visibleDrops(rainOf({ rate: 300 }), effectScene(photo)).every(({ count }) => count <= 3000)).toBe(true)
  })

  it('a shorter shutter makes shorter, brighter streaks', () => {
    const at = (shutter: number) => visibleDrops(rainOf({ shutter }), effectScene(photo)).at(-1)!
    expect(at(1 / 500).length).toBeLessThan(at(1 / 60).length / 8)
    expect(at(1 / 500).brightness).toBeGreaterThan(at(1 / 60).brightness)
  })
})

describe('snow by the camera', () => {
  // Thin lens; Gunn and Marshall 1958 (from memory).
  it('before and behind the focus is as large as the circle of confusion', () => {
    for (const { slice, blur } of visibleFlakes(snowOf({ focalLength: 50, aperture: 2, focusDistance: 6 }), photo)) {
      const [f, z, s] = [0.05, slice.middle, 6]
      expect(blur).toBeCloseTo(((f * f * Math.abs(z - s)) / (2 * z * (s - f)) / 0.036) * 1200, 3)
    }
  })

  it('opened wide, near flakes are larger and fainter; stopped down, sharp', () => {
    const nearest = (aperture: number) => visibleFlakes(snowOf({ aperture, focusDistance: 20 }), photo).at(-1)!
    expect(nearest(1.4).blur).toBeGreaterThan(8 * nearest(16).blur)
    expect(nearest(1.4).brightness).toBeLessThan(nearest(16).brightness)
  })

  it('none is none, and a focal length of 4 mm or 1200 mm is defined', () => {
    expect(visibleFlakes(snowOf({ snowfall: 0 }), photo)).toEqual([])
    for (const focalLength of [4, 1200]) {
      const values = planeOf(evaluator, snow.contribute(snowOf({ focalLength }), effectScene(photo), [1, 1, 1]).field, photo, 0.2)
      expect(values.every(Number.isFinite)).toBe(true)
    }
  })
})
