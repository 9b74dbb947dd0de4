import { readFile } from 'node:fs/promises'
import type { Browser, Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, launch, settled, shelfReady, visit } from './support/browser'

// Fog as it is made by hand (common practice, no source): the colour from the highlights, brushed lightly where fog may be, a cloud enlarged well beyond its
// usual scale, a second layer with another cloud, both grouped, and what stands in front outlined out.

const photo = new URL('../demo/photos/pine-inlet.jpg', import.meta.url)

describe('fog by hand', () => {
  let browser: Browser
  let page: Page
  let actions = 0
  beforeAll(async () => {
    browser = await launch()
    page = (await visit(browser)).page
    await shelfReady(page)
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Open a photo' }).click()
    await (await chooser).setFiles({ name: 'inlet.jpg', mimeType: 'image/jpeg', buffer: await readFile(photo) })
    await page.waitForURL(/\/scene\//)
    await settled(page)
  })
  afterAll(() => browser.close())

  const click = async (target: Locator) => {
    actions++
    await target.click()
  }
  const type = async (target: Locator, value: string) => {
    actions++
    await target.fill(value)
    await target.press('Enter')
  }
  const menu = async (button: Locator, entry: string | RegExp) => {
    await click(button)
    await click(page.getByRole('menuitem', { name: entry, ...(typeof entry === 'string' ? { exact: true } : {}) }))
  }
  const step = (name: string) => page.getByRole('button', { name: new RegExp(`\\d${name}`) })
  const place = async (x: number, y: number) => {
    const box = (await page.getByTestId('picture').boundingBox())!
    return { x: box.x + x * box.width, y: box.y + y * box.height }
  }
  /** Mean red around a place. */
  const averageOf = async (x: number, y: number) => {
    const reds = await Promise.all(Array.from({ length: 15 }, (_, i) => canvasPixel(page, x + 0.04 * (i - 7), y)))
    return [reds.reduce((sum, [red]) => sum + red!, 0) / reds.length]
  }
  const stroke = async (points: readonly (readonly [number, number])[]) => {
    actions++
    const [first, ...rest] = await Promise.all(points.map(([x, y]) => place(x, y)))
    await page.mouse.move(first!.x, first!.y)
    await page.mouse.down()
    for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 8 })
    await page.mouse.up()
    await settled(page)
  }
  const tap = async (x: number, y: number) => {
    actions++
    const at = await place(x, y)
    await page.mouse.click(at.x, at.y)
  }

  it('is built in the interface in fewer than 40 actions, and stays out of what stands in front', async () => {
    const before = { water: await averageOf(0.5, 0.62), rock: await canvasPixel(page, 0.14, 0.9) }
    await click(page.getByRole('button', { name: 'Add an effect: Middle' }))
    await click(page.getByRole('button', { name: 'Morning fog', exact: true }))
    await click(step('Colour'))
    await click(page.getByRole('button', { name: 'From the brightest 5 %' }))
    await expect.poll(() => page.getByRole('textbox', { name: /Tint/ }).inputValue()).not.toBe('#dfe4e8')
    await click(step('Where'))
    await menu(page.getByRole('button', { name: 'Add a mask' }), 'Brush')
    await click(page.getByRole('button', { name: 'Only here' }))
    await type(page.getByRole('region', { name: 'Where' }).getByRole('textbox', { name: 'Size' }), '700')
    await type(page.getByRole('region', { name: 'Where' }).getByRole('textbox', { name: 'Level' }), '40')
    await stroke([
      [0.15, 0.6],
      [0.5, 0.64],
      [0.85, 0.6],
    ])
    await stroke([
      [0.25, 0.7],
      [0.75, 0.7],
    ])
    await menu(page.getByRole('button', { name: 'Add a mask' }), 'Cloud')
    await type(page.getByRole('region', { name: 'Where' }).getByRole('textbox', { name: 'Scale' }), '2400')
    await type(page.getByRole('region', { name: 'Where' }).getByRole('textbox', { name: 'Cover' }), '75')
    await menu(page.getByRole('button', { name: 'More about Fog' }).first(), 'Duplicate')
    await menu(page.getByRole('button', { name: 'More about Fog' }).last(), /^Group with/)
    await click(page.getByRole('button', { name: /^Group / }).first())
    if ((await step('Where').getAttribute('aria-expanded')) === 'false') await click(step('Where'))
    await menu(page.getByRole('button', { name: 'Add a mask' }), 'Outline')
    // A new outline is drawn at once.
    if (!(await page.getByTestId('outline surface').isVisible())) await click(page.getByRole('button', { name: 'Draw outline' }))
    for (const [x, y] of [
      [0.1, 0.99],
      [0.1, 0.84],
      [0.2, 0.8],
      [0.24, 0.9],
      [0.24, 0.99],
    ] as const)
      await tap(x, y)
    actions++
    await page.keyboard.press('Enter')
    await click(page.getByRole('switch', { name: 'Invert' }))
    await settled(page)
    expect(actions).toBeLessThan(40)

    const after = { water: await averageOf(0.5, 0.62), rock: await canvasPixel(page, 0.14, 0.9) }
    expect(after.water[0]! - before.water[0]!).toBeGreaterThan(6)
    expect(Math.abs(after.rock[0]! - before.rock[0]!)).toBeLessThan(3)
  })

  it('its two layers show other clouds', async () => {
    const seeds: string[] = []
    for (const card of [page.getByRole('button', { name: /^Fog, / }).first(), page.getByRole('button', { name: /^Fog, / }).last()]) {
      await card.click()
      const where = page.getByRole('region', { name: 'Where' })
      if ((await step('Where').getAttribute('aria-expanded')) === 'false') await step('Where').click()
      await page.getByRole('list', { name: 'Masks' }).getByRole('button', { name: 'drifting cloud', exact: true }).click()
      for (const name of ['Scale', 'Rotation', 'Seed']) seeds.push(await where.getByRole('textbox', { name, exact: true }).inputValue())
    }
    for (const i of [0, 1, 2]) expect(seeds[i]).not.toBe(seeds[i + 3])
  })
})
