import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { everything } from '../../test-support/sampled'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Effect, EffectKind } from '../effects/registry'
import { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import { newMask } from '../masks/newMask'
import type { MaskKind } from '../masks/registry'
import { noMarks } from '../model/marks'
import type { PhotoData } from '../photo/photoData'
import { renderTile } from './renderTile'
import { sceneGraph } from './sceneGraph'
import { gridAt, gridBounds } from '../planes/grid'
import { splitIntoTiles } from '../planes/rect'
import { operations } from '../operations/registry'

// Wide effects over one another, as artists end their pictures; by day, and by night with lamps of 2 to 6 px.

const size = { width: 1500, height: 1000 }
const marks = { ...noMarks, horizon: { y: 480, turn: 1 } }

type Layer = readonly [EffectKind, string, ...MaskKind[]]

const stacks: readonly (readonly ['day' | 'night', ...Layer[]])[] = [
  [
    'day',
    ['rain', 'steady-rain'],
    ['haze', 'blue-distance'],
    ['fog', 'morning-fog'],
    ['softFocus', 'veil'],
    ['lightBloom', 'night-lights'],
  ],
  ['night', ['lightBloom', 'night-lights'], ['softFocus', 'dream-bloom'], ['fog', 'ground-mist', 'luminosity']],
  ['night', ['stars', 'clear-night'], ['fog', 'morning-fog'], ['softFocus', 'veil']],
  ['night', ['stars', 'band-of-stars', 'line'], ['softFocus', 'dark-and-light'], ['lightBloom', 'candle-warmth'], ['haze', 'grey-day']],
  [
    'day',
    ['rays', 'streaming-sun'],
    ['softFocus', 'dream-bloom', 'luminosity'],
    ['lowSun', 'behind-the-ridge'],
    ['subjectGlow', 'rim-of-light'],
  ],
  ['day', ['snow', 'thick-flakes'], ['softFocus', 'silk'], ['lightPool', 'lamplight', 'ellipse'], ['lightBloom', 'mist-on-the-lens']],
  ['night', ['lamp', 'lamp-in-fog'], ['lightBloom', 'night-lights'], ['rays', 'short-burst'], ['softFocus', 'veil']],
  ['day', ['fog', 'drifting-smoke', 'cloud'], ['catchLights', 'soft-lift'], ['lightBloom', 'mist-on-the-lens'], ['dust', 'fine-dust']],
  ['night', ['sparkles', 'sea-glitter'], ['softFocus', 'silk'], ['lightBloom', 'candle-warmth', 'luminosity'], ['rain', 'drizzle']],
  [
    'day',
    ...([
      ['haze', 'golden-haze'],
      ['fog', 'ground-mist', 'luminosity'],
      ['rain', 'drizzle'],
      ['softFocus', 'veil'],
      ['lightBloom', 'candle-warmth'],
      ['rays', 'streaming-sun', 'ellipse'],
      ['sunburst', 'rays-through-haze'],
      ['sparkles', 'glints-on-metal'],
      ['glowLine', 'warm-trail'],
      ['softFocus', 'dream-bloom', 'luminosity'],
    ] as Layer[]),
  ],
]

let kernels: Kernels
let photos: Record<'day' | 'night', PhotoData>
beforeAll(async () => {
  kernels = await loadKernels()
  const day = samplePixels(size.width, size.height)
  photos = {
    day: photoFrom(kernels, 'day', size.width, size.height, day),
    night: photoFrom(kernels, 'night', size.width, size.height, nightFrom(day)),
  }
})

/** The same scene in the dark, with small lamps. */
function nightFrom(day: ArrayLike<number>): Uint8ClampedArray {
  const pixels = Uint8ClampedArray.from(day, (code, i) => (i % 4 === 3 ? 255 : 0.16 * code))
  for (let lamp = 0; lamp < 60; lamp++) {
    const [x, y, side] = [(lamp * 577) % (size.width - 8), 300 + ((lamp * 211) % 600), 2 + (lamp % 5)]
    for (let i = 0; i < side * side; i++) {
      const at = 4 * ((y + Math.floor(i / side)) * size.width + x + (i % side))
      pixels.set(lamp % 3 ? [255, 236, 190] : [255, 170, 90], at)
    }
  }
  return pixels
}

function effectsOf(layers: readonly Layer[]): Effect[] {
  return layers.map(([kind, look, ...masks], i) => {
    const made = newEffect(size, { kind, look, id: `${i}` })
    const list = masks.map((mask, k) => newMask(size, { kind: mask, id: `m${k}`, join: k ? 'keep' : 'add', marks }))
    return list.length ? ({ ...made, where: { masks: list, hold: 100 } } as Effect) : made
  })
}

const numbered = stacks.map((stack, i) => [i, stack] as const)

describe('mixed stacks of wide effects', () => {
  it.each(everything ? numbered : numbered.filter(([i]) => i === 1 || i === 6))(
    '%s: a preview is the reduced export, and any tiles give identical bytes',
    (_, [time, ...layers]) => {
      const photo = photos[time]
      const evaluator = evaluatorFor(kernels, photo)
      const node = sceneGraph({ photo, effects: effectsOf(layers), marks })
      const full = renderAll(evaluator, node, size, 1, 512)
      for (const factor of [2, 4]) {
        const found = compareColours(reduceInLinearLight(full, factor), renderAll(evaluator, node, size, 1 / factor))
        expect(found.mean, `mean at 1/${factor}`).toBeLessThan(1)
        expect(found.percentile99, `99th percentile at 1/${factor}`).toBeLessThan(4)
      }
      evaluator.dropPhoto(photo.id)
      const region = { x: 610, y: 390, width: 420, height: 260 }
      for (const scale of [1, 0.37]) {
        const whole = renderFresh(kernels, [photo], node, size, scale, 4096, region)
        const tiled = renderFresh(kernels, [photo], node, size, scale, 101, region)
        expect(Buffer.compare(Buffer.from(whole.pixels), Buffer.from(tiled.pixels)), `scale ${scale}`).toBe(0)
      }
    },
  )

  it('end with the same bytes with hardly any memory for results, and take no more than that', () => {
    const [time, ...layers] = stacks[9]!
    const photo = photos[time]
    const node = sceneGraph({ photo, effects: effectsOf(layers), marks })
    const region = { x: 610, y: 390, width: 420, height: 260 }
    const expected = renderFresh(kernels, [photo], node, size, 1, 128, region)
    const grid = gridAt(size, 1)
    const evaluator = new Evaluator({ kernels, operations, store: 4e6 })
    evaluator.addPhoto(photo)
    const tile = splitIntoTiles(gridBounds(grid), 128).find(({ x, y }) => x === 640 && y === 512)!
    const found = renderTile(evaluator, node, grid, tile)
    for (let row = 0; row < tile.height; row++) {
      const from = 4 * ((tile.y - region.y + row) * expected.width + tile.x - region.x)
      expect(
        Buffer.compare(
          Buffer.from(found.subarray(row * tile.width * 4, (row + 1) * tile.width * 4)),
          Buffer.from(expected.pixels.subarray(from, from + tile.width * 4)),
        ),
      ).toBe(0)
    }
    expect(evaluator.bytesHeld).toBeLessThanOrEqual(4e6)
    evaluator.dropPhoto(photo.id)
  })
})
