import { converter } from 'culori'
import { beforeAll, describe, expect, it } from 'vitest'
import { decodeSrgb } from '../../test-support/colourDifference'
import { effectScene } from '../../test-support/effectScene'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import { plane } from '../operations/plane'
import { curveTable } from '../operations/fields/curve/curveTable'
import { gridAt, gridBounds } from '../planes/grid'
import { balanceForGrey, whiteBalanceGain } from './adjust/whiteBalance'
import { newEffect } from './newEffect'
import { definitionOf, type EffectKind } from './registry'

// What finishes a picture, against its formulas and against others: OKLab of culori 4, W3C Compositing for luminosity.

const size = { width: 96, height: 64 }
const count = size.width * size.height
const rgba = samplePixels(size.width, size.height, 3)

let kernels: Kernels
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  evaluator = evaluatorFor(kernels, photoFrom(kernels, 'photo', size.width, size.height, rgba))
})

/** Planes of the whole picture. */
function planesOf(node: GraphNode): Float32Array[] {
  const grid = gridAt(size, 1)
  const value = evaluator.evaluate(node, gridBounds(grid), grid)
  return value.planes.map((_, channel) => new Float32Array(kernels.memory.buffer, plane(value, channel), count).slice())
}

/** What a look makes of the sample picture, before Where and Mix. */
function made(kind: EffectKind, look: string, pattern: object = {}, shape: object = {}): Float32Array[] {
  const { controls } = newEffect(size, { kind, look, id: 'e' })
  Object.assign(controls.pattern, pattern)
  Object.assign(controls.shape, shape)
  const given = definitionOf(kind).contribute(controls, effectScene(size), [1, 1, 1])
  if (given.gives === 'light') return planesOf(given.colours()!)
  return planesOf(given.gives === 'correction' ? given.picture() : given.field)
}

const photo = (channel: number, i: number): number => rgba[4 * i + channel]! / 255
const every = (check: (i: number) => void, step = 7) => {
  for (let i = 0; i < count; i += step) check(i)
}
const luma = (r: number, g: number, b: number): number => 0.2126 * r + 0.7152 * g + 0.0722 * b
const still = {
  ...{ exposure: 0, contrast: 0, highlights: 0, shadows: 0, whites: 0, midtones: 0, blacks: 0 },
}
const plain = { warmth: 0, tint: 0, saturation: 0, vibrance: 0, fine: 0, broad: 0 }

describe('adjust', () => {
  it('leaves the picture as it is when all is at 0', () => {
    const planes = made('adjust', 'clearer', still, plain)
    every((i) => [0, 1, 2].forEach((k) => expect(planes[k]![i]).toBeCloseTo(photo(k, i), 6)))
  })

  it.each([1, -1.5])('exposure %d EV multiplies linear light', (exposure) => {
    const planes = made('adjust', 'clearer', { ...still, exposure }, plain)
    every((i) => {
      for (const k of [0, 1, 2]) {
        const wanted = decodeSrgb(photo(k, i)) * 2 ** exposure
        // The tables of tones end at white.
        if (wanted < 0.98) expect(Math.abs(decodeSrgb(planes[k]![i]!) - wanted)).toBeLessThan(2e-4)
      }
    })
  })

  it('warmth keeps the luminance of grey, and a grey that was picked becomes grey', () => {
    for (const [warmth, tint] of [
      [60, 0],
      [-80, 20],
      [0, -50],
    ] as const) {
      const gain = whiteBalanceGain(warmth, tint)
      expect(luma(...gain)).toBeCloseTo(1, 5)
      if (tint === 0) expect(gain[0] > gain[2]).toBe(warmth > 0)
    }
    for (const cast of [
      [0.31, 0.27, 0.2],
      [0.2, 0.24, 0.33],
      [0.25, 0.33, 0.26],
    ] as const) {
      const { warmth, tint } = balanceForGrey(cast)
      const grey = whiteBalanceGain(warmth, tint).map((gain, i) => gain * cast[i]!)
      expect(Math.max(...grey) / Math.min(...grey)).toBeLessThan(1.03)
    }
  })

  it('contrast leaves black, mid-grey and white, and every number moves its part of the tones', () => {
    const at = (numbers: object, tone: number): number => {
      const flat = photoFrom(kernels, 'flat', 8, 8, new Array<number>(256).fill(Math.round(tone * 255)))
      const other = evaluatorFor(kernels, { ...flat, id: 'photo' })
      const { controls } = newEffect(size, { kind: 'adjust', look: 'clearer', id: 'e' })
      Object.assign(controls.pattern, still, numbers)
      Object.assign(controls.shape, plain)
      const given = definitionOf('adjust').contribute(controls, effectScene({ width: 8, height: 8 }), [1, 1, 1])
      const grid = gridAt({ width: 8, height: 8 }, 1)
      const value = other.evaluate(given.gives === 'correction' ? given.picture() : given.field, gridBounds(grid), grid)
      return new Float32Array(other.kernels.memory.buffer, plane(value, 0), 64)[20]!
    }
    for (const tone of [0, 128 / 255, 1]) expect(at({ contrast: 80 }, tone)).toBeCloseTo(tone, 2)
    expect(at({ contrast: 80 }, 0.25)).toBeLessThan(0.2)
    expect(at({ contrast: 80 }, 0.75)).toBeGreaterThan(0.8)
    expect(at({ blacks: 100 }, 0)).toBeCloseTo(0.12, 2)
    expect(at({ whites: -100 }, 1)).toBeCloseTo(0.88, 2)
    expect(at({ midtones: 100 }, 128 / 255)).toBeCloseTo(0.65, 2)
    expect(at({ shadows: 100 }, 0.25) - 0.25).toBeGreaterThan(0.1)
    expect(at({ highlights: -100 }, 0.75) - 0.75).toBeLessThan(-0.1)
  })

  const oklch = converter('oklch')
  it.each([
    [{ saturation: 40 }, (c: number) => 1.4 * c],
    [{ saturation: -100 }, () => 0],
    [{ vibrance: 60 }, (c: number) => c * (1 + 0.6 * (1 - Math.min(1, 4 * c)) ** 2)],
  ] as const)('%j changes chroma and nothing else', (change, wanted) => {
    const planes = made('adjust', 'clearer', still, { ...plain, ...change })
    every((i) => {
      const before = oklch({ mode: 'rgb', r: photo(0, i), g: photo(1, i), b: photo(2, i) })
      const found = [0, 1, 2].map((k) => planes[k]![i]!)
      if (found.some((v) => v <= 0.001 || v >= 0.999)) return
      const after = oklch({ mode: 'rgb', r: found[0]!, g: found[1]!, b: found[2]! })
      expect(after.l).toBeCloseTo(before.l, 3)
      expect(after.c).toBeCloseTo(wanted(before.c), 3)
      if (before.c > 0.02 && after.c > 0.02) expect(Math.abs(after.h! - before.h!)).toBeLessThan(0.5)
    })
  })
})

describe('colour balance', () => {
  it('adds to each range by its weight over luma, and gives luma back', () => {
    const shifts = {
      ...{ shadowsRed: 30, shadowsGreen: 0, shadowsBlue: -20, midtonesRed: 10, midtonesGreen: -15, midtonesBlue: 0 },
      ...{ highlightsRed: -10, highlightsGreen: 5, highlightsBlue: 25 },
    }
    const free = made('colourBalance', 'under-pines', shifts, { luminosity: 'follow' })
    const kept = made('colourBalance', 'under-pines', shifts, { luminosity: 'keep' })
    every((i) => {
      const y = luma(photo(0, i), photo(1, i), photo(2, i))
      // Weights as the docstring of the kernel has them, written out a second time: common practice, no source.
      const [s, m, h] = [(1 - y) ** 2, 3 * y * (1 - y), y * y]
      const wanted = [
        photo(0, i) + (0.3 * s + 0.1 * m - 0.1 * h) / 3,
        photo(1, i) + (-0.15 * m + 0.05 * h) / 3,
        photo(2, i) + (-0.2 * s + 0.25 * h) / 3,
      ]
      for (const k of [0, 1, 2]) if (wanted[k]! > 0 && wanted[k]! < 1) expect(Math.abs(free[k]![i]! - wanted[k]!)).toBeLessThan(2e-5)
      if (wanted.every((value) => value > 0.02 && value < 0.98)) expect(luma(kept[0]![i]!, kept[1]![i]!, kept[2]![i]!)).toBeCloseTo(y, 4)
    })
  })
})

describe('one hue', () => {
  it('changes what has that hue, and leaves all others and greys', () => {
    const oklch = converter('oklch')
    const planes = made(
      'oneHue',
      'deeper-blues',
      { hue: 255, width: 60, softness: 0, pale: 0 },
      { saturation: -50, shift: 0, lightness: 0 },
    )
    every((i) => {
      const before = oklch({ mode: 'rgb', r: photo(0, i), g: photo(1, i), b: photo(2, i) })
      const after = oklch({ mode: 'rgb', r: planes[0]![i]!, g: planes[1]![i]!, b: planes[2]![i]! })
      // The picture is changed all over; the field says where it counts.
      expect(after.c).toBeCloseTo(0.5 * before.c, 3)
    })
    const { controls } = newEffect(size, { kind: 'oneHue', look: 'deeper-blues', id: 'e' })
    Object.assign(controls.pattern, { hue: 255, width: 60, softness: 0, pale: 0 })
    const field = planesOf(definitionOf('oneHue').contribute(controls, effectScene(size), [1, 1, 1]).field)[0]!
    const seen = new Set<boolean>()
    every((i) => {
      const { h = 0, c } = oklch({ mode: 'rgb', r: photo(0, i), g: photo(1, i), b: photo(2, i) })
      const off = Math.abs(((h - 255 + 540) % 360) - 180)
      if (c < 0.01 || Math.abs(off - 30) < 2) return
      seen.add(off < 30)
      expect(field[i]! > 0.5, `${h}`).toBe(off < 30)
    }, 1)
    expect(seen.size).toBe(2)
  })
})

describe('curves', () => {
  const bent = [
    { x: 0, y: 0.1 },
    { x: 0.4, y: 0.3 },
    { x: 1, y: 0.9 },
  ]
  const line = [
    { x: 0, y: 0 },
    { x: 1, y: 1 },
  ]

  it('take each channel through all, and then through its own', () => {
    const planes = made('curves', 'gentle-s', { all: bent, red: line, green: bent, blue: line })
    const table = curveTable(bent, 1024)
    const through = (v: number): number => table[Math.round(v * 1024)]!
    every((i) => {
      expect(planes[0]![i]).toBeCloseTo(through(photo(0, i)), 2)
      expect(planes[1]![i]).toBeCloseTo(through(through(photo(1, i))), 2)
    })
  })

  it('of lightness only leave hue and saturation: Luminosity of W3C Compositing Level 1', () => {
    const planes = made('curves', 'gentle-s', { all: bent, red: line, green: line, blue: line }, { keeps: 'lightness' })
    const table = curveTable(bent, 1024)
    every((i) => {
      const from = [0, 1, 2].map((k) => photo(k, i))
      const to = from.map((v) => table[Math.round(v * 1024)]!)
      // Lum of the recommendation: 0.3, 0.59, 0.11.
      const lum = ([r, g, b]: number[]): number => 0.3 * r! + 0.59 * g! + 0.11 * b!
      const shifted = from.map((v) => v + lum(to) - lum(from))
      if (Math.min(...shifted) < 0 || Math.max(...shifted) > 1) return
      shifted.forEach((v, k) => expect(planes[k]![i]).toBeCloseTo(v, 2))
    })
  })
})

describe('a vignette', () => {
  it('multiplies linear light by what its formula says', () => {
    const pattern = { follows: null, x: 50, y: 30, size: 90, roundness: 0, softness: 100 }
    const planes = made('vignette', 'quiet-corners', pattern, { darken: 1, lift: 0.5, spare: 0 })
    every((i) => {
      const [x, y] = [(i % size.width) + 0.5, Math.floor(i / size.width) + 0.5]
      const radius = (side: number): number => Math.SQRT2 * 0.9 * (side / 2)
      const q = Math.min(1, Math.hypot((x - 50) / radius(size.width), (y - 30) / radius(size.height)))
      const inside = 1 - q * q * (3 - 2 * q)
      const gain = inside * 2 ** 0.5 + (1 - inside) * 2 ** -1
      for (const k of [0, 1, 2])
        expect(decodeSrgb(planes[k]![i]!) / Math.max(0.01, decodeSrgb(photo(k, i)))).toBeLessThan(gain * 1.02 + 0.01)
      if (photo(1, i) > 0.2) expect(decodeSrgb(planes[1]![i]!) / decodeSrgb(photo(1, i)) / gain).toBeCloseTo(1, 1)
    })
  })
})

describe('grain', () => {
  it.each([
    [0, 0, 'one'],
    [0.6, 0, 'one'],
    [1.2, 0, 'own'],
    [0.8, 60, 'own'],
    [5, 0, 'one'],
  ])('of %d px, clumping %d, is as strong as set, about mid-grey, and as fine', (grains, clumping, colours) => {
    const planes = made('grain', 'fine-grain', { size: grains, clumping, colours, seed: 5 }, { strength: 10 })
    const [red, green] = [planes[0]!, planes[1]!]
    const mean = (values: Float32Array): number => values.reduce((sum, v) => sum + v, 0) / count
    const deviation = Math.sqrt(red.reduce((sum, v) => sum + (v - mean(red)) ** 2, 0) / count)
    expect(Math.abs(mean(red) - 0.5)).toBeLessThan(grains > 2 ? 0.03 : 0.015)
    // Few independent grains are a poor sample.
    expect(Math.abs(deviation / 0.1 - 1)).toBeLessThan(grains > 2 ? 0.25 : 0.06)
    expect(red.every((v, i) => v === green[i])).toBe(colours === 'one')
    // Correlation of neighbours of noise blurred by sigma: e^(-d² / 4 sigma²), here a little more by the width of a pixel.
    if (clumping === 0) {
      let along = 0
      for (let i = 0; i < count - 1; i++) if (i % size.width < size.width - 1) along += (red[i]! - 0.5) * (red[i + 1]! - 0.5)
      const found = along / count / deviation ** 2
      const wanted = grains === 0 ? 0 : Math.exp(-1 / (4 * (grains ** 2 + 1 / 12)))
      expect(Math.abs(found - wanted)).toBeLessThan(0.08)
    }
  })
})

describe('sharpening', () => {
  it('adds what a pixel differs from its surroundings by luma, beyond the threshold', () => {
    const sharp = made('sharpen', 'crisp', { by: 'unsharp', radius: 1.5 }, { strength: 100, threshold: 20 })
    const twice = made('sharpen', 'crisp', { by: 'unsharp', radius: 1.5 }, { strength: 200, threshold: 20 })
    const raw = made('sharpen', 'crisp', { by: 'unsharp', radius: 1.5 }, { strength: 100, threshold: 0 })
    every((i) => {
      const added = sharp[0]![i]! - photo(0, i)
      const difference = raw[0]![i]! - photo(0, i)
      expect(sharp[2]![i]! - photo(2, i)).toBeCloseTo(added, 5)
      expect(twice[0]![i]! - photo(0, i)).toBeCloseTo(2 * added, 5)
      expect(added).toBeCloseTo(Math.sign(difference) * Math.max(0, Math.abs(difference) - 0.02), 5)
    })
    const spread = (planes: Float32Array[]): number =>
      planes[1]!.reduce((sum, v, i) => sum + (i % 96 ? Math.abs(v - planes[1]![i - 1]!) : 0), 0)
    expect(spread(raw)).toBeGreaterThan(1.2 * spread([0, 1, 2].map((k) => Float32Array.from({ length: count }, (_, i) => photo(k, i)))))
  })
})

describe('a fringe', () => {
  it('draws red larger and blue smaller about the middle, and leaves green', () => {
    const planes = made('fringe', 'a-touch', { red: 30, blue: -30 })
    every((i) => expect(planes[1]![i]).toBeCloseTo(photo(1, i), 6))
    const [row, middle] = [20, { x: 48, y: 32 }]
    for (let x = 10; x < 86; x += 5) {
      const source = { x: middle.x + (x + 0.5 - middle.x) / 1.03 - 0.5, y: middle.y + (row + 0.5 - middle.y) / 1.03 - 0.5 }
      const [x0, y0] = [Math.floor(source.x), Math.floor(source.y)]
      const at = (dx: number, dy: number): number => photo(0, (y0 + dy) * size.width + x0 + dx)
      const [right, down] = [source.x - x0, source.y - y0]
      const wanted = (at(0, 0) * (1 - right) + at(1, 0) * right) * (1 - down) + (at(0, 1) * (1 - right) + at(1, 1) * right) * down
      expect(planes[0]![row * size.width + x]).toBeCloseTo(wanted, 4)
    }
  })
})
