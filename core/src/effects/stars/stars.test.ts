import { beforeAll, describe, expect, it } from 'vitest'
import { effectScene } from '../../../test-support/effectScene'
import { loadKernels } from '../../../test-support/kernels'
import { planeOf } from '../../../test-support/masks'
import { evaluatorFor, photoFrom } from '../../../test-support/pictures'
import type { Evaluator } from '../../graph/evaluator'
import type { Kernels } from '../../graph/operation'
import { noMarks } from '../../model/marks'
import { sceneGraph } from '../../render/sceneGraph'
import { newEffect } from '../newEffect'
import { stars, type StarControls } from './definition'

let kernels: Kernels
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  evaluator = evaluatorFor(kernels)
})

const size = { width: 1200, height: 900 }
const start = stars.startingLooks[0]!.controls

function controlsOf(pattern: Partial<StarControls['pattern']>, shape: Partial<StarControls['shape']> = {}): StarControls {
  const plain = { halo: 0, spikes: 0, size: 1, band: 0, focalLength: 24 }
  return { pattern: { ...start.pattern, ...plain, ...pattern }, shape: { ...start.shape, thinning: 0, ...shape } }
}

function field(pattern: Partial<StarControls['pattern']>, shape: Partial<StarControls['shape']> = {}, scale = 1): Float32Array {
  return planeOf(evaluator, stars.contribute(controlsOf(pattern, shape), effectScene(size), [1, 1, 1]).field, size, scale)
}

/** Local maxima over a threshold: what a person would count as stars. */
function countStars(values: Float32Array, threshold = 0.04): number {
  let count = 0
  for (let y = 1; y < size.height - 1; y++) {
    for (let x = 1; x < size.width - 1; x++) {
      const own = values[y * size.width + x]!
      if (own < threshold) continue
      let greatest = true
      for (const [dx, dy] of [
        [-1, -1],
        [0, -1],
        [1, -1],
        [-1, 0],
      ] as const)
        greatest &&= own > values[(y + dy) * size.width + x + dx]!
      for (const [dx, dy] of [
        [1, 0],
        [-1, 1],
        [0, 1],
        [1, 1],
      ] as const)
        greatest &&= own >= values[(y + dy) * size.width + x + dx]!
      if (greatest) count++
    }
  }
  return count
}

describe('stars in the picture', () => {
  // The frame of a lens: 36 by 27 mm at the focal length, in square degrees near its middle. Some 5000 stars to the sixth magnitude on the
  // whole sky: Yale Bright Star Catalogue (from memory).
  it.each([
    [24, 6, 31],
    [24, 7, 32],
    [14, 6, 33],
  ])('at %s mm, to magnitude %s, are as many as the sky has (seed %s)', (focalLength, faintest, seed) => {
    const degrees = 180 / Math.PI / focalLength
    const expected = (5000 * 3.1 ** (faintest - 6) * 36 * 27 * degrees * degrees) / 41253
    const found = countStars(field({ focalLength, faintest, white: faintest - 1, seed }))
    expect(Math.abs(found / expected - 1)).toBeLessThan(0.12)
  })

  it('grow by 2.5 to 3.5 a magnitude', () => {
    const at = (faintest: number) => countStars(field({ faintest, white: 4, seed: 8 }), 0.03)
    for (const m of [5, 6]) {
      expect(at(m + 1) / at(m)).toBeGreaterThan(2.5)
      expect(at(m + 1) / at(m)).toBeLessThan(3.5)
    }
  })

  it('are brighter by 2.512 for each magnitude that white is fainter (Pogson 1856), until they are white', () => {
    const [a, b] = [field({ faintest: 4, white: 2, seed: 3 }), field({ faintest: 4, white: 1, seed: 3 })]
    let seen = 0
    a.forEach((value, i) => {
      if (value < 0.3 || value > 0.9 || b[i]! < 0.15) return
      seen++
      // Encoded by a power of 2.2, less what is too faint, with the rest stretched to white again.
      const light = (v: number) => (v * 0.975 + 0.025) ** 2.2
      expect(light(value) / light(b[i]!)).toBeCloseTo(2.512, 1)
    })
    expect(seen).toBeGreaterThan(20)
  })

  it('more or fewer by density, and a million are limited by what the eye can tell apart', () => {
    const at = (density: number) => countStars(field({ density, faintest: 6, seed: 12 }))
    expect(at(200) / at(50)).toBeGreaterThan(3.4)
    expect(at(200) / at(50)).toBeLessThan(4.6)
    expect(at(0)).toBe(0)
    expect(field({ density: 2000, faintest: 11 }).every(Number.isFinite)).toBe(true)
  })

  it.each([
    [60, 15.041],
    [200, 50.137],
  ])('in %s minutes make arcs of %s degrees about the pole', (trails, degrees) => {
    const pole = { poleX: 600, poleY: 450 }
    const values = field({ density: 100, faintest: 1, white: 0.6, focalLength: 6, seed: 6, size: 1 }, { trails, ...pole })
    // Rings around the pole that hold one star, and how far round it is bright.
    const lengths: number[] = []
    for (let radius = 150; radius < 440; radius++) {
      const bright = Array.from({ length: 14400 }, (_, i) => {
        const angle = (i / 14400) * 2 * Math.PI
        const [x, y] = [Math.floor(600 + radius * Math.cos(angle)), Math.floor(450 + radius * Math.sin(angle))]
        return values[y * size.width + x]! > 0.5
      })
      const length = (bright.filter(Boolean).length / 14400) * 360
      if (bright.filter((on, i) => on && !bright.at(i - 1)).length === 1 && length > 5) lengths.push(length)
    }
    lengths.sort((a, b) => a - b)
    expect(lengths.length).toBeGreaterThan(5)
    // Each end is round: about two pixels longer.
    expect(Math.abs(lengths[Math.floor(lengths.length / 2)]! - degrees)).toBeLessThan(1.5)
  })

  it('close their loop while they twinkle', () => {
    const scene = (phase: number) => ({ ...effectScene(size), phase })
    const at = (phase: number) =>
      planeOf(evaluator, stars.contribute(controlsOf({ faintest: 6 }, { twinkle: 100 }), scene(phase), [1, 1, 1]).field, size)
    const [first, half, last] = [at(0), at(0.37), at(1)]
    expect(first.some((value, i) => Math.abs(value - half[i]!) > 0.1)).toBe(true)
    expect(first.reduce((most, value, i) => Math.max(most, Math.abs(value - last[i]!)), 0)).toBeLessThan(1e-4)
  })

  it('end at the horizon, and thin out towards it', () => {
    const marks = { ...noMarks, horizon: { y: 600, turn: 0 } }
    const values = planeOf(
      evaluator,
      stars.contribute(controlsOf({ faintest: 7 }, { thinning: 80 }), effectScene(size, marks), [1, 1, 1]).field,
      size,
    )
    const light = (from: number, to: number) => values.slice(from * size.width, to * size.width).reduce((sum, v) => sum + v, 0)
    expect(light(600, 900)).toBe(0)
    expect(light(500, 600)).toBeLessThan(0.6 * light(0, 100))
  })
})

describe('finding the sky', () => {
  // A sky that darkens upwards and to the right, a mast and a hill before it, and noise as of a sensor.
  const photoSize = { width: 600, height: 400 }
  const inFront = (x: number, y: number) => (Math.abs(x - 300) < 4 && y > 80 ? true : y > 270 - 30 * Math.exp(-(((x - 120) / 60) ** 2)))
  let state = 7
  const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296
  const pixels = Array.from({ length: photoSize.width * photoSize.height }, (_, i) => {
    const [x, y] = [i % photoSize.width, Math.floor(i / photoSize.width)]
    const noise = 4 * (random() - 0.5)
    if (inFront(x, y)) return [14 + noise, 12 + noise, 12 + noise, 255]
    const glow = Math.exp(-(300 - y) / 40)
    return [20 + 150 * glow + noise, 34 + 70 * glow + 0.01 * (600 - x) + noise, 62 + 40 * glow + noise, 255]
  })

  it('takes what is above the horizon and leaves what stands in front', () => {
    const photo = photoFrom(kernels, 'dusk', photoSize.width, photoSize.height, pixels.flat())
    const own = evaluatorFor(kernels, photo)
    const made = newEffect(photoSize, { kind: 'stars', id: 'stars' })
    const marks = { ...noMarks, horizon: { y: 300, turn: 0 } }
    const mask = planeOf(own, sceneGraph({ photo, effects: [made], marks }, { kind: 'step', effectId: 'stars', step: 'where' }), photoSize)
    let [open, shut, skyPixels, others] = [0, 0, 0, 0]
    for (let y = 0; y < photoSize.height; y++) {
      for (let x = 0; x < photoSize.width; x++) {
        const near = [-3, 0, 3].some((dx) => [-3, 0, 3].some((dy) => inFront(x + dx, y + dy) !== inFront(x, y)))
        if (near || Math.abs(y - 300) < 4) continue
        const value = mask[y * photoSize.width + x]!
        if (!inFront(x, y) && y < 300) {
          skyPixels++
          open += value
        } else {
          others++
          shut += value
        }
      }
    }
    expect(open / skyPixels).toBeGreaterThan(0.97)
    expect(shut / others).toBeLessThan(0.02)
    expect(mask[200 * photoSize.width + 300]).toBeLessThan(0.2)
  })
})
