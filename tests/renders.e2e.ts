import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { addEffect, drawn, launch, saved, settled, shelfReady } from './support/browser'
import { countRenders, rendersSince } from './support/renders'

describe('a step of a dial', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    page.setDefaultTimeout(10_000)
    await countRenders(page)
    await page.goto(inject('address'))
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Snow before dark' }).click()
    await settled(page)
  })
  afterAll(() => browser.close())

  it('computes anew its panel, its card and the picture, and no other card and nothing of the bar', async () => {
    for (let i = 0; i < 7; i++) await addEffect(page, 'Near', 'Snow')
    await settled(page)
    await saved(page)
    const dial = page.getByRole('textbox', { name: 'Amount' })
    // The first step makes undo possible, and begins to save.
    await dial.press('ArrowUp')
    await saved(page)
    await settled(page)
    await rendersSince(page)
    await dial.press('ArrowUp')
    await drawn(page)
    const found = await rendersSince(page)
    console.log(found)
    expect(found['steps']).toBeGreaterThan(0)
  })
})
