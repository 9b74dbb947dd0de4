import sharp from 'sharp'
import { blend as culoriBlend } from 'culori'
import { beforeAll, describe, expect, it } from 'vitest'
import { decodeSrgb, encodeSrgb } from '../../../../test-support/colourDifference'
import { loadKernels, put, take } from '../../../../test-support/kernels'
import { mixOracle } from '../../../../test-support/mixOracle'
import { randomNumbers } from '../../../../test-support/pictures'
import type { Kernels } from '../../../graph/operation'
import { mixModes, type MixMode } from './mixModes'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

type Triple = [number, number, number]

interface Run {
  readonly bases: Triple[]
  readonly sources: Triple[]
  readonly alphas: number[]
  readonly spreads?: number[]
  readonly amount?: number
  readonly linear?: boolean
}

/** The kernel on lists of pixels. */
function runMix(mode: MixMode, { bases, sources, alphas, spreads, amount = 1, linear = false }: Run): Triple[] {
  const count = bases.length
  const planes = (triples: Triple[]) =>
    [0, 1, 2].map((c) =>
      put(
        kernels,
        triples.map((t) => t[c]!),
      ),
    ) as Triple
  const out = [0, 1, 2].map(() => kernels.allocate(count * 4)) as Triple
  const scratch = kernels.allocate((count * 4 + 16) * 2)
  const spread = spreads ? put(kernels, spreads) : 0
  kernels.mix(
    mixModes.indexOf(mode),
    linear,
    ...planes(bases),
    ...planes(sources),
    1,
    put(kernels, alphas),
    spread,
    0,
    amount,
    count,
    scratch,
    ...out,
  )
  const [r, g, b] = out.map((address) => take(kernels, address, count))
  return bases.map((_, i) => [r![i]!, g![i]!, b![i]!])
}

const steps = Array.from({ length: 17 }, (_, i) => i / 16)
const pairs = steps.flatMap((b) => steps.map((s) => [b, s] as const))
/** All pairs of 17 steps in the red channel; the other channels run through them in other orders. */
const bases = pairs.map(([b], i): Triple => [b, pairs[(i * 7) % pairs.length]![0], pairs[(i * 11 + 5) % pairs.length]![0]])
const sources = pairs.map(([, s], i): Triple => [s, pairs[(i * 5 + 3) % pairs.length]![1], pairs[(i * 13 + 1) % pairs.length]![1]])

function worst(found: Triple[], expected: readonly (readonly number[])[]): number {
  return Math.max(...found.flatMap((triple, i) => triple.map((v, c) => Math.abs(v - expected[i]![c]!))))
}

describe('mix', () => {
  it.each(mixModes)('%s equals its formula for all pairs, with and without alpha', (mode) => {
    for (const alpha of [1, 0.63, 0.1]) {
      const expected = bases.map((b, i) => mixOracle(mode, b, sources[i]!, alpha))
      const alphas = bases.map(() => alpha)
      expect(worst(runMix(mode, { bases, sources, alphas }), expected)).toBeLessThan(2e-5)
    }
  })

  it.each(mixModes)('%s leaves a pixel without source as it is, even outside 0-1', (mode) => {
    const odd: Triple[] = [
      [-0.2, 0.5, 1.4],
      [0.3, 0.6, 0.9],
      [0, 0, 0],
      [1, 1, 1],
    ]
    for (const linear of [false, true])
      expect(worst(runMix(mode, { bases: odd, sources: odd, alphas: [0, 0, 0, 0], linear }), odd)).toBeLessThan(1e-7)
  })

  // Independent implementation: culori 4 (published library), W3C modes without the four that look at all channels.
  // Its overlay and hard-light have a sign wrong above one half (white over white gives -1); sharp and Chromium check those.
  it.each(['multiply', 'screen', 'darken', 'lighten', 'color-dodge', 'color-burn', 'soft-light', 'difference', 'exclusion'] as const)(
    '%s agrees with culori',
    (mode) => {
      const expected = bases.map((b, i) => {
        const rgb = (t: Triple) => ({ mode: 'rgb' as const, r: t[0], g: t[1], b: t[2] })
        const mixed = culoriBlend([rgb(b), rgb(sources[i]!)], mode as never, 'rgb') as { r: number; g: number; b: number }
        return [mixed.r, mixed.g, mixed.b]
      })
      expect(worst(runMix(mode, { bases, sources, alphas: bases.map(() => 1) }), expected)).toBeLessThan(1 / 255)
    },
  )

  // Independent implementation: sharp 0.35 (libvips composite), modes that it has; it works on 8 bits. Opaque source:
  // for a translucent one libvips weighs the source twice in every mode but “over”.
  it.each(['multiply', 'screen', 'overlay', 'darken', 'lighten', 'hard-light', 'difference', 'exclusion'] as const)(
    '%s agrees with sharp',
    async (mode) => {
      const random = randomNumbers(5)
      const codes = Array.from({ length: 64 * 64 * 2 }, () => [0, 1, 2].map(() => Math.floor(random() * 256)) as Triple)
      const [base, source] = [codes.slice(0, 4096), codes.slice(4096)]
      const raw = { width: 64, height: 64, channels: 4 as const }
      const bytes = (triples: Triple[], alpha: number) => Buffer.from(triples.flatMap((t) => [...t, alpha]))
      const { data } = await sharp(bytes(base, 255), { raw })
        .composite([{ input: bytes(source, 255), raw, blend: mode }])
        .raw()
        .toBuffer({ resolveWithObject: true })
      const unitOf = (t: Triple) => t.map((v) => v / 255) as Triple
      const found = runMix(mode, { bases: base.map(unitOf), sources: source.map(unitOf), alphas: base.map(() => 1) })
      const expected = base.map((_, i) => [0, 1, 2].map((c) => data[4 * i + c]! / 255))
      expect(worst(found, expected)).toBeLessThan(1.6 / 255)
    },
  )

  it('clamps its inputs to 0-1', () => {
    const [pixel] = runMix('screen', { bases: [[1.5, -0.5, 0.5]], sources: [[0.5, 0.5, 2]], alphas: [1] })
    expect(pixel![0]).toBeCloseTo(1, 6)
    expect(pixel![1]).toBeCloseTo(0.5, 6)
    expect(pixel![2]).toBeCloseTo(1, 6)
  })

  it('in linear light adds what the formula gives for decoded values', () => {
    const expected = bases.map((b, i) =>
      mixOracle('screen', b.map(decodeSrgb) as Triple, sources[i]!.map(decodeSrgb) as Triple, 0.4).map(encodeSrgb),
    )
    expect(worst(runMix('screen', { bases, sources, alphas: bases.map(() => 0.4), linear: true }), expected)).toBeLessThan(2e-5)
  })

  it('averages a partly covered pixel in linear light, as a streak of Gaussian profile', () => {
    // A streak of peak 0.8 and σ 0.05 px through a pixel, by fine sampling.
    const base: Triple = [0.3, 0.5, 0.2]
    const source: Triple = [1, 0.9, 0.8]
    const profile = Array.from({ length: 4000 }, (_, i) => 0.8 * Math.exp(-(((i + 0.5) / 4000 - 0.5) ** 2) / (2 * 0.05 ** 2)))
    const mean = profile.reduce((sum, v) => sum + v, 0) / profile.length
    const spread = profile.reduce((sum, v) => sum + v * v, 0) / profile.length - mean * mean
    for (const mode of ['screen', 'normal', 'multiply'] as const) {
      const [found] = runMix(mode, { bases: [base], sources: [source], alphas: [mean], spreads: [spread], amount: 0.7 })
      const expected = [0, 1, 2].map((c) =>
        encodeSrgb(profile.reduce((sum, v) => sum + decodeSrgb(mixOracle(mode, base, source, v * 0.7)[c]!), 0) / profile.length),
      )
      expected.forEach((v, c) => expect(Math.abs(found![c]! - v)).toBeLessThan(0.004))
    }
  })
})
