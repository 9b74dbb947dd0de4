import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../core/test-support/kernels'
import { planeOf } from '../core/test-support/masks'
import { evaluatorFor } from '../core/test-support/pictures'
import { turbulenceNode } from '../core/src/operations/sources/turbulence/turbulence'
import type { Evaluator } from '../core/src/graph/evaluator'
import { emptyPage, launch } from './support/browser'
import { throughSvgFilter } from './support/svgFilter'

// feTurbulence of W3C Filter Effects Level 1 as Chromium computes it, against ours. Chromium reads each pixel one to the right and one down.

const size = { width: 96, height: 64 }

describe('turbulence', () => {
  let browser: Browser
  let page: Page
  let evaluator: Evaluator
  beforeAll(async () => {
    browser = await launch()
    page = await emptyPage(browser)
    evaluator = evaluatorFor(await loadKernels())
  })
  afterAll(() => browser.close())

  it.each([
    ['smooth', 0.05, 0.05, 1, 1, false],
    ['smooth', 0.013, 0.07, 8, 77, false],
    ['billowed', 0.11, 0.03, 5, 4107, false],
    ['smooth', 0.047, 0.051, 4, 5, true],
    ['billowed', 0.033, 0.08, 3, 9, true],
  ] as const)(
    '%s of frequency %s, %s in %d octaves, seed %d, stitched %s, is feTurbulence',
    async (type, waveX, waveY, octaves, seed, stitched) => {
      const kind = type === 'billowed' ? 'turbulence' : 'fractalNoise'
      const stitch = stitched ? 'stitch' : 'noStitch'
      const primitive = `<feTurbulence type="${kind}" baseFrequency="${waveX} ${waveY}" numOctaves="${octaves}" seed="${seed}" stitchTiles="${stitch}"/>`
      const theirs = await throughSvgFilter(page, primitive, size)
      const tile = stitched ? { x: 0, y: 0, ...size } : null
      const channel = (name: 'red' | 'alpha') =>
        planeOf(evaluator, turbulenceNode({ type, frequencyX: waveX, frequencyY: waveY, octaves, seed, channel: name, tile }), size)
      const [red, alpha] = [channel('red'), channel('alpha')]
      let worst = 0
      for (let y = 0; y < size.height - 1; y++) {
        for (let x = 0; x < size.width - 1; x++) {
          const [here, there] = [(y + 1) * size.width + x + 1, 4 * (y * size.width + x)]
          const [r, a] = [theirs[there]! / 255, theirs[there + 3]! / 255]
          // A canvas keeps colours multiplied by alpha, so that they come back in steps of 1 / alpha.
          worst = Math.max(worst, Math.abs(alpha[here]! - a), Math.abs(red[here]! * alpha[here]! - r * a))
        }
      }
      expect(worst).toBeLessThan(1.51 / 255)
    },
  )
})
