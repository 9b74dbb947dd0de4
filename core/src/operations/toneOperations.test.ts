import { converter, interpolate } from 'culori'
import { beforeAll, describe, expect, it } from 'vitest'
import { decodeSrgb } from '../../test-support/colourDifference'
import { loadKernels, take } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, randomNumbers } from '../../test-support/pictures'
import { rgbFromHex } from '../colour/hex'
import type { GraphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import { gridAt, gridBounds } from '../planes/grid'
import { adjustNode } from './colour/adjust/adjust'
import { balanceNode, type BalanceParameters } from './colour/balance/balance'
import { spreadLightNode } from './light/brights/brights'
import { curveTable } from './fields/curve/curveTable'
import { curveNode } from './fields/curve/curve'
import { lampFieldNode, litByLampNode } from './light/lamp/lamp'
import { lightColoursNode, lightFieldNode } from './light/lightOfTones/lightOfTones'
import { luminosityMaskNode } from './masks/luminosityMask/luminosityMask'
import { inSpaceNode } from './colour/inSpace/inSpace'
import { photoNode } from './sources/photo/photo'
import { rampNode } from './colour/ramp/ramp'

const [width, height] = [64, 48]
const size = { width, height }
let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

type Colour = readonly [number, number, number]
const random = randomNumbers(31)
const codes: readonly Colour[] = Array.from(
  { length: width * height },
  () => [0, 0, 0].map(() => Math.floor(256 * random())) as unknown as Colour,
)
const grey = (of: (x: number, y: number) => number): Colour[] =>
  Array.from({ length: width * height }, (_, i) => {
    const code = Math.round(255 * of(i % width, Math.floor(i / width)))
    return [code, code, code]
  })

/** Planes of a node over a picture of these codes. */
function planesOf(node: GraphNode, picture: readonly Colour[] = codes): Float32Array[] {
  const photo = photoFrom(
    kernels,
    'p',
    width,
    height,
    picture.flatMap((colour) => [...colour, 255]),
  )
  const grid = gridAt(size, 1)
  const value = evaluatorFor(kernels, photo).evaluate(node, gridBounds(grid), grid)
  return value.planes.map((plane) => take(kernels, plane, width * height))
}

const tones = photoNode('p')
const luma = ([r, g, b]: readonly number[]): number => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
const encoded = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)

describe('ramp', () => {
  // culori interpolates in OKLab too: an implementation of Ottosson 2020 that is not ours.
  it.each([
    [
      ['#000000', 0],
      ['#ffffff', 1],
    ],
    [
      ['#1a0400', 0],
      ['#a32305', 0.3],
      ['#ff8a1c', 0.6],
      ['#fffbe6', 1],
    ],
    [
      ['#0044ff', 0.2],
      ['#ffee00', 0.8],
    ],
  ] as (readonly (readonly [string, number])[])[])('between %j is that of culori', (...stops) => {
    const ramp = grey((x, y) => (x + y / height) / width)
    const field = luminosityMaskNode(tones, { channel: 'red', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })
    const found = planesOf(
      rampNode(
        field,
        stops.map(([colour, at]) => ({ at, colour: rgbFromHex(colour) })),
      ),
      ramp,
    )
    const oracle = interpolate(
      stops.map(([colour, at]) => [colour, at] as [string, number]),
      'oklab',
    )
    const within = (value: number): number => Math.min(1, Math.max(0, value))
    for (let i = 0; i < ramp.length; i += 17) {
      const t = Math.min(stops.at(-1)![1], Math.max(stops[0]![1], ramp[i]![0] / 255))
      const colour = oracle(t) as unknown as { l: number; a: number; b: number }
      const wanted = rgbOfOklab(colour).map(within)
      found.forEach((plane, channel) => expect(Math.abs(plane[i]! - wanted[channel]!), `${i}`).toBeLessThan(1.5 / 255))
    }
  })

  it('mixes as light does, if wanted: as culori in linear sRGB', () => {
    const [from, to] = ['#204a90', '#ffe0a0'] as const
    const picture = grey((x, y) => (x + y / height) / width)
    const field = luminosityMaskNode(tones, { channel: 'red', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })
    const stops = [from, to].map((colour, at) => ({ at, colour: rgbFromHex(colour) }))
    const found = planesOf(rampNode(field, stops, true), picture)
    const oracle = interpolate([from, to], 'lrgb')
    for (let i = 0; i < picture.length; i += 17) {
      const { r, g, b } = oracle(picture[i]![0] / 255)
      ;[r, g, b].map(encoded).forEach((wanted, channel) => expect(Math.abs(found[channel]![i]! - wanted)).toBeLessThan(0.5 / 255))
    }
  })

  /** Ottosson 2020, written out again. */
  function rgbOfOklab({ l, a, b }: { l: number; a: number; b: number }): number[] {
    const p = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3
    const q = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3
    const s = (l - 0.0894841775 * a - 1.291485548 * b) ** 3
    return [
      4.0767416621 * p - 3.3077115913 * q + 0.2309699292 * s,
      -1.2684380046 * p + 2.6097574011 * q - 0.3413193965 * s,
      -0.0041960863 * p - 0.7034186147 * q + 1.707614701 * s,
    ].map(encoded)
  }
})

describe('curve', () => {
  const points = [
    { x: 0, y: 0.1 },
    { x: 0.3, y: 0.15 },
    { x: 0.6, y: 0.8 },
    { x: 1, y: 0.9 },
  ]

  it('goes through its points, rises where they rise, and does not overshoot', () => {
    const table = [...curveTable(points, 1000)]
    for (const { x, y } of points) expect(table[Math.round(1000 * x)]).toBeCloseTo(y, 6)
    table.slice(1).forEach((value, i) => expect(value).toBeGreaterThanOrEqual(table[i]! - 1e-7))
    const bump = [
      ...curveTable(
        [
          { x: 0, y: 0 },
          { x: 0.5, y: 1 },
          { x: 1, y: 0 },
        ],
        1000,
      ),
    ]
    expect(Math.max(...bump)).toBeLessThanOrEqual(1 + 1e-6)
  })

  it('takes tones from the table, and the end values beyond it', () => {
    const [red] = planesOf(curveNode(tones, points))
    const table = curveTable(points, 255)
    codes.forEach(([code], i) => expect(red![i]!).toBeCloseTo(table[code]!, 2))
    expect([...curveTable([{ x: 0.4, y: 0.2 }], 4)]).toEqual([0.2, 0.2, 0.2, 0.2, 0.2].map(Math.fround))
  })

  it('of the diagonal is nothing, and of no points as well', () => {
    expect(
      curveNode(tones, [
        { x: 0, y: 0 },
        { x: 1, y: 1 },
      ]),
    ).toBe(tones)
    expect([...curveTable([], 4)]).toEqual([0, 0.25, 0.5, 0.75, 1])
  })
})

describe('three-way balance', () => {
  const shifts: BalanceParameters = { shadows: [0.6, -0.2, 0], midtones: [0, 0.4, -0.8], highlights: [-0.3, 0, 0.9], keepLuminosity: false }

  // Weights (1 - y)², 3 y (1 - y), y², a third of the range at most: written out again; common practice, no source.
  it('shifts each range by its weight', () => {
    const found = planesOf(balanceNode(tones, shifts))
    for (let i = 0; i < codes.length; i += 7) {
      const v = codes[i]!.map((code) => code / 255)
      const y = luma(v)
      v.forEach((value, c) => {
        const shift = (shifts.shadows[c]! * (1 - y) ** 2 + shifts.midtones[c]! * 3 * y * (1 - y) + shifts.highlights[c]! * y * y) / 3
        expect(found[c]![i]!).toBeCloseTo(value + shift, 4)
      })
    }
  })

  it('keeps the luma of every pixel if it is to, and tints pure white if not', () => {
    const kept = planesOf(balanceNode(tones, { ...shifts, keepLuminosity: true }))
    for (let i = 0; i < codes.length; i += 7)
      expect(luma([0, 1, 2].map((c) => kept[c]![i]!))).toBeCloseTo(luma(codes[i]!.map((code) => code / 255)), 4)
    const white = planesOf(
      balanceNode(tones, shifts),
      grey(() => 1),
    )
    expect(white[0]![5]).toBeLessThan(0.95)
    expect(balanceNode(tones, { ...shifts, shadows: [0, 0, 0], midtones: [0, 0, 0], highlights: [0, 0, 0] })).toBe(tones)
  })
})

describe('exposure, lamp and light', () => {
  it.each([-2, -0.5, 0.5, 1])('%s EV is that power of two in linear light', (stops) => {
    const gain = 2 ** stops
    const found = planesOf(adjustNode(tones, { gain: [gain, gain, gain] }))
    codes
      .slice(0, 300)
      .forEach((colour, i) => colour.forEach((code, c) => expect(found[c]![i]!).toBeCloseTo(encoded(gain * decodeSrgb(code / 255)), 4)))
  })

  it('shadows and highlights move their tones and leave the ends', () => {
    const [lifted] = planesOf(
      adjustNode(tones, { shadows: 1, highlights: -1 }),
      grey((x) => x / (width - 1)),
    )
    expect(lifted![0]).toBeCloseTo(0, 6)
    expect(lifted![width - 1]).toBeCloseTo(1, 6)
    expect(lifted![Math.round(0.2 * width)]).toBeGreaterThan(0.25)
    expect(lifted![Math.round(0.8 * width)]).toBeLessThan(0.75)
  })

  it('light on nothing is its field in its colours', () => {
    const [field] = planesOf(lightFieldNode(tones))
    const colours = planesOf(lightColoursNode(tones))
    codes.slice(0, 300).forEach((colour, i) => colour.forEach((code, c) => expect(field![i]! * colours[c]![i]!).toBeCloseTo(code / 255, 5)))
  })

  it('a lamp falls with the square of the distance, is 1 where it is aimed, and ends at its cone', () => {
    const lamp = { x: 10, y: 24, height: 30, toX: 40, toY: 24, inner: 20, outer: 20, falloff: 1 }
    const [field] = planesOf(lampFieldNode(lamp))
    const at = (x: number) => field![24 * width + x]!
    const aimed2 = 30 * 30 + 30 * 30
    for (const x of [34, 40, 47]) expect(at(x)).toBeCloseTo(aimed2 / ((x + 0.5 - 10) ** 2 + 0.25 + 900), 3)
    for (let x = 0; x < width; x++) {
      const angle = (Math.acos(((x + 0.5 - 10) * 30 + 900) / (Math.hypot(x + 0.5 - 10, 0.5, 30) * Math.sqrt(aimed2))) * 180) / Math.PI
      if (Math.abs(angle - 20) > 0.5) expect(at(x) > 0, `${x}`).toBe(angle < 20)
    }
  })

  it('what it lights is ambient and lamp, in linear light', () => {
    const lamp = lampFieldNode({ x: 32, y: 24, height: 5000, toX: 32, toY: 24, inner: 30, outer: 60, falloff: 0 })
    const found = planesOf(
      litByLampNode(tones, lamp, {
        ambient: 0.4,
        strength: 0.5,
        colour: [1, 0.6, 0.2],
        sheen: 0,
        sharpness: 1,
        sheenColour: [1, 1, 1],
      }),
    )
    codes
      .slice(0, 200)
      .forEach((colour, i) =>
        colour.forEach((code, c) =>
          expect(found[c]![i]!).toBeCloseTo(encoded(decodeSrgb(code / 255) * (0.4 + 0.5 * [1, 0.6, 0.2][c]!)), 4),
        ),
      )
  })

  it('light that spreads is as much as came, and only what is bright spreads', () => {
    const spot = grey((x, y) => (Math.hypot(x - 32, y - 24) < 3 ? 1 : Math.hypot(x - 10, y - 10) < 3 ? 0.3 : 0))
    const [red] = planesOf(
      spreadLightNode(tones, {
        threshold: 0.5,
        soft: 0.02,
        widths: [
          [3, 0.006],
          [6, 0.004],
        ],
      }),
      spot,
    )
    const light = [...red!].map((value) => decodeSrgb(value))
    const came = spot.filter(([code]) => code === 255).length
    // So weak that the shoulder is straight.
    expect(light.reduce((sum, value) => sum + value, 0)).toBeCloseTo(0.01 * came, 1)
    expect(light[10 * width + 10]).toBeLessThan(0.05 * light[24 * width + 32]!)
  })
})

// CSS Color Module Level 4 by culori 4.
describe('tones in another space', () => {
  it.each([
    ['srgb', 'rgb', 'displayP3', 'p3'],
    ['displayP3', 'p3', 'srgb', 'rgb'],
  ] as const)('from %s (%s) are those of %s (%s), cut off at its border', (from, mode, to, other) => {
    const convert = converter(other)
    const found = planesOf(inSpaceNode(photoNode('p'), from, to))
    codes.forEach((colour, i) => {
      const [r, g, b] = colour.map((code) => code / 255) as [number, number, number]
      const wanted = convert({ mode, r, g, b }) as { r: number; g: number; b: number }
      const cut = [wanted.r, wanted.g, wanted.b].map((value) => Math.max(0, Math.min(1, value)))
      cut.forEach((value, k) => expect(Math.abs(found[k]![i]! - value)).toBeLessThan(5e-4))
    })
  })

  it('stay what they are in their own', () => {
    const tones = photoNode('p')
    expect(inSpaceNode(tones, 'srgb', 'srgb')).toBe(tones)
  })
})
