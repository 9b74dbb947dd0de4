import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { mixModes, type MixMode } from '@welkinar/core'
import { mixOracle } from '../core/test-support/mixOracle'
import { emptyPage, launch } from './support/browser'

// The formulas that the kernel is held against, held against Chromium's canvas (W3C Compositing and Blending Level 1).

const canvasNames: Partial<Record<MixMode, string>> = { normal: 'source-over', 'plus-lighter': 'lighter' }
const modes = mixModes.filter((mode) => mode !== 'linear-light' && mode !== 'subtract')
const steps = Array.from({ length: 17 }, (_, i) => Math.round((255 * i) / 16))
const pairs = steps.flatMap((b) => steps.map((s) => [b, s] as const))
const bases = pairs.map(([b], i) => [b, pairs[(i * 7) % pairs.length]![0], pairs[(i * 11 + 5) % pairs.length]![0]] as const)
const sources = pairs.map(([, s], i) => [s, pairs[(i * 5 + 3) % pairs.length]![1], pairs[(i * 13 + 1) % pairs.length]![1]] as const)

describe('mix modes in Chromium', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    page = await emptyPage(browser)
  })
  afterAll(() => browser.close())

  it.each(modes)('%s', async (mode) => {
    const found = await page.evaluate(
      ({ operation, base, source }) => {
        const sheet = (triples: readonly (readonly number[])[]): HTMLCanvasElement => {
          const canvas = document.createElement('canvas')
          canvas.width = triples.length
          canvas.height = 1
          const bytes = triples.flatMap((triple) => [...triple, 255])
          canvas.getContext('2d')!.putImageData(new ImageData(Uint8ClampedArray.from(bytes), triples.length, 1), 0, 0)
          return canvas
        }
        const canvas = sheet(base)
        const context = canvas.getContext('2d')!
        context.globalCompositeOperation = operation as GlobalCompositeOperation
        context.drawImage(sheet(source), 0, 0)
        return [...context.getImageData(0, 0, base.length, 1).data]
      },
      { operation: canvasNames[mode] ?? mode, base: bases, source: sources },
    )
    const worst = Math.max(
      ...bases.flatMap((b, i) => {
        const unit = (triple: readonly number[]) => triple.map((v) => v / 255) as [number, number, number]
        return mixOracle(mode, unit(b), unit(sources[i]!), 1).map((v, c) => Math.abs(255 * v - found[4 * i + c]!))
      }),
    )
    // Chromium rounds to 8 bits in between; where two channels of the source are nearly equal that shows more.
    expect(worst).toBeLessThan(2.1)
  })
})
