import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../core/test-support/kernels'
import { planeOf } from '../core/test-support/masks'
import { evaluatorFor, photoFrom, randomNumbers } from '../core/test-support/pictures'
import { luminosityMaskNode } from '../core/src/operations/masks/luminosityMask/luminosityMask'
import { morphologyNode } from '../core/src/operations/blurs/morphology/morphology'
import { photoNode } from '../core/src/operations/sources/photo/photo'
import { emptyPage, launch } from './support/browser'
import { throughSvgFilter } from './support/svgFilter'

// feMorphology of W3C Filter Effects Level 1 as Chromium computes it, against ours over a square.

const size = { width: 80, height: 60 }
const random = randomNumbers(4)
const codes = Array.from({ length: size.width * size.height }, () => Math.floor(random() * 256))
const rgba = codes.flatMap((code) => [code, code, code, 255])

describe('growing and shrinking by a square', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    page = await emptyPage(browser)
  })
  afterAll(() => browser.close())

  it.each([
    ['dilate', 1],
    ['dilate', 4],
    ['erode', -3],
  ] as const)('%s by %d px is feMorphology', async (operator, radius) => {
    const primitive = `<feMorphology operator="${operator}" radius="${Math.abs(radius)}"/>`
    const theirs = (await throughSvgFilter(page, primitive, { ...size, bytes: rgba })).filter((_, i) => i % 4 === 0)
    const kernels = await loadKernels()
    const evaluator = evaluatorFor(kernels, photoFrom(kernels, 'noise', size.width, size.height, rgba))
    const mask = luminosityMaskNode(photoNode('noise'), {
      channel: 'red',
      curve: 'brights',
      handles: [0, 1, 1, 1],
      steepness: 0,
    })
    const ours = planeOf(evaluator, morphologyNode(mask, radius, 'square'), size)
    expect(theirs.some((value, i) => value !== codes[i])).toBe(true)
    // Outside the picture the filter sees nothing, ours its border; the inside is compared.
    for (let y = 5; y < size.height - 5; y++) {
      for (let x = 5; x < size.width - 5; x++) {
        const i = y * size.width + x
        expect(Math.abs(ours[i]! * 255 - theirs[i]!), `${x}, ${y}`).toBeLessThan(1)
      }
    }
  })
})
