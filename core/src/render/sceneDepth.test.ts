import { beforeAll, describe, expect, it } from 'vitest'
import { decodeSrgb, encodeSrgb } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, randomNumbers } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import type { DepthPicture } from '../model/depth'
import { marksSchema, noMarks } from '../model/marks'
import { distanceNode, knowsDistance } from './sceneDepth'
import { sceneGraph } from './sceneGraph'

const size = { width: 240, height: 160 }
const photo = { id: 'photo', ...size }
let kernels: Kernels
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  evaluator = evaluatorFor(kernels)
})

const square = (left: number, top: number, side: number) =>
  [
    [left, top],
    [left + side, top],
    [left + side, top + side],
    [left, top + side],
  ].map(([x = 0, y = 0]) => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 }))

const region = (distance: number, left: number, softness = 0) => ({
  id: `r${left}`,
  name: 'Region',
  distance,
  softness,
  corners: square(left, 40, 60),
})

describe('distance of the scene', () => {
  it('a scene that says nothing of it has none', () => {
    expect(knowsDistance(noMarks, null)).toBe(false)
    expect(knowsDistance({ ...noMarks, horizon: { y: 80, turn: 0 } }, null)).toBe(true)
    expect(knowsDistance({ ...noMarks, regions: [region(5, 10)] }, null)).toBe(true)
  })

  // Pinhole geometry: height × focal length / px below the horizon.
  it.each([
    [1.7, 28],
    [12, 50],
    [0.4, 14],
  ])('of level ground under a camera %s m high, %s mm', (cameraHeight, focalLength) => {
    const marks = { ...noMarks, horizon: { y: 50, turn: 0 }, ground: { cameraHeight, focalLength } }
    const metres = planeOf(evaluator, distanceNode(photo, marks, null), size)
    for (const y of [55, 80, 150]) {
      const expected = Math.min(20000, (cameraHeight * (focalLength / 36) * 240) / (y + 0.5 - 50))
      expect(metres[y * 240 + 100]! / expected).toBeCloseTo(1, 4)
    }
  })

  it('regions lie over it, the later over the earlier, and over a depth picture too', () => {
    const marks = { ...noMarks, horizon: { y: 50, turn: 0 }, regions: [region(9, 20), region(4, 50)] }
    const metres = planeOf(evaluator, distanceNode(photo, marks, null), size)
    expect(metres[70 * 240 + 30]).toBeCloseTo(9, 4)
    expect(metres[70 * 240 + 70]).toBeCloseTo(4, 4)
    const flat = photoFrom(kernels, 'flat', 8, 8, new Array(64).fill([255, 255, 255, 255]).flat())
    const depth: DepthPicture = {
      picture: { id: 'flat', fileName: 'flat.png', width: 8, height: 8 },
      near: 'white',
      nearDistance: 33,
      farDistance: 100,
      steps: 'distance',
    }
    const both = planeOf(evaluatorFor(kernels, flat), distanceNode(photo, marks, depth), size)
    expect(both[70 * 240 + 30]).toBeCloseTo(9, 4)
    expect(both[10 * 240 + 200]).toBeCloseTo(33, 3)
  })

  it('near beyond far, a horizon outside the frame and holes are defined', () => {
    const codes = Array.from({ length: 64 }, (_, i) => [i % 3 === 0 ? 0 : 200, 0, 0, 255]).flat()
    const odd = photoFrom(kernels, 'odd', 8, 8, codes)
    const depth = {
      picture: { id: 'odd', fileName: 'odd.png', width: 8, height: 8 },
      near: 'white',
      nearDistance: 50,
      farDistance: 2,
      steps: 'inverse',
    } as const
    const metres = planeOf(evaluatorFor(kernels, odd), distanceNode(photo, noMarks, depth), size)
    expect(metres.every((value) => value >= 1.99 && value <= 50.01)).toBe(true)
    for (const y of [-5000, 5000]) {
      const away = planeOf(evaluator, distanceNode(photo, { ...noMarks, horizon: { y, turn: 12 } }, null), size)
      expect(away.every((value) => value > 0 && value <= 20000)).toBe(true)
    }
  })

  it('marks of an older file have the ground, and no regions', () => {
    const { lights, horizon, waterline, focal } = noMarks
    expect(marksSchema.parse({ lights, horizon, waterline, focal })).toEqual(noMarks)
  })

  // A picture made by Koschmieder's law (1924) over patches some of which are black in one channel.
  it.each([400, 3000])('is estimated from haze that lets one see %s m', (visibility) => {
    const random = randomNumbers(5)
    const far = (x: number) => 0.1 * visibility + (0.6 * visibility * x) / size.width
    const patches = Array.from({ length: 60 * 40 }, () => {
      const black = Math.floor(random() * 3)
      return [0, 1, 2].map((channel) => (channel === black ? 0 : 0.5 * random()))
    })
    const codes = Array.from({ length: size.width * size.height }, (_, i) => {
      const [x, y] = [i % size.width, Math.floor(i / size.width)]
      const t = Math.exp((-2.995732 * far(x)) / visibility)
      const patch = patches[Math.floor(y / 4) * 60 + Math.floor(x / 4)]!
      return [...patch.map((v) => 255 * encodeSrgb(v * t + 0.8 * (1 - t))), 255]
    }).flat()
    const hazy = photoFrom(kernels, 'hazy', size.width, size.height, codes)
    const marks = { ...noMarks, haze: { visibility, air: 80 } }
    const metres = planeOf(evaluatorFor(kernels, hazy), distanceNode({ id: 'hazy', ...size }, marks, null), size)
    for (const x of [60, 120, 180]) expect(Math.abs(metres[80 * 240 + x]! / far(x) - 1)).toBeLessThan(0.15)
    expect(decodeSrgb(1)).toBe(1)
  })

  it('is shown as grey, each doubling an even step', () => {
    const marks = { ...noMarks, regions: [region(10, 20), region(100, 120)] }
    const grey = planeOf(evaluator, sceneGraph({ photo, effects: [], marks }, { kind: 'distance' }), size)
    expect(grey[70 * 240 + 40]).toBeCloseTo(0.75, 4)
    expect(grey[70 * 240 + 150]).toBeCloseTo(0.5, 4)
  })
})
