import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findings } from './support/axe'
import { addEffect, dropPhoto, launch, settled, shelfReady, visit } from './support/browser'
import { pngOf, seenOnPhoto } from './support/photo'

const size = { width: 1200, height: 800 }

describe('what was done', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await pngOf(size, () => [90, 90, 90]), 'grey.png')
    await addEffect(page, 'Finish', 'Adjust', 'Warm evening')
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const steps = () => page.getByRole('dialog', { name: 'Steps' }).getByRole('menuitem')
  const amount = () => page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: 'Amount' })
  const setAmount = async (value: number): Promise<void> => {
    await amount().fill(String(value))
    await amount().press('Enter')
  }
  const seen = async () => seenOnPhoto(page, size, 600, 400)

  it('is a list of steps with what is undone still in it; a press goes to any of them, and keys do', async () => {
    const bare = [90, 90, 90]
    const full = await seen()
    expect(full).not.toEqual(bare)
    for (const value of [80, 60, 0]) await setAmount(value)
    await expect.poll(seen).toEqual(bare)
    await page.getByRole('button', { name: 'All steps' }).click()
    expect(await steps().allInnerTexts()).toEqual(['Amount\nnow', 'Amount', 'Amount', 'Add Warm evening', 'The beginning'])
    expect(await findings(page, '[role=dialog]')).toEqual([])
    // Pointing at a step shows it, small, and changes nothing.
    await steps().nth(3).hover()
    await page.getByRole('dialog', { name: 'Steps' }).getByText('3 steps back').waitFor()
    await page.keyboard.press('Escape')
    expect(await amount().inputValue()).toMatch(/^0/)
    await page.getByRole('button', { name: 'All steps' }).click()
    await steps().nth(3).click()
    await expect.poll(seen).toEqual(full)
    expect(await amount().inputValue()).toMatch(/^100/)
    await page.keyboard.press('Shift+h')
    expect((await steps().allInnerTexts()).slice(0, 4)).toEqual([
      'Amount\nundone',
      'Amount\nundone',
      'Amount\nundone',
      'Add Warm evening\nnow',
    ])
    // The one that is in force has the focus.
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('Enter')
    expect(await amount().inputValue()).toMatch(/^60/)
    await page.getByRole('button', { name: 'Undo' }).hover()
    await page.getByRole('tooltip', { name: /^Undo: Amount/ }).waitFor()
    await page.getByRole('button', { name: 'Redo' }).hover()
    await page.getByRole('tooltip', { name: /^Redo: Amount/ }).waitFor()
  })

  it('an effect keeps name and mix when its look is exchanged; pointing only tries', async () => {
    const name = page.getByRole('textbox', { name: 'Name of the effect' })
    await name.fill('Cheeks')
    await name.press('Enter')
    const card = page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name: 'Adjust, Cheeks, 60 %' })
    await card.waitFor()
    const before = await seen()
    await page.getByRole('button', { name: 'Looks', exact: true }).click()
    const looks = page.getByRole('dialog', { name: 'Looks of Adjust' })
    expect(await findings(page, '[role=dialog]')).toEqual([])
    await looks.getByRole('button', { name: 'Neutral' }).hover()
    await expect.poll(seen).toEqual([90, 90, 90])
    await page.keyboard.press('Escape')
    await expect.poll(seen).toEqual(before)
    await page.getByRole('button', { name: 'Looks', exact: true }).click()
    await looks.getByRole('button', { name: 'Neutral' }).click()
    await settled(page)
    expect(await seen()).toEqual([90, 90, 90])
    await card.waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(seen).toEqual(before)
  })
})
