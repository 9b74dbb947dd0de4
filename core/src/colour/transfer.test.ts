import { differenceCiede2000, lab65 } from 'culori'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels, put, take } from '../../test-support/kernels'
import type { Kernels } from '../graph/operation'
import { toneChannels, type ToneChannel } from '../operations/masks/luminosityMask/luminosityMask'
import { hexFromRgb, rgbFromHex } from './hex'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

function through(kernel: 'decodePlane' | 'encodePlane', values: ArrayLike<number>): Float32Array {
  const address = put(kernels, values)
  kernels[kernel](address, address, values.length)
  return take(kernels, address, values.length)
}

function tones(channel: ToneChannel, rgb: readonly [number, number, number]): number {
  const [r, g, b] = rgb.map((v) => put(kernels, [v, v, v, v]))
  const out = kernels.allocate(16)
  kernels.tonePlane(toneChannels.indexOf(channel), r!, g!, b!, 1, out)
  return take(kernels, out, 1)[0]!
}

describe('sRGB', () => {
  // IEC 61966-2-1; the value at one half is from memory.
  it('has the breakpoint and the values of the standard', () => {
    const [black, low, half, white] = through('decodePlane', [0, 0.04045, 0.5, 1])
    expect(black).toBe(0)
    expect(low).toBeCloseTo(0.04045 / 12.92, 7)
    expect(half).toBeCloseTo(0.214041, 6)
    expect(white).toBeCloseTo(1, 6)
  })

  it.each([256, 65536])('comes back to the same code for all %s codes', (count) => {
    const codes = Array.from({ length: count }, (_, i) => i / (count - 1))
    const back = through('encodePlane', through('decodePlane', codes))
    back.forEach((v, i) => expect(Math.round(v * (count - 1))).toBe(i))
  })

  it('follows the formula everywhere', () => {
    const values = Array.from({ length: 4001 }, (_, i) => i / 4000)
    through('decodePlane', values).forEach((v, i) => {
      const x = values[i]!
      expect(Math.abs(v - (x <= 0.04045 ? x / 12.92 : ((x + 0.055) / 1.055) ** 2.4))).toBeLessThan(1.5e-6)
    })
  })
})

describe('tones', () => {
  // ITU-R BT.709.
  it.each([
    [[1, 0, 0], 0.2126],
    [[0, 1, 0], 0.7152],
    [[0, 0, 1], 0.0722],
    [[1, 1, 1], 1],
  ] as const)('luminance and encoded luma of %s are %s', (rgb, expected) => {
    expect(tones('linearLuminance', rgb)).toBeCloseTo(expected, 5)
    expect(tones('encodedLuma', rgb)).toBeCloseTo(expected, 5)
  })

  // culori 4, CIELAB for D65.
  it('lightness is L* / 100', () => {
    for (const rgb of [
      [0, 0, 0],
      [0.02, 0.01, 0.03],
      [0.5, 0.5, 0.5],
      [0.9, 0.2, 0.4],
      [0.1, 0.8, 0.3],
      [1, 1, 1],
    ] as const) {
      const expected = lab65({ mode: 'rgb', r: rgb[0], g: rgb[1], b: rgb[2] }).l / 100
      expect(tones('lightness', rgb)).toBeCloseTo(expected, 4)
    }
  })

  it('maximum, single channels and saturation are what they say', () => {
    const rgb = [0.2, 0.7, 0.4] as const
    expect(tones('red', rgb)).toBeCloseTo(0.2, 6)
    expect(tones('green', rgb)).toBeCloseTo(0.7, 6)
    expect(tones('blue', rgb)).toBeCloseTo(0.4, 6)
    expect(tones('maximum', rgb)).toBeCloseTo(0.7, 6)
    expect(tones('saturation', rgb)).toBeCloseTo(0.5, 6)
  })
})

describe('CIEDE2000, the measure of these tests', () => {
  // Sharma, Wu, Dalal 2005, table 1 (from memory).
  const pairs: readonly (readonly number[])[] = [
    [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
    [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
    [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
    [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
    [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
    [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
    [50, 0, 0, 50, -1, 2, 2.3669],
    [50, -1, 2, 50, 0, 0, 2.3669],
    [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
    [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
    [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
    [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
    [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
    [50, 2.5, 0, 50, 0, -2.5, 4.3065],
    [50, 2.5, 0, 73, 25, -18, 27.1492],
    [50, 2.5, 0, 61, -5, 29, 22.8977],
    [50, 2.5, 0, 56, -27, -3, 31.903],
    [50, 2.5, 0, 58, 24, 15, 19.4535],
    [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
    [50, 2.5, 0, 50, 3.2972, 0, 1],
    [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
    [50, 2.5, 0, 50, 3.2592, 0.335, 1],
    [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
    [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
    [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
    [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
    [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
    [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
    [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
    [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
    [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
    [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
  ]
  const difference = differenceCiede2000()

  it.each(pairs.map((pair, i) => [i + 1, pair] as const))('pair %s', (_, [l1, a1, b1, l2, a2, b2, expected]) => {
    const found = difference({ mode: 'lab65', l: l1!, a: a1!, b: b1! }, { mode: 'lab65', l: l2!, a: a2!, b: b2! })
    expect(found).toBeCloseTo(expected!, 4)
  })
})

describe('colours as text', () => {
  it('reads and writes #rrggbb', () => {
    expect(hexFromRgb(rgbFromHex('#3f80c1'))).toBe('#3f80c1')
    expect(hexFromRgb([1.2, -0.1, 0.5])).toBe('#ff0080')
  })

  it.each(['red', '#fff', '#12345g', ''])('refuses “%s”', (text) => expect(() => rgbFromHex(text)).toThrow(`“${text}” came`))
})
