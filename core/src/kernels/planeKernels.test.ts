import { beforeAll, describe, expect, it } from 'vitest'
import { decodeSrgb } from '../../test-support/colourDifference'
import { loadKernels, put, take } from '../../test-support/kernels'
import { randomNumbers } from '../../test-support/pictures'
import type { Kernels } from '../graph/operation'

// Each kernel against a short version in TypeScript that can be checked by reading.

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const random = randomNumbers(11)
const numbers = (count: number): number[] => Array.from({ length: count }, () => random())
const bytes = (values: ArrayLike<number>): number => {
  const address = kernels.allocate(values.length)
  new Uint8Array(kernels.memory.buffer, address, values.length).set(values)
  return address
}
const takeBytes = (address: number, count: number): Uint8Array => new Uint8Array(kernels.memory.buffer, address, count).slice()
const near = (found: ArrayLike<number>, expected: ArrayLike<number>, tolerance: number): void => {
  expect(found.length).toBe(expected.length)
  for (let i = 0; i < found.length; i++) expect(Math.abs(found[i]! - expected[i]!), `at ${i}`).toBeLessThanOrEqual(tolerance)
}

describe('memory', () => {
  it('fills a plane', () => {
    const address = kernels.allocate(40)
    kernels.fill(address, 10, 0.25)
    expect([...take(kernels, address, 10)]).toEqual(new Array(10).fill(0.25))
  })

  it.each([
    [2, 1, 3, 2],
    [-2, -1, 9, 7],
    [4, 3, 5, 5],
    [-9, 0, 4, 3],
    [12, 9, 3, 2],
  ])('copies from (%s, %s) a rectangle of %s × %s, repeating the border', (x, y, width, height) => {
    const [w, h] = [7, 5]
    const source = numbers(w * h)
    const out = kernels.allocate(width * height * 4)
    kernels.copyExtended(put(kernels, source), w, h, x, y, out, width, height)
    const clamp = (v: number, most: number): number => Math.min(most, Math.max(0, v))
    const expected = Array.from(
      { length: width * height },
      (_, i) => source[clamp(y + Math.floor(i / width), h - 1) * w + clamp(x + (i % width), w - 1)]!,
    )
    near(take(kernels, out, width * height), expected, 1e-7)
  })
})

describe('scalars', () => {
  it('sine, cosine and error function are those of mathematics', () => {
    for (let x = -7; x <= 7; x += 0.37) {
      expect(kernels.sine(x)).toBeCloseTo(Math.sin(x), 12)
      expect(kernels.cosine(x)).toBeCloseTo(Math.cos(x), 12)
    }
    // Values of the error function: Abramowitz and Stegun, table 7.1 (from memory).
    for (const [x, value] of [
      [0, 0],
      [0.5, 0.5204999],
      [1, 0.8427008],
      [2, 0.9953223],
      [-1, -0.8427008],
    ] as const)
      expect(kernels.errorFunction(x)).toBeCloseTo(value, 6)
  })
})

describe('codes', () => {
  it('become planes and come back', () => {
    const count = 37
    const rgba = Array.from({ length: count * 4 }, (_, i) => (i * 53) % 256)
    const planes = [0, 1, 2].map(() => kernels.allocate(count * 4))
    kernels.planesFromRgba8(bytes(rgba), count, planes[0]!, planes[1]!, planes[2]!)
    planes.forEach((plane, c) =>
      near(
        take(kernels, plane, count),
        Array.from({ length: count }, (_, i) => rgba[4 * i + c]! / 255),
        1e-7,
      ),
    )
    const out = kernels.allocate(count * 4)
    kernels.rgba8FromPlanes(planes[0]!, planes[1]!, planes[2]!, count, 1, 5, 9, 0.96, out)
    expect([...takeBytes(out, count * 4)]).toEqual(rgba.map((v, i) => (i % 4 === 3 ? 255 : v)))
  })

  it.each([0, 1, 77, 128, 254, 255])('code %s stays itself under the dither, wherever it lies', (code) => {
    const [width, height] = [64, 64]
    const plane = put(kernels, new Array(width * height).fill(code / 255))
    const out = kernels.allocate(width * height * 4)
    kernels.rgba8FromPlanes(plane, plane, plane, width, height, 1234, 77, 0.96, out)
    expect(new Set(takeBytes(out, width * height * 4).filter((_, i) => i % 4 !== 3))).toEqual(new Set([code]))
  })

  it('between two codes the dither keeps the mean, and channels differ', () => {
    const [width, height] = [128, 128]
    const plane = put(kernels, new Array(width * height).fill(100.5 / 255))
    const out = kernels.allocate(width * height * 4)
    kernels.rgba8FromPlanes(plane, plane, plane, width, height, 0, 0, 0.96, out)
    const pixels = takeBytes(out, width * height * 4)
    const mean = pixels.filter((_, i) => i % 4 === 0).reduce((sum, v) => sum + v, 0) / (width * height)
    expect(mean).toBeGreaterThan(100.4)
    expect(mean).toBeLessThan(100.6)
    expect(pixels.some((v, i) => i % 4 === 0 && v !== pixels[i + 1])).toBe(true)
  })

  it('16-bit codes become a plane and come back', () => {
    const codes = Uint16Array.from({ length: 33 }, (_, i) => (i * 8191) % 65536)
    const source = bytes(new Uint8Array(codes.buffer))
    const plane = kernels.allocate(33 * 4)
    kernels.planeFromU16(source, 33, plane)
    near(take(kernels, plane, 33), codes.map((v) => v / 65535) as unknown as number[], 1)
    const back = kernels.allocate(33 * 2)
    kernels.u16FromPlane(plane, 33, back)
    expect([...new Uint16Array(kernels.memory.buffer, back, 33)]).toEqual([...codes])
  })

  it('a histogram counts every pixel once, in its part of 0-1', () => {
    const values = [...numbers(500), 0, 1, 1.7, -0.4]
    const bins = bytes(new Uint8Array(64))
    kernels.histogram(put(kernels, values), values.length, bins, 16)
    const expected = new Array<number>(16).fill(0)
    values.forEach((v) => expected[Math.min(15, Math.max(0, Math.floor(Math.fround(v) * 16)))]!++)
    expect([...new Uint32Array(kernels.memory.buffer, bins, 16)]).toEqual(expected)
  })
})

describe('reductions', () => {
  it.each([
    [8, 6],
    [7, 5],
    [1, 3],
  ])('halve %s × %s RGBA pixels in linear light', (width, height) => {
    const rgba = Array.from({ length: width * height * 4 }, () => Math.floor(random() * 256))
    const [w, h] = [Math.ceil(width / 2), Math.ceil(height / 2)]
    const planes = [0, 1, 2].map(() => kernels.allocate(w * h * 4))
    kernels.halveRgba8(bytes(rgba), width, height, planes[0]!, planes[1]!, planes[2]!)
    planes.forEach((plane, c) => {
      const at = (x: number, y: number): number =>
        decodeSrgb(rgba[4 * (Math.min(y, height - 1) * width + Math.min(x, width - 1)) + c]! / 255)
      const expected = Array.from({ length: w * h }, (_, i) => {
        const [x, y] = [2 * (i % w), 2 * Math.floor(i / w)]
        return (at(x, y) + at(x + 1, y) + at(x, y + 1) + at(x + 1, y + 1)) / 4
      })
      near(take(kernels, plane, w * h), expected, 2e-6)
    })
  })

  it('halve a plane', () => {
    const source = numbers(10 * 6)
    const out = kernels.allocate(5 * 3 * 4)
    kernels.halvePlane(put(kernels, source), 10, 6, out)
    const expected = Array.from({ length: 15 }, (_, i) => {
      const at = 2 * (i % 5) + 20 * Math.floor(i / 5)
      return (source[at]! + source[at + 1]! + source[at + 10]! + source[at + 11]!) / 4
    })
    near(take(kernels, out, 15), expected, 1e-6)
  })

  it.each([1, 1.3, 1.9993, 3.7])('area means with a step of %s cover the row without gap', (step) => {
    const width = 40
    const source = numbers(width)
    const outWidth = Math.floor(width / step)
    const out = kernels.allocate(outWidth * 4)
    kernels.areaRows(put(kernels, source), width, 1, 0, step, 0, out, outWidth, kernels.allocate(outWidth * kernels.areaEntryBytes(step)))
    const expected = Array.from({ length: outWidth }, (_, x) => {
      let sum = 0
      for (let i = 0; i < width; i++) sum += source[i]! * Math.max(0, Math.min((x + 1) * step, i + 1) - Math.max(x * step, i))
      return sum / step
    })
    near(take(kernels, out, outWidth), expected, 1e-5)
    const columns = kernels.allocate(outWidth * 4 * 4)
    const tall = source.flatMap((v) => [v, v, v, v])
    kernels.areaColumns(put(kernels, tall), 4, width, 0, step, 0, columns, outWidth)
    near(
      take(kernels, columns, outWidth * 4),
      expected.flatMap((v) => [v, v, v, v]),
      1e-5,
    )
  })
})

describe('levels', () => {
  const oracle = (v: number, black: number, white: number, gamma: number): number =>
    Math.min(1, Math.max(0, (v - black) / (white - black))) ** (1 / gamma)

  it.each([
    [0, 1, 1],
    [0.1, 0.6, 1],
    [0.05, 0.9, 2.2],
    [0, 3, 0.5],
  ])('black %s, white %s, gamma %s follow the formula', (black, white, gamma) => {
    const values = [...numbers(50), 0, 1, 1.4]
    const out = kernels.allocate(values.length * 4)
    kernels.levels(put(kernels, values), 0, values.length, black, white, gamma, out, 0)
    near(
      take(kernels, out, values.length),
      values.map((v) => oracle(v, black, white, gamma)),
      2e-5,
    )
  })

  it('of a pixel that a thin streak crosses are those of the streak, not of its mean', () => {
    // A streak of peak 0.9 and σ 0.06 px through a pixel, finely sampled.
    const profile = Array.from({ length: 5000 }, (_, i) => 0.9 * Math.exp(-(((i + 0.5) / 5000 - 0.5) ** 2) / (2 * 0.06 ** 2)))
    const mean = profile.reduce((sum, v) => sum + v, 0) / profile.length
    const spread = profile.reduce((sum, v) => sum + v * v, 0) / profile.length - mean * mean
    const [out, outSpread] = [kernels.allocate(16), kernels.allocate(16)]
    kernels.levels(put(kernels, [mean, 0, 0, 0]), put(kernels, [spread, 0, 0, 0]), 1, 0.2, 0.7, 1, out, outSpread)
    const expected = profile.map((v) => oracle(v, 0.2, 0.7, 1))
    const expectedMean = expected.reduce((sum, v) => sum + v, 0) / expected.length
    expect(Math.abs(take(kernels, out, 1)[0]! / expectedMean - 1)).toBeLessThan(0.06)
    // The same levels of the mean would have made it vanish.
    expect(oracle(mean, 0.2, 0.7, 1)).toBe(0)
  })

  it('leave a pixel without variance to the formula', () => {
    const values = numbers(16).map((v) => 0.2 + 0.6 * v)
    const [out, outSpread] = [kernels.allocate(64), kernels.allocate(64)]
    kernels.levels(put(kernels, values), put(kernels, new Array(16).fill(0)), 16, 0.1, 0.9, 1, out, outSpread)
    near(
      take(kernels, out, 16),
      values.map((v) => oracle(v, 0.1, 0.9, 1)),
      1e-5,
    )
    near(take(kernels, outSpread, 16), new Array(16).fill(0), 1e-6)
  })
})
