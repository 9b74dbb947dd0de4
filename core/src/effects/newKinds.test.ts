import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { effectScene } from '../../test-support/effectScene'
import { loadKernels } from '../../test-support/kernels'
import { planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import { noMarks, type SceneMarks } from '../model/marks'
import { dropsOf, type LensDropParameters } from '../operations/optics/lensDrops/drops'
import { sceneGraph } from '../render/sceneGraph'
import { newEffect } from './newEffect'
import { definitionOf, type Effect, type EffectKind } from './registry'

const size = { width: 300, height: 200 }
const count = size.width * size.height
/** Red from left to right, green from above to below. */
const ramps = Uint8ClampedArray.from({ length: 4 * count }, (_, k) => {
  const [x, y] = [Math.floor(k / 4) % size.width, Math.floor(k / 4 / size.width)]
  return [(255 * x) / size.width, (255 * y) / size.height, 128, 255][k % 4]!
})
const other = { width: 90, height: 60 }
const otherPixels = samplePixels(other.width, other.height, 4)

let kernels: Kernels
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  const photos = [
    photoFrom(kernels, 'photo', size.width, size.height, ramps),
    photoFrom(kernels, 'other', other.width, other.height, otherPixels),
  ]
  evaluator = evaluatorFor(kernels, ...photos)
})

function effectOf(kind: EffectKind, look: string, pattern: object, shape: object = {}): Effect {
  const effect = newEffect(size, { kind, look, id: 'e' })
  Object.assign(effect.controls.pattern, pattern)
  Object.assign(effect.controls.shape, shape)
  return effect
}
const pictureOf = (effect: Effect): Uint8ClampedArray =>
  renderAll(evaluator, sceneGraph({ photo: { id: 'photo', ...size }, effects: [effect] }), size).pixels
const fieldOf = (effect: Effect, marks: SceneMarks = noMarks): Float32Array =>
  planeOf(evaluator, definitionOf(effect.kind).contribute(effect.controls as never, effectScene(size, marks), [1, 1, 1]).field, size)
const sum = (values: Float32Array, is: (x: number, y: number) => boolean = () => true): number =>
  values.reduce((all, value, i) => all + (is(i % size.width, Math.floor(i / size.width)) ? value : 0), 0)

describe('drops on the lens', () => {
  const one: LensDropParameters = {
    ...{ seed: 0, count: 1, radius: 30, spread: 0, uneven: 0, running: 0, blur: 1 },
    frame: { x: 0, y: 0, ...size, turn: 0 },
  }
  /** A seed whose only drop lies well within the frame. */
  const seed = Array.from({ length: 200 }, (_, k) => k).find((k) => {
    const { x, y } = dropsOf({ ...one, seed: k })[0]!
    return Math.abs(x - 150) < 40 && Math.abs(y - 100) < 30
  })!
  const drop = (pattern: object = {}, shape: object = {}) =>
    effectOf(
      'lensDrops',
      'A few drops',
      { count: 1, radius: 30, spread: 0, uneven: 0, running: 0, seed, ...pattern },
      { blur: 1, view: 3, rim: 0, glint: 0, ...shape },
    )

  it('show the picture upside down and leave what is between them as it is', () => {
    const pixels = pictureOf(drop())
    const { x, y } = dropsOf({ ...one, seed })[0]!
    const at = (dx: number, dy: number, channel: number): number =>
      pixels[4 * (Math.round(y + dy) * size.width + Math.round(x + dx)) + channel]!
    // At 0.6 of the radius it looks 3 × 30 × (0.4 + 0.6 × 0.36) × 0.6 px to the other side.
    const across = 3 * 30 * (0.4 + 0.6 * 0.36) * 0.6
    expect(Math.abs(at(18, 0, 0) - (255 * (x - across)) / size.width)).toBeLessThan(8)
    expect(Math.abs(at(-18, 0, 0) - (255 * (x + across)) / size.width)).toBeLessThan(8)
    expect(Math.abs(at(0, 18, 1) - (255 * (y - across)) / size.height)).toBeLessThan(8)
    pixels.forEach((code, k) => {
      const [px, py] = [Math.floor(k / 4) % size.width, Math.floor(k / 4 / size.width)]
      if (Math.hypot(px - x, py - y) > 40) expect(Math.abs(code - ramps[k]!)).toBeLessThan(2)
    })
  })

  it('cover what their radius says, and more downwards than across where they have run', () => {
    const field = fieldOf(drop())
    // Up to a fifth higher than wide above the middle.
    expect(sum(field) / (Math.PI * 30 * 30)).toBeGreaterThan(0.97)
    expect(sum(field) / (Math.PI * 30 * 30)).toBeLessThan(1.2)
    const ran = Array.from({ length: 200 }, (_, k) => k).find((k) => {
      const { x, y, tall } = dropsOf({ ...one, running: 1, radius: 14, seed: k })[0]!
      return tall > 2.5 && Math.abs(x - 150) < 60 && Math.abs(y - 100) < 30
    })!
    const run = fieldOf(drop({ running: 100, radius: 14, seed: ran }))
    const rows = new Set<number>()
    const columns = new Set<number>()
    run.forEach((value, i) => {
      if (value < 0.5) return
      rows.add(Math.floor(i / size.width))
      columns.add(i % size.width)
    })
    expect(rows.size).toBeGreaterThan(1.5 * columns.size)
  })

  it('lie apart from one another, in the frame, and stand upright in one that is turned', () => {
    const many = dropsOf({ ...one, count: 400, radius: 20, spread: 0.8, seed: 3 })
    for (const [i, a] of many.entries())
      for (const b of many.slice(i + 1))
        expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(0.85 * (a.radius + b.radius) - 1e-9)
    const turned = dropsOf({ ...one, count: 400, radius: 20, spread: 0.8, seed: 3, frame: { x: 0, y: 0, ...size, turn: 30 } })
    // Seen in the frame, the same drops at the same places.
    const [sin, cos] = [Math.sin(Math.PI / 6), Math.cos(Math.PI / 6)]
    turned.forEach(({ x, y }, i) => {
      const [dx, dy] = [x - 150, y - 100]
      expect(150 + dx * cos + dy * sin).toBeCloseTo(many[i]!.x, 6)
      expect(100 - dx * sin + dy * cos).toBeCloseTo(many[i]!.y, 6)
    })
  })

  it.each([
    ['none', { count: 0 }, {}],
    ['sharp ones without a view', {}, { blur: 0, view: 0 }],
    ['huge ones', { radius: 3000 }, { view: 40, blur: 500 }],
    ['many tiny ones', { count: 5000, radius: 0.5 }, {}],
  ])('ends with %s', (_, pattern, shape) => {
    expect(pictureOf(drop(pattern, shape)).every((code, k) => k % 4 !== 3 || code === 255)).toBe(true)
  })
})

describe('splashes', () => {
  const marks: SceneMarks = { ...noMarks, horizon: { y: 80, turn: 0 } }
  const splash = (pattern: object = {}, shape: object = {}) =>
    effectOf(
      'splashes',
      'Rain on the ground',
      { density: 40, height: 12, droplets: 0, ripples: 0, seed: 3, ...pattern },
      { blur: 0, into: 100, ...shape },
    )

  it('lie under the horizon, and are the smaller the nearer to it', () => {
    const field = fieldOf(splash(), marks)
    expect(sum(field, (_, y) => y < 78)).toBeLessThan(0.005 * sum(field))
    /** Mean height of what is bright in a strip: runs down the columns. */
    const height = (from: number, to: number): number => {
      const runs: number[] = []
      for (let x = 0; x < size.width; x++) {
        let run = 0
        for (let y = from; y < to; y++) {
          if (field[y * size.width + x]! > 0.04) run++
          else if (run > 0) {
            runs.push(run)
            run = 0
          }
        }
      }
      return runs.reduce((all, run) => all + run, 0) / runs.length
    }
    expect(height(150, 200)).toBeGreaterThan(1.3 * height(95, 115))
  })

  it('thin out upwards where no horizon is known, and reach into the distance as far as wanted', () => {
    const reading = {
      ...noMarks,
      reading: { method: 6 as const, horizon: null, sky: null, light: null, water: null, brights: { few: 1, many: 0 }, distance: null },
    }
    const field = fieldOf(splash({ density: 400 }), reading)
    const [low, middle, high] = [170, 120, 80].map((row) => sum(field, (_, y) => Math.abs(y - row) < 15))
    expect(low).toBeGreaterThan(middle!)
    expect(middle).toBeGreaterThan(high!)
    const near = fieldOf(splash({}, { into: 0 }), marks)
    expect(sum(near, (_, y) => y < 110)).toBeLessThan(0.1 * sum(fieldOf(splash(), marks), (_, y) => y < 110))
  })
})

describe('wear', () => {
  const worn = (pattern: object, shape: object = {}) =>
    effectOf(
      'wear',
      'Dusty glass plate',
      { scratches: 0, specks: 0, paper: 0, stains: 0, size: 1, length: 60, ...pattern },
      { borders: 0, blur: 0, ...shape },
    )

  it.each([{ scratches: 40 }, { specks: 60 }, { paper: 100 }, { stains: 100 }])('has %o, and nothing of it at 0', (pattern) => {
    expect(sum(fieldOf(worn(pattern)))).toBeGreaterThan(0.003 * count)
    expect(sum(fieldOf(worn({})))).toBe(0)
  })

  it('has scratches along their direction', () => {
    const across = fieldOf(worn({ scratches: 60, angle: 0 }))
    let [along, down] = [0, 0]
    for (let i = 0; i < count - size.width; i++) {
      along += Math.abs(across[i + 1]! - across[i]!)
      down += Math.abs(across[i + size.width]! - across[i]!)
    }
    expect(down).toBeGreaterThan(3 * along)
  })

  it('has less in the middle than at the borders if that is wanted', () => {
    const field = fieldOf(worn({ paper: 100 }, { borders: 100 }))
    const middle = sum(field, (x, y) => Math.hypot((x - 150) / 1.5, y - 100) < 20)
    const corner = sum(field, (x, y) => Math.hypot(x / 1.5, y) < 40)
    expect(corner).toBeGreaterThan(3 * middle)
  })
})

describe('a picture laid over the photo', () => {
  const reference = { id: 'other', fileName: 'other.png', ...other }
  const laid = (pattern: object = {}, shape: object = {}) =>
    effectOf('overlay', 'As it is', { picture: reference, x: 150, y: 100, width: 90, turn: 0, side: 'front', ...pattern }, shape)
  const inside = (pixels: Uint8ClampedArray, x: number, y: number): number[] => [0, 1, 2].map((k) => pixels[4 * (y * size.width + x) + k]!)

  it('lies pixel for pixel where it is put, and leaves the rest', () => {
    const pixels = pictureOf(laid())
    for (let y = 1; y < other.height - 1; y += 3)
      for (let x = 1; x < other.width - 1; x += 3)
        inside(pixels, x + 105, y + 70).forEach((code, k) =>
          expect(Math.abs(code - otherPixels[4 * (y * other.width + x) + k]!)).toBeLessThan(24),
        )
    expect(inside(pixels, 20, 20)).toEqual([0, 1, 2].map((k) => ramps[4 * (20 * size.width + 20) + k]))
  })

  // The means over areas of sharp (libvips), in linear light.
  it('is the mean of what each pixel covers when it is laid smaller', async () => {
    const pixels = pictureOf(laid({ width: 30 }))
    const small = await sharp(otherPixels, { raw: { ...other, channels: 4 } })
      .gamma(2.2)
      .resize(30, 20, { kernel: 'linear' })
      .removeAlpha()
      .raw()
      .toBuffer()
    let off = 0
    for (let y = 2; y < 18; y++)
      for (let x = 2; x < 28; x++)
        inside(pixels, x + 135, y + 90).forEach((code, k) => (off += Math.abs(code - small[3 * (y * 30 + x) + k]!)))
    expect(off / (16 * 26 * 3)).toBeLessThan(10)
  })

  it('is turned, and seen from behind', () => {
    const still = pictureOf(laid({ width: 180 }))
    const upsideDown = pictureOf(laid({ width: 180, turn: 180 }))
    const behind = pictureOf(laid({ width: 180, side: 'behind' }))
    for (let y = 60; y < 140; y += 7)
      for (let x = 80; x < 220; x += 7) {
        inside(upsideDown, 299 - x, 199 - y).forEach((code, k) => expect(Math.abs(code - inside(still, x, y)[k]!)).toBeLessThan(3))
        inside(behind, 299 - x, y).forEach((code, k) => expect(Math.abs(code - inside(still, x, y)[k]!)).toBeLessThan(3))
      }
  })

  it('leaves out a colour, or what is dark', () => {
    const [r, g, b] = [0, 1, 2].map((k) => otherPixels[4 * (30 * other.width + 45) + k]!)
    const hex = `#${[r, g, b].map((code) => code!.toString(16).padStart(2, '0')).join('')}`
    const without = fieldOf(laid({}, { without: 'colour', colour: hex, reach: 10 }))
    expect(without[100 * size.width + 150]).toBeLessThan(0.05)
    const light = fieldOf(laid({}, { without: 'dark' }))
    expect(light[100 * size.width + 150]! - Math.max(r!, g!, b!) / 255).toBeLessThan(0.05)
  })

  it('is nothing without a picture, and ends at any size', () => {
    expect(sum(fieldOf(laid({ picture: null })))).toBe(0)
    for (const width of [1, 100000]) expect(pictureOf(laid({ width }))).toHaveLength(4 * count)
  })
})
