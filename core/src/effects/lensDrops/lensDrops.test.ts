import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { effectOf, fieldOf, pictureOf, sumOf } from '../../../test-support/looks'
import { evaluatorFor, photoFrom, renderAll, renderFresh } from '../../../test-support/pictures'
import type { Evaluator } from '../../graph/evaluator'
import type { PhotoData } from '../../photo/photoData'
import { newEffect } from '../newEffect'
import { reading } from '../../../test-support/chains'
import { sceneGraph } from '../../render/sceneGraph'
import { dropsOf, type LensDropParameters } from '../../operations/optics/lensDrops/drops'

const size = { width: 300, height: 200 }
const count = size.width * size.height
/** Red from left to right, green from above to below. */
const ramps = Uint8ClampedArray.from({ length: 4 * count }, (_, k) => {
  const [x, y] = [Math.floor(k / 4) % size.width, Math.floor(k / 4 / size.width)]
  return [(255 * x) / size.width, (255 * y) / size.height, 128, 255][k % 4]!
})

let photo: PhotoData
let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  photo = photoFrom(kernels, 'photo', size.width, size.height, ramps)
  evaluator = evaluatorFor(kernels, photo)
})

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
      size,
      'lensDrops',
      'a-few-drops',
      { count: 1, radius: 30, spread: 0, uneven: 0, running: 0, seed, ...pattern },
      { blur: 1, view: 3, rim: 0, glint: 0, ...shape },
    )

  it('show the picture upside down and leave what is between them as it is', () => {
    const pixels = pictureOf(evaluator, size, drop())
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
    const field = fieldOf(evaluator, size, drop())
    // Up to a fifth higher than wide above the middle.
    expect(sumOf(field, size) / (Math.PI * 30 * 30)).toBeGreaterThan(0.97)
    expect(sumOf(field, size) / (Math.PI * 30 * 30)).toBeLessThan(1.2)
    const ran = Array.from({ length: 200 }, (_, k) => k).find((k) => {
      const { x, y, tall } = dropsOf({ ...one, running: 1, radius: 14, seed: k })[0]!
      return tall > 2.5 && Math.abs(x - 150) < 60 && Math.abs(y - 100) < 30
    })!
    const run = fieldOf(evaluator, size, drop({ running: 100, radius: 14, seed: ran }))
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
      // The sine and the cosine have seven digits.
      expect(150 + dx * cos + dy * sin).toBeCloseTo(many[i]!.x, 4)
      expect(100 - dx * sin + dy * cos).toBeCloseTo(many[i]!.y, 4)
    })
  })

  it('are where they are whatever lies beneath them: a mask that reads them asks for no picture', () => {
    const drops = { ...drop(), id: 'drops' }
    const [maskOfNight, maskOfEvening] = ['as-night', 'warm-evening'].map((look) => {
      const beneath = { ...newEffect(size, { kind: 'adjust', look, id: 'beneath' }), where: reading('drops') }
      const source = { photo: { id: 'photo', ...size }, effects: [beneath, drops] }
      return sceneGraph(source, { kind: 'masks', of: { owner: 'beneath', list: 'where' } })
    })
    expect(maskOfNight!.key).toBe(maskOfEvening!.key)
    const { pixels } = renderAll(evaluator, maskOfNight!, size)
    const { x, y } = dropsOf({ ...one, seed })[0]!
    const at = (px: number, py: number): number => pixels[4 * (Math.round(py) * size.width + Math.round(px))]!
    expect([at(x, y), at(x, y + 45)]).toEqual([255, 0])
  })

  it('are the same in any tiles, however uneven and long', () => {
    const long = drop({ count: 60, radius: 8, spread: 30, uneven: 100, running: 100, seed: 9 }, { view: 9, blur: 0.5 })
    const node = sceneGraph({ photo: { id: 'photo', ...size }, effects: [long] })
    const whole = renderAll(evaluator, node, size)
    for (const tile of [37, 64]) {
      const tiled = renderFresh(evaluator.kernels, [photo], node, size, 1, tile)
      expect(Buffer.compare(Buffer.from(whole.pixels), Buffer.from(tiled.pixels)), `tiles of ${tile} px`).toBe(0)
    }
  })

  it.each([
    ['none', { count: 0 }, {}],
    ['sharp ones without a view', {}, { blur: 0, view: 0 }],
    ['huge ones', { radius: 3000 }, { view: 40, blur: 500 }],
    ['many tiny ones', { count: 5000, radius: 0.5 }, {}],
  ])('ends with %s', (_, pattern, shape) => {
    expect(pictureOf(evaluator, size, drop(pattern, shape)).every((code, k) => k % 4 !== 3 || code === 255)).toBe(true)
  })
})
