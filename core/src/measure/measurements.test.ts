import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import { photoNode } from '../operations/sources/photo/photo'
import type { PhotoData } from '../photo/photoData'
import { brightestColour, HISTOGRAM_BINS, toneHistogram } from './measurements'

let evaluator: Evaluator
let photo: PhotoData
const [width, height] = [200, 100]

// Three quarters dark blue, a fifth grey, one twentieth warm light.
const colourAt = (i: number): readonly number[] => (i < 15000 ? [10, 20, 60] : i < 19000 ? [120, 120, 120] : [250, 200, 120])

beforeAll(async () => {
  const kernels = await loadKernels()
  const rgba = Array.from({ length: width * height }, (_, i) => [...colourAt(i), 255]).flat()
  photo = photoFrom(kernels, 'm', width, height, rgba)
  evaluator = evaluatorFor(kernels, photo)
})

describe('measurements', () => {
  it('the histogram holds all pixels at their tones', () => {
    const bins = toneHistogram(evaluator, photoNode('m'), photo, 'red')
    expect(bins).toHaveLength(HISTOGRAM_BINS)
    expect(bins.reduce((sum, count) => sum + count, 0)).toBe(width * height)
    expect([bins[10], bins[120], bins[250]]).toEqual([15000, 4000, 1000])
  })

  it('the brightest 5 % have the colour of the light', () => {
    brightestColour(evaluator, photoNode('m'), photo, 0.05).forEach((v, c) => expect(v * 255).toBeCloseTo([250, 200, 120][c]!, 1))
  })

  it('the brightest 25 % are averaged in linear light', () => {
    const [red] = brightestColour(evaluator, photoNode('m'), photo, 0.25)
    // 4/5 of code 120, 1/5 of code 250: 0.8 * 0.18782 + 0.2 * 0.95597 in linear light.
    expect(red * 255).toBeCloseTo(255 * (1.055 * 0.34145 ** (1 / 2.4) - 0.055), 0)
  })
})
