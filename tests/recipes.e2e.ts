import { readFile } from 'node:fs/promises'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findings } from './support/axe'
import { choose, launch, saved, settled, shelfReady, visit } from './support/browser'

describe('recipes', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser, '/'))
    await shelfReady(page)
  })
  afterAll(() => browser.close())

  const list = () => page.getByRole('list', { name: 'Recipes, as they are on this photo' })
  const card = (name: string) => list().getByRole('button', { name, exact: true })
  const names = async () =>
    list()
      .locator('[data-recipe]')
      .evaluateAll((cards) => cards.map((one) => one.getAttribute('aria-label')))
  const more = (name: string, item: string) => choose(page, page.getByRole('button', { name: `More about ${name}`, exact: true }), item)
  const shelf = (name: string) => page.getByRole('group', { name: 'Which recipes' }).getByRole('button', { name, exact: true }).click()

  it('are shown on the photo that was worked on last; pointing shows one large, leaving takes it away', async () => {
    await page.getByRole('link', { name: 'Open First light on the inlet' }).click()
    await settled(page)
    await page.goto(new URL('/recipes', page.url()).href)
    await page.waitForURL(/\/scene\/.+\/recipes$/)
    await list().waitFor()
    await expect.poll(async () => (await names()).length).toBeGreaterThanOrEqual(24)
    await card('Quiet snow').hover()
    await page.getByRole('region', { name: 'Quiet snow' }).waitFor()
    await page.mouse.move(300, 400)
    await page.getByRole('region', { name: 'The picture as it is' }).waitFor()
    expect(await findings(page)).toEqual([])
  })

  it('are found by words and by what they are about', async () => {
    const find = page.getByRole('searchbox', { name: 'Find a recipe' })
    await find.fill('snow night')
    await expect.poll(names).toEqual(['Snow by lamplight'])
    await find.fill('rain nothing like it')
    await page.getByText('Nothing found.').waitFor()
    await find.fill('')
    await shelf('Night')
    await expect.poll(async () => (await names()).length).toBeLessThan(8)
    await shelf('All')
  })

  it('one is laid in place of all, as one step, which can be undone', async () => {
    await card('Last light').click()
    await page.getByRole('textbox', { name: 'Strength' }).fill('80')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Lay it on the photo' }).click()
    await page.waitForURL(/\/scene\/[^/]+$/)
    await page.getByText('The recipe “Last light” replaced the effects of this scene.').waitFor()
    await settled(page)
    await page.getByRole('button', { name: /^Low sun, Last minute/ }).waitFor()
    await page.getByRole('button', { name: 'Undo', exact: true }).last().click()
    await page.getByRole('button', { name: /^Low sun, Last minute/ }).waitFor({ state: 'detached' })
  })

  it('one is laid over what is there, and stays after a reload', async () => {
    await page.getByRole('link', { name: 'Recipes' }).click()
    await list().waitFor()
    await page.getByRole('button', { name: 'Over', exact: true }).click()
    await more('Found glass plate', 'Lay it on the photo')
    await page.getByText('The recipe “Found glass plate” lies before the effects.').waitFor()
    await saved(page)
    await page.reload()
    await settled(page)
    await page.getByRole('button', { name: /^Wear, Dusty glass plate/ }).waitFor()
    await page.keyboard.press('Control+z')
    await page.getByRole('button', { name: /^Wear, Dusty glass plate/ }).waitFor({ state: 'detached' })
  })

  it('one is made of the picture, renamed, found by words of its own, duplicated, put in order, deleted and put back', async () => {
    await page.keyboard.press('Shift+R')
    await list().waitFor()
    await page.getByRole('button', { name: 'Make a recipe of this picture' }).click()
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('My inlet')
    await page.getByRole('button', { name: 'Keep the recipe' }).click()
    await shelf('Own')
    await expect.poll(names).toEqual(['My inlet'])
    const name = page.getByRole('textbox', { name: 'Name of My inlet' })
    await name.fill('Inlet at dawn')
    await name.press('Enter')
    await expect.poll(names).toEqual(['Inlet at dawn'])
    await more('Inlet at dawn', 'Words that find it …')
    await page.getByRole('textbox', { name: 'Words', exact: true }).fill('Night, still water, still water')
    await page.getByRole('button', { name: 'Keep them' }).click()
    await more('Inlet at dawn', 'Duplicate')
    await expect.poll(names).toEqual(['Inlet at dawn, own', 'Inlet at dawn'])
    await more('Inlet at dawn, own', 'Move later')
    await expect.poll(names).toEqual(['Inlet at dawn', 'Inlet at dawn, own'])
    await more('Inlet at dawn, own', 'Delete')
    await expect.poll(names).toEqual(['Inlet at dawn'])
    await page.getByText('The recipe “Inlet at dawn, own” was deleted.').waitFor()
    await page.getByRole('button', { name: 'Undo', exact: true }).last().click()
    await expect.poll(names).toEqual(['Inlet at dawn', 'Inlet at dawn, own'])
    await page.getByRole('button', { name: 'Favourite: Inlet at dawn', exact: true }).click()
    await page.reload()
    await list().waitFor()
    await shelf('Favourites')
    await expect.poll(names).toEqual(['Inlet at dawn'])
    await shelf('Night')
    await expect.poll(async () => (await names()).slice(0, 2)).toEqual(['Inlet at dawn', 'Inlet at dawn, own'])
  })

  it('own ones leave as one file, and are laid in a fresh profile', async () => {
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save your own' }).click()
    const download = await waiting
    expect(download.suggestedFilename()).toBe('Recipes.welkinar')
    const file = await readFile(await download.path())
    const { page: fresh } = await visit(browser)
    await shelfReady(fresh)
    await fresh.goto(new URL('/recipes', fresh.url()).href)
    await fresh.getByRole('list', { name: 'Recipes, as they are on this photo' }).waitFor()
    const give = async (buffer: Buffer, name: string) => {
      const choosing = fresh.waitForEvent('filechooser')
      await fresh.getByRole('button', { name: 'Open files' }).click()
      await (await choosing).setFiles({ name, mimeType: 'application/zip', buffer })
    }
    await give(file.subarray(0, file.length - 30), 'cut.welkinar')
    await fresh.getByText('“cut.welkinar” is damaged.').waitFor()
    await give(Buffer.from('{"format":"welkinar-recipe"}'), 'odd.json')
    await fresh.getByText(/“odd.json” is not a valid recipe/).waitFor()
    await give(file, 'mine.welkinar')
    await fresh.getByText('2 recipes are among your own now.').waitFor()
    await fresh.getByRole('button', { name: 'Inlet at dawn', exact: true }).waitFor()
    // It is chosen at once.
    await fresh.getByRole('button', { name: 'Lay it on the photo' }).click()
    await fresh.getByText('The recipe “Inlet at dawn” replaced the effects of this scene.').waitFor()
    await settled(fresh)
    await fresh.context().close()
  })

  it('by keys alone: arrows go through them and show each large, Enter chooses, a button lays', async () => {
    await shelf('All')
    await page.getByRole('searchbox', { name: 'Find a recipe' }).fill('storm')
    await expect.poll(names).toEqual(['Storm front', 'White-out'])
    await card('Storm front').focus()
    await page.keyboard.press('ArrowRight')
    await page.getByRole('region', { name: 'White-out' }).waitFor()
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    expect(await page.getByRole('button', { name: 'Lay it on the photo' }).isEnabled()).toBe(false)
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Lay it on the photo' }).focus()
    await page.keyboard.press('Enter')
    await page.getByText('The recipe “White-out” lies before the effects.').or(page.getByText('The recipe “White-out” replaced')).waitFor()
    await settled(page)
    await page.keyboard.press('Control+z')
  })

  it('one is made of a single effect in the Workbench', async () => {
    await page
      .getByRole('button', { name: /^More about/ })
      .last()
      .click()
    await page.getByRole('menuitem', { name: 'Make a recipe of it' }).click()
    await page.getByText(/is among your own recipes now/).waitFor()
    await page.keyboard.press('Shift+R')
    await list().waitFor()
    await shelf('Own')
    await expect.poll(async () => (await names()).length).toBe(3)
    expect(complaints).toEqual([])
  })
})
