import type { Browser, Page } from 'playwright-core'
import { effectDefinitions } from '@welkinar/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everything } from '../core/test-support/sampled'
import { addEffect, canvasPixel, launch, settled, shelfReady, visit } from './support/browser'

const offered = effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect)

describe('weather of every kind', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Low sun, passing shower' }).click()
    await settled(page)
  })
  afterAll(() => browser.close())

  /** Sums of the picture in strips: stars are small, and stand in the sky only. */
  const strips = async () => {
    await settled(page)
    return page.locator('[data-testid=picture]').evaluate((canvas) => {
      const { width, height } = canvas as HTMLCanvasElement
      const context = (canvas as HTMLCanvasElement).getContext('2d')!
      const strip = Math.floor(height / 8)
      return Array.from({ length: 8 }, (_, i) => {
        // Four bytes at once, and no change is undone by another.
        const pixels = new Uint32Array(context.getImageData(0, i * strip, width, strip).data.buffer)
        let sum = 0
        for (let at = 0; at < pixels.length; at++) sum = (Math.imul(sum, 31) + pixels[at]!) | 0
        return sum
      })
    })
  }

  // A sixth of the kinds; all of them in the soak.
  it.each(
    (everything ? offered : offered.filter((_, i) => i % 6 === 0)).map(
      ({ label, kind, startingLooks }) => [label, kind, startingLooks[0]!.name] as const,
    ),
  )('%s is added, shows all its steps, and is undone', async (label, kind, look) => {
    // What is finer than a pixel of the view is judged pixel for pixel.
    await page.keyboard.press(kind === 'sharpen' ? 'q' : 'w')
    const before = await strips()
    await addEffect(page, 'Near', label, look)
    await page.getByRole('heading', { name: label, exact: true }).waitFor()
    // Without a picture nothing is laid over; it says how to choose one.
    if (kind === 'overlay') await page.getByText('Open Pattern and choose a picture.').waitFor()
    else await expect.poll(strips).not.toEqual(before)
    for (const step of ['Pattern', 'Shape', 'Colour', 'Where', 'Mix']) {
      const header = page.getByRole('button', { name: new RegExp(`\\d${step}`) })
      if ((await header.getAttribute('aria-expanded')) === 'false') await header.click()
      await page.getByRole('region', { name: step }).waitFor()
    }
    await page.keyboard.press('Control+z')
    await expect.poll(strips).toEqual(before)
  })

  it('haze hides the far and leaves the near, by the depth of the scene', async () => {
    const at = async (x: number, y: number) => {
      await settled(page)
      return (await canvasPixel(page, x, y))[0]!
    }
    // The headland, a hundred metres away, and the rock at the camera's feet.
    const [far, near] = [await at(0.2, 0.45), await at(0.12, 0.78)]
    await page.getByRole('button', { name: 'Add an effect: Far' }).click()
    await page.getByRole('button', { name: 'Golden haze', exact: true }).click()
    await expect.poll(() => at(0.2, 0.45)).toBeGreaterThan(far + 40)
    expect((await at(0.12, 0.78)) - near).toBeLessThan(30)
  })

  it('complained about nothing', () => {
    expect(complaints).toEqual([])
  })
})
