import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { addEffect, drawn, launch, saved, settled, shelfReady } from './support/browser'
import { countRenders, rendersSince } from './support/renders'

describe('a step of a dial', () => {
  let browser: Browser
  let page: Page
  /** Components of the bar as a whole. */
  let bar: number
  beforeAll(async () => {
    browser = await launch()
    page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    page.setDefaultTimeout(10_000)
    await countRenders(page)
    await page.goto(inject('address'))
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Snow before dark' }).click()
    await settled(page)
    bar = (await rendersSince(page))['top bar']!
  })
  afterAll(() => browser.close())

  /** What a step of the amount of the selected effect computes anew, until its exact picture is there. */
  const stepped = async () => {
    const dial = page.getByRole('textbox', { name: 'Amount' })
    // The first step makes undo possible, and begins to save.
    await dial.press('ArrowUp')
    await saved(page)
    await settled(page)
    await drawn(page)
    await rendersSince(page)
    await dial.press('ArrowUp')
    await settled(page)
    await saved(page)
    await drawn(page)
    return rendersSince(page)
  }

  it('computes anew its panel, its card and the picture, and no other card and nothing of the bar but that it is being saved', async () => {
    await addEffect(page, 'Near', 'Snow')
    const few = await stepped()
    for (let i = 0; i < 6; i++) await addEffect(page, 'Near', 'Snow')
    const many = await stepped()
    expect(many['depth line']).toBe(few['depth line'])
    expect(many['steps']).toBeLessThanOrEqual(few['steps']!)
    expect(many['picture']).toBeLessThanOrEqual(few['picture']!)
    // Only the mark that says so, twice: when it begins to save, and when it has saved.
    expect(many['top bar']).toBeLessThan(bar / 10)
    expect(many['watch column']).toBeUndefined()
  })
})
