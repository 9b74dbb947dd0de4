import { converter } from 'culori'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { fall, greatestDifference, maskOf, planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, randomNumbers, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import type { DepthPicture } from '../model/depth'
import { noMarks } from '../model/marks'
import { nothingRead } from '../model/reading'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import type { PhotoData } from '../photo/photoData'
import type { PictureSource } from '../render/pictureSource'
import { maskContext, sceneGraph } from '../render/sceneGraph'
import type { Mask } from './registry'
import { maskProblem, singleMaskNode } from './whereNode'

const size = { width: 180, height: 120 }
const pixels = samplePixels(size.width, size.height)
let kernels: Kernels
let evaluator: Evaluator
let photo: PhotoData
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, pixels)
  evaluator = evaluatorFor(kernels, photo)
})

const rain = (id: string) => newEffect({ width: 900, height: 600 }, { kind: 'rain', look: 'downpour', id })
const sourceOf = (part: Partial<PictureSource> = {}): PictureSource => ({ photo, effects: [rain('beneath'), rain('own')], ...part })
const context = (part?: Partial<PictureSource>) => maskContext(sourceOf(part), 'own')

function render(mask: Mask, part?: Partial<PictureSource>): Float32Array {
  const node = singleMaskNode(mask, context(part))
  if (!node) throw new Error('The mask was left out.')
  return planeOf(evaluator, node, size)
}

/** A formula of the calmed colour (a Gaussian of 1.5 px, checked elsewhere) at each pixel. */
function eachPixel(formula: (colour: { mode: 'rgb'; r: number; g: number; b: number }, x: number, y: number) => number): number[] {
  const calm = evaluator.evaluate(
    gaussianBlurNode(sceneGraph(sourceOf(), { kind: 'photo' }), 1.5),
    { x: 0, y: 0, ...size },
    { ...size, pitchX: 1, pitchY: 1 },
  )
  const [r, g, b] = calm.planes.map((address) => new Float32Array(kernels.memory.buffer, address, size.width * size.height).slice())
  return Array.from(r!, (red, i) =>
    formula({ mode: 'rgb', r: red, g: g![i]!, b: b![i]! }, (i % size.width) + 0.5, Math.floor(i / size.width) + 0.5),
  )
}

// OKLab and OKLCh: culori 4.0.2.
const oklab = converter('oklab')
const oklch = converter('oklch')

describe('masks that read colour', () => {
  it('colour: opens the hues and chromas asked for', () => {
    const mask = maskOf(size, 'colour', { hue: 250, width: 60, chromaFrom: 4, chromaTo: 9, softness: 50 })
    const expected = eachPixel((rgb) => {
      const { c, h = 0 } = oklch(rgb)
      const off = Math.abs(((h - 250 + 540) % 360) - 180)
      return fall((off - 30) / 30) * (1 - fall((c - (0.04 - 0.05)) / 0.05)) * fall((c - 0.09) / 0.05)
    })
    expect(greatestDifference(render(mask), expected)).toBeLessThan(0.01)
    expect(Math.max(...expected)).toBeGreaterThan(0.9)
    expect(Math.min(...expected)).toBe(0)
  })

  it('similar: closeness in place times closeness in OKLab, the closest of all taps', () => {
    const colours = [pixels.slice(0, 3), pixels.slice(4 * (60 * 180 + 90), 4 * (60 * 180 + 90) + 3)]
    const hex = colours.map((rgb) => `#${Array.from(rgb, (value) => value.toString(16).padStart(2, '0')).join('')}`)
    const places = [
      [0, 0],
      [90, 60],
    ] as const
    const taps = hex.map((colour, i) => ({ colour, x: places[i]![0], y: places[i]![1] }))
    const near = (t: number) => fall((t - 0.5) / 0.5)
    const expected = eachPixel((rgb, x, y) => {
      const { l, a, b } = oklab(rgb)
      const each = taps.map((tap) => {
        const to = oklab(tap.colour)!
        return near(Math.hypot(x - tap.x, y - tap.y) / 90) * near(Math.hypot(l - to.l, a - to.a, b - to.b) / 0.12)
      })
      return Math.max(...each)
    })
    expect(greatestDifference(render(maskOf(size, 'similar', { taps, reachPlace: 90, reachColour: 12 })), expected)).toBeLessThan(0.004)
  })

  it.each(['photo', 'beneath', 'effect', 'pinned'] as const)('a luminosity mask can read %s', (tonesFrom) => {
    const pinned = [{ id: 'pin', name: 'Before', effects: [], groups: [], shared: [] }]
    const found = render(maskOf(size, 'luminosity', { tonesFrom, pinned: 'pin' }), { pinned })
    const tones = {
      photo: sceneGraph(sourceOf(), { kind: 'photo' }),
      beneath: sceneGraph(sourceOf({ effects: [rain('beneath')] })),
      effect: sceneGraph(sourceOf(), { kind: 'step', effectId: 'own', step: 'colour' }),
      pinned: sceneGraph(sourceOf({ effects: [] })),
    }[tonesFrom]
    const channels = [0, 1, 2].map((channel) => {
      const value = evaluator.evaluate(tones, { x: 0, y: 0, ...size }, { ...size, pitchX: 1, pitchY: 1 })
      return new Float32Array(kernels.memory.buffer, value.planes[channel]!, size.width * size.height).slice()
    })
    // Luma: coefficients of ITU-R BT.709 on encoded values.
    const luma = channels[0]!.map((red, i) => 0.2126 * red + 0.7152 * channels[1]![i]! + 0.0722 * channels[2]![i]!)
    expect(greatestDifference(found, luma)).toBeLessThan(1e-5)
  })
})

describe('what is missing', () => {
  it.each([
    ['luminosity', { tonesFrom: 'pinned', pinned: 'gone' }, 'Its pinned state is gone; it reads the photo instead.'],
    ['pattern', { effectId: 'gone' }, 'The effect that it reads was removed; the mask is left out.'],
    ['depth', {}, 'This scene has no depth yet: set the horizon, outline a region or import a picture in Marks. The mask is left out.'],
    ['picture', {}, 'No picture is chosen yet; the mask is left out.'],
    [
      'picture',
      { picture: { id: 'p', fileName: 'p.png', width: 50, height: 50 } },
      'The picture (50 × 50) has other proportions than the photo; it is stretched to fit.',
    ],
    ['brush', {}, 'Nothing is painted yet: draw on the photo.'],
    ['outline', {}, 'Nothing is outlined yet: tap corners on the photo.'],
    ['similar', {}, 'It has no place to grow from yet: tap the photo.'],
  ] as const)('%s says so', (kind, part, message) => {
    expect(maskProblem(maskOf(size, kind, part as never), context())).toBe(message)
  })

  it('a pinned state that is gone gives the photo, an effect or depth that is gone leaves the mask out', () => {
    const lost = render(maskOf(size, 'luminosity', { tonesFrom: 'pinned', pinned: 'gone' }))
    expect(lost).toEqual(render(maskOf(size, 'luminosity')))
    const own = rain('own')
    const without = sceneGraph(sourceOf({ effects: [{ ...own, where: { masks: [], hold: 100 } }] }))
    const masks = [maskOf(size, 'pattern', { effectId: 'gone' }), maskOf(size, 'depth')]
    expect(sceneGraph(sourceOf({ effects: [{ ...own, where: { masks, hold: 100 } }] })).key).toBe(without.key)
  })

  it('pinned states that read each other in a circle end', () => {
    const reading = (id: string, pin: string) => ({
      ...rain(id),
      where: { hold: 100, masks: [maskOf(size, 'luminosity', { tonesFrom: 'pinned', pinned: pin })] },
    })
    const pinned = [
      { id: 'a', name: 'A', effects: [reading('1', 'b')], groups: [], shared: [] },
      { id: 'b', name: 'B', effects: [reading('2', 'a')], groups: [], shared: [] },
    ]
    expect(render(maskOf(size, 'luminosity', { tonesFrom: 'pinned', pinned: 'a' }), { pinned }).length).toBe(180 * 120)
  })
})

describe('masks from pictures', () => {
  const grey = (width: number, height: number, code: (x: number, y: number) => number) =>
    Array.from({ length: width * height }, (_, i) => [
      ...Array.from({ length: 3 }, () => code(i % width, Math.floor(i / width))),
      255,
    ]).flat()

  it('a picture of another size is stretched over the photo', () => {
    const small = photoFrom(
      kernels,
      'small',
      45,
      30,
      grey(45, 30, (x) => (x * 255) / 44),
    )
    const large = photoFrom(
      kernels,
      'large',
      540,
      360,
      grey(540, 360, (x) => (x * 255) / 539),
    )
    const both = evaluatorFor(kernels, photo, small, large)
    for (const [id, width, height] of [
      ['small', 45, 30],
      ['large', 540, 360],
    ] as const) {
      const mask = maskOf(size, 'picture', { picture: { id, fileName: `${id}.png`, width, height } })
      const found = planeOf(both, singleMaskNode(mask, context())!, size)
      for (const x of [5, 60, 120, 174]) expect(Math.abs(found[60 * 180 + x]! - (x + 0.5) / 180), `${id} at ${x}`).toBeLessThan(0.02)
    }
  })

  const depth: DepthPicture = {
    picture: { id: 'depth', fileName: 'depth.png', width: 180, height: 120 },
    near: 'white',
    nearDistance: 2,
    farDistance: 200,
    steps: 'inverse',
  }

  it('depth opens between two distances', () => {
    // A row of codes with known distances.
    const picture = photoFrom(
      kernels,
      'depth',
      180,
      120,
      grey(180, 120, (x) => (x * 255) / 179),
    )
    const both = evaluatorFor(kernels, photo, picture)
    const found = planeOf(both, singleMaskNode(maskOf(size, 'depth', { near: 4, far: 20, softness: 0 }), context({ depth }))!, size)
    for (let x = 0; x < 180; x++) {
      const code = Math.round((x * 255) / 179) / 255
      const metres = 1 / (1 / 200 + code * (1 / 2 - 1 / 200))
      if (Math.abs(metres - 4) > 0.1 && Math.abs(metres - 20) > 2)
        expect(found[60 * 180 + x], `${metres} m`).toBe(metres > 4 && metres < 20 ? 1 : 0)
    }
  })
})

describe('cloud', () => {
  const cloud = (part: object = {}) => render(maskOf(size, 'cloud', { scale: 40, stretch: 1, octaves: 5, ...part }))
  const mean = (values: Float32Array) => values.reduce((sum, value) => sum + value, 0) / values.length
  const correlation = (a: Float32Array, b: Float32Array) => {
    const [ma, mb] = [mean(a), mean(b)]
    const sum = (f: (i: number) => number) => a.reduce((total, _, i) => total + f(i), 0)
    return sum((i) => (a[i]! - ma) * (b[i]! - mb)) / Math.sqrt(sum((i) => (a[i]! - ma) ** 2) * sum((i) => (b[i]! - mb) ** 2))
  }

  it('covers as much as is asked for, and all or nothing at the ends', () => {
    expect(mean(cloud({ cover: 50 }))).toBeGreaterThan(0.35)
    expect(mean(cloud({ cover: 50 }))).toBeLessThan(0.65)
    expect(mean(cloud({ cover: 0, contrast: 100 }))).toBeLessThan(0.06)
    expect(mean(cloud({ cover: 100, contrast: 100 }))).toBeGreaterThan(0.94)
  })

  it('another seed is another cloud; an offset is the same one, moved', () => {
    expect(Math.abs(correlation(cloud({ seed: 1 }), cloud({ seed: 2 })))).toBeLessThan(0.35)
    const moved = cloud({ offsetX: 30, offsetY: -10 })
    const still = cloud()
    const random = randomNumbers(3)
    for (let i = 0; i < 200; i++) {
      const [x, y] = [Math.floor(random() * 140), 20 + Math.floor(random() * 90)]
      expect(Math.abs(moved[(y - 10) * 180 + x + 30]! - still[y * 180 + x]!)).toBeLessThan(1e-3)
    }
  })
})

describe('the sky of a photo in which none was read', () => {
  const read = (method: 5 | 6) => ({ marks: { ...noMarks, reading: { ...nothingRead, method } } })
  const rows = (mask: Float32Array) =>
    Array.from({ length: size.height }, (_, y) => Math.max(...mask.subarray(y * size.width, (y + 1) * size.width)))

  it('lies in the upper part and ends softly; scenes that were read before keep theirs', () => {
    const mask = maskOf(size, 'sky', { tolerance: 100 })
    const [now, before] = [rows(render(mask, read(6))), rows(render(mask, read(5)))]
    now.forEach((value, y) => expect(value).toBeCloseTo(Math.min(before[y]!, fall(((y + 0.5) / size.height - 0.1) / 0.65)), 2))
    expect(now[5]).toBeGreaterThan(0.9)
    expect(now[100]).toBe(0)
    expect(before[100]).toBeGreaterThan(0.5)
  })
})
