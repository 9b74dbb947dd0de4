import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll } from '../../test-support/pictures'
import { sampled } from '../../test-support/sampled'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import { noMarks, type SceneMarks } from '../model/marks'
import type { PhotoData } from '../photo/photoData'
import { readPhoto } from '../reading/readPhoto'
import { sceneGraph } from '../render/sceneGraph'
import { newEffect } from './newEffect'
import { effectDefinitions } from './registry'

// Where a photo has no edge an effect draws none, except in its own pattern. On photos without an edge, nothing marked, what a look adds has no step.

const size = { width: 1200, height: 800 }
const SCALE = 0.25
const SIGMA = 3
const MOST_CODES = 4

/** Their pattern is lines, bands or single bright shapes by design, or they are placed things with an outline. */
const lines = ['rays', 'sunburst', 'sparkles', 'glowLine', 'customField', 'lamp', 'lowSun', 'stars', 'subjectGlow', 'lensDrops', 'wear']

const photos = {
  'one grey': () => 120,
  'a sky that darkens upwards': (y: number) => 60 + (120 * y) / size.height,
  'a dark room that brightens upwards': (y: number) => 110 - (80 * y) / size.height,
}

let kernels: Kernels
const made = new Map<string, { photo: PhotoData; evaluator: Evaluator; marks: SceneMarks; bare: Uint8ClampedArray }>()
beforeAll(async () => {
  kernels = await loadKernels()
  for (const [name, tone] of Object.entries(photos)) {
    const pixels = Uint8ClampedArray.from({ length: 4 * size.width * size.height }, (_, i) =>
      i % 4 === 3 ? 255 : Math.round(tone(Math.floor(i / 4 / size.width))),
    )
    const photo = photoFrom(kernels, name, size.width, size.height, pixels)
    const marks = { ...noMarks, reading: readPhoto(kernels, photo) }
    const evaluator = evaluatorFor(kernels, photo)
    made.set(name, { photo, evaluator, marks, bare: renderAll(evaluator, sceneGraph({ photo, effects: [], marks }), size, SCALE).pixels })
  }
})

/** Greatest difference of neighbouring pixels, across or down, once blurred. */
function greatestStep(values: Float32Array, width: number, height: number): number {
  const reach = 3 * SIGMA
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * SIGMA * SIGMA)))
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  const along = (from: Float32Array, dx: number, dy: number) =>
    from.map((_, i) => {
      const [x, y] = [i % width, Math.floor(i / width)]
      return (
        weights.reduce((sum, weight, k) => {
          const [u, v] = [Math.min(width - 1, Math.max(0, x + (k - reach) * dx)), Math.min(height - 1, Math.max(0, y + (k - reach) * dy))]
          return sum + weight * from[v * width + u]!
        }, 0) / total
      )
    })
  const smooth = along(along(values, 1, 0), 0, 1)
  let most = 0
  smooth.forEach((value, i) => {
    if (i % width > 0) most = Math.max(most, Math.abs(value - smooth[i - 1]!))
    if (i >= width) most = Math.max(most, Math.abs(value - smooth[i - width]!))
  })
  return most
}

describe('an effect draws no line of its own', () => {
  const looks = effectDefinitions
    .filter(({ kind, madeFromEffect }) => !madeFromEffect && !lines.includes(kind))
    .flatMap(({ kind, startingLooks }) => sampled(startingLooks).map(({ id }) => [kind, id] as const))

  it.each(looks)('%s, %s', (kind, look) => {
    for (const [name, { photo, evaluator, marks, bare }] of made) {
      const effect = newEffect(size, { kind, look, id: look, marks })
      const { pixels, width, height } = renderAll(evaluator, sceneGraph({ photo, effects: [effect], marks }), size, SCALE)
      const added = Float32Array.from({ length: width * height }, (_, i) => pixels[4 * i + 1]! - bare[4 * i + 1]!)
      expect(greatestStep(added, width, height), name).toBeLessThanOrEqual(MOST_CODES)
    }
  })
})
