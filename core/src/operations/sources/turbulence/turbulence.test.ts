import { Resvg } from '@resvg/resvg-js'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels, take } from '../../../../test-support/kernels'
import { greatestDifference, planeOf } from '../../../../test-support/masks'
import { evaluatorFor } from '../../../../test-support/pictures'
import { everyNth } from '../../../../test-support/sampled'
import { turbulenceAt, type OracleOptions } from '../../../../test-support/turbulenceOracle'
import type { Evaluator } from '../../../graph/evaluator'
import { gridAt } from '../../../planes/grid'
import { plane } from '../../plane'
import { turbulenceNode, type TurbulenceParameters } from './turbulence'

let evaluator: Evaluator
beforeAll(async () => {
  evaluator = evaluatorFor(await loadKernels())
})

const size = { width: 96, height: 64 }
const channels = ['red', 'green', 'blue', 'alpha'] as const

function ours({ frequency, octaves, seed, billowed, tile = null }: OracleOptions, channel = 0, scale = 1): Float32Array {
  const params: TurbulenceParameters = {
    type: billowed ? 'billowed' : 'smooth',
    frequencyX: frequency[0],
    frequencyY: frequency[1],
    octaves,
    seed,
    channel: channels[channel]!,
    tile,
  }
  return planeOf(evaluator, turbulenceNode(params), size, scale)
}

const pixels = Array.from({ length: size.width * size.height }, (_, i) => [i % size.width, Math.floor(i / size.width)] as const)

const cases: readonly OracleOptions[] = [
  { frequency: [0.05, 0.05], octaves: 1, seed: 0, billowed: false },
  { frequency: [0.02, 0.09], octaves: 2, seed: 1, billowed: true },
  { frequency: [0.013, 0.004], octaves: 8, seed: 77, billowed: false },
  { frequency: [0.11, 0.03], octaves: 5, seed: 4107, billowed: true },
  { frequency: [0.3, 0.7], octaves: 3, seed: -12, billowed: false },
  { frequency: [0, 0.2], octaves: 4, seed: 2147483647, billowed: true },
  { frequency: [0.047, 0.051], octaves: 4, seed: 5, billowed: false, tile: { x: 0, y: 0, width: 96, height: 64 } },
  { frequency: [0.033, 0.08], octaves: 6, seed: 9, billowed: true, tile: { x: 0, y: 0, width: 50, height: 40 } },
]

// Seeds for which the reference code divides 0 by 0 somewhere below 10 000; what Chromium (Skia) does then is compared in tests/turbulence.e2e.ts.
const holes = [1155, 2327, 2860, 3099, 4952, 7185, 7259, 7371, 7847]

it.each(holes)('of seed %d has no hole: a point of the lattice without a gradient has none', (seed) => {
  for (const channel of [0, 1, 2, 3]) {
    const options: OracleOptions = { frequency: [1 / 3, 1 / 3], octaves: 1, seed, billowed: false }
    const found = ours(options, channel)
    expect(found.every(Number.isFinite)).toBe(true)
    expect(greatestDifference(found, turbulenceAt(options, channel, pixels))).toBeLessThan(1e-4)
    // No square of pixels of one value, least of all 0.
    expect(found.filter((value) => value < 0.02).length).toBe(0)
  }
})

describe('turbulence at full size', () => {
  // Reference code of W3C Filter Effects Level 1, written out again in TypeScript with double precision.
  it.each(cases)('is that of the reference: %o', (options) => {
    for (const channel of [0, 3]) {
      expect(greatestDifference(ours(options, channel), turbulenceAt(options, channel, pixels))).toBeLessThan(1e-4)
    }
  })

  // @resvg/resvg-js 2.6.2, which gives colours multiplied by alpha. At the seam of a tile it departs from the reference; Chromium does not.
  it.each(
    everyNth(
      cases.filter(({ tile }) => !tile),
      3,
    ),
  )('is that of resvg within a code: %o', ({ frequency, octaves, seed, billowed }) => {
    const type = billowed ? 'turbulence' : 'fractalNoise'
    const { width, height } = size
    const region = `x="0" y="0" width="${width}" height="${height}"`
    const attributes = `type="${type}" baseFrequency="${frequency.join(' ')}" numOctaves="${octaves}" seed="${seed}"`
    const primitive = `<feTurbulence ${attributes}/>`
    const filter = `<filter id="f" filterUnits="userSpaceOnUse" ${region} color-interpolation-filters="sRGB">${primitive}</filter>`
    const theirs = new Resvg(`<svg xmlns="http://www.w3.org/2000/svg" ${region}>${filter}<rect ${region} filter="url(#f)"/></svg>`).render()
    const alpha = ours({ frequency, octaves, seed, billowed }, 3)
    for (const channel of [0, 2, 3]) {
      const own = ours({ frequency, octaves, seed, billowed }, channel)
      for (const [i, [x, y]] of pixels.entries()) {
        const code = theirs.pixels[4 * (y * width + x) + channel]!
        expect(Math.abs(own[i]! * (channel < 3 ? alpha[i]! : 1) - code / 255)).toBeLessThan(1.51 / 255)
      }
    }
  })

  it('a tile meets its neighbour without a seam', () => {
    const tile = { x: 0, y: 0, width: 32, height: 32 }
    const values = ours({ frequency: [0.09, 0.07], octaves: 3, seed: 3, billowed: false, tile })
    for (let i = 0; i < 32; i++) {
      expect(values[i * 96 + 32]).toBeCloseTo(values[i * 96]!, 4)
      expect(values[32 * 96 + i]).toBeCloseTo(values[i]!, 4)
    }
  })
})

describe('turbulence at a reduced scale', () => {
  it.each([false, true])('has the mean of the full picture; billowed: %s', (billowed) => {
    const large = { width: 480, height: 400 }
    const params = { type: billowed ? 'billowed' : 'smooth', frequencyX: 0.06, frequencyY: 0.09, octaves: 6, seed: 21 } as const
    const node = turbulenceNode({ ...params, channel: 'red', tile: null })
    const mean = (values: Float32Array) => values.reduce((sum, v) => sum + v, 0) / values.length
    const full = mean(planeOf(evaluator, node, large))
    for (const scale of [0.5, 0.25, 0.125]) expect(Math.abs(mean(planeOf(evaluator, node, large, scale)) / full - 1)).toBeLessThan(0.04)
  })

  it('is cut into tiles without a trace', () => {
    const node = turbulenceNode({ type: 'billowed', frequencyX: 0.05, frequencyY: 0.02, octaves: 5, seed: 8, channel: 'green', tile: null })
    const grid = gridAt(size, 0.5)
    const whole = planeOf(evaluator, node, size, 0.5)
    const rect = { x: 11, y: 7, width: 21, height: 13 }
    const part = take(evaluator.kernels, plane(evaluator.evaluate(node, rect, grid), 0), 21 * 13)
    part.forEach((value, i) => expect(value).toBe(whole[(7 + Math.floor(i / 21)) * grid.width + 11 + (i % 21)]))
  })
})
