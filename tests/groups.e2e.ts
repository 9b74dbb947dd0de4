import type { Browser, Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, dragBy, launch, settled, shelfReady, visit } from './support/browser'

describe('groups, looks and mix modes on the depth line', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
    await settled(page)
  })
  afterAll(() => browser.close())

  const card = (name: RegExp) => page.getByRole('button', { name }).first()
  const menu = async (button: Locator, item: string) => {
    await button.click()
    await page.getByRole('menuitem', { name: item, exact: true }).click()
  }
  const members = (group: string) => page.getByRole('group', { name: `Group ${group}` }).getByRole('button', { name: /^Rain,/ })
  const amount = () => page.getByRole('textbox', { name: 'Amount', exact: true }).first()

  it('two effects are put under one outline, and only there they are seen', async () => {
    await menu(page.getByRole('button', { name: 'More about Rain' }).last(), 'Group')
    // The far drizzle is taken into it with its menu, as dragging does.
    await menu(page.getByRole('button', { name: 'More about Rain' }).first(), 'Into Group 1')
    expect(await members('Group 1').count()).toBe(2)
    await page.getByRole('button', { name: /^Group Group 1 100 %/ }).click()
    await page.getByRole('textbox', { name: 'Name of the group' }).fill('Under the sky')
    await page.keyboard.press('Enter')
    const where = page.getByRole('region', { name: 'Where' }).getByRole('button').first()
    await where.click()
    await settled(page)
    const places = Array.from({ length: 40 }, (_, i) => [0.35 + 0.008 * i, 0.3] as const)
    const below = Array.from({ length: 40 }, (_, i) => [0.35 + 0.008 * i, 0.75] as const)
    const read = (list: readonly (readonly [number, number])[]) => Promise.all(list.map(([x, y]) => canvasPixel(page, x, y)))
    const [above1, below1] = [await read(places), await read(below)]
    await menu(page.getByRole('button', { name: 'Add a mask' }), 'Outline')
    const box = (await page.locator('[data-testid=picture]').boundingBox())!
    for (const [x, y] of [
      [0.1, 0.1],
      [0.9, 0.1],
      [0.9, 0.5],
      [0.1, 0.5],
    ] as const)
      await page.mouse.click(box.x + x * box.width, box.y + y * box.height)
    await page.keyboard.press('Enter')
    await settled(page)
    expect(await read(places)).toEqual(above1)
    await page.getByRole('button', { name: 'Before', exact: true }).click()
    await settled(page)
    const photo = await read(below)
    await page.getByRole('button', { name: 'After', exact: true }).click()
    await settled(page)
    expect(await read(below)).toEqual(photo)
    expect(below1).not.toEqual(photo)
  })

  it('an effect is dragged out of the group and back in, and leaves it by the keyboard', async () => {
    const plus = page.getByRole('button', { name: 'Add an effect: Lens' })
    const to = (await plus.boundingBox())!
    const from = (await members('Under the sky').last().boundingBox())!
    await dragBy(page, members('Under the sky').last(), to.x - from.x, 0)
    await expect.poll(() => members('Under the sky').count()).toBe(1)
    const [home, away] = [(await members('Under the sky').first().boundingBox())!, (await card(/^Rain, Drizzle/).boundingBox())!]
    await dragBy(page, card(/^Rain, Drizzle/), home.x - away.x, 0)
    await expect.poll(() => members('Under the sky').count()).toBe(2)
    await members('Under the sky').first().click()
    await page.keyboard.press('Shift+<')
    await expect.poll(() => members('Under the sky').count()).toBe(1)
    await page.keyboard.press('Control+z')
    await expect.poll(() => members('Under the sky').count()).toBe(2)
  })

  // A screen reader hears what is moved and where it is, never an identifier.
  it('moving by keys is said in names', async () => {
    // Each list that can be put in another order says what happens in it.
    const said = async (): Promise<string> => (await page.locator('[id^=DndLiveRegion]').allTextContents()).join('')
    await members('Under the sky').first().focus()
    await page.keyboard.press('Space')
    await expect.poll(said).toMatch(/^[A-Z][a-z ]+ is held\. Arrow keys move it/)
    await page.keyboard.press('ArrowLeft')
    await expect.poll(said).toMatch(/^[A-Z][a-z ]+ is over [A-Z][a-z ]+\.$/)
    await page.keyboard.press('Escape')
    await expect.poll(said).toMatch(/^[A-Z][a-z ]+ stays where it was\.$/)
    expect(await members('Under the sky').count()).toBe(2)
  })

  it('the group fades, switches off, and is taken apart', async () => {
    await page.getByRole('button', { name: /^Group Under the sky/ }).click()
    await amount().fill('40')
    await amount().press('Enter')
    await page.getByRole('button', { name: /^Group Under the sky 40 %/ }).waitFor()
    await page.getByRole('button', { name: /^Group Under the sky/ }).click()
    await page.keyboard.press('o')
    await page.getByRole('button', { name: /^Group Under the sky off/ }).waitFor()
    await page.keyboard.press('o')
    await page.getByRole('button', { name: 'Ungroup' }).click()
    expect(await page.getByRole('button', { name: /^Group Under the sky/ }).count()).toBe(0)
    expect(await page.getByRole('button', { name: /^Rain,/ }).count()).toBe(2)
  })

  it('a mask is copied to another effect, and a recipe with a pinned state is opened again', async () => {
    await card(/^Rain, Downpour/).click()
    const list = page.getByRole('list', { name: 'Masks' }).getByRole('listitem')
    const where = page.getByRole('button', { name: /\dWhere/ })
    if ((await where.getAttribute('aria-expanded')) === 'false') await where.click()
    await page.getByRole('combobox', { name: 'Tones from' }).click()
    await page.getByRole('option', { name: 'Pin what lies beneath now' }).click()
    await menu(page.getByRole('button', { name: 'More about mask 1' }), 'Copy to Drizzle')
    await page.getByText('The mask was copied to Drizzle.').waitFor()
    await card(/^Rain, Drizzle/).click()
    expect(await list.count()).toBe(2)
    await page.keyboard.press('Control+z')
    expect(await list.count()).toBe(1)
    const download = page.waitForEvent('download')
    await page.keyboard.press('Control+k')
    await page.getByRole('option', { name: /Save the recipe/ }).click()
    const path = await (await download).path()
    const chooser = page.waitForEvent('filechooser')
    await page.keyboard.press('Control+k')
    await page.getByRole('option', { name: /Open a recipe/ }).click()
    await (await chooser).setFiles(path)
    await page.getByText('replaced the effects of this scene').waitFor()
    await card(/^Rain, Downpour/).click()
    expect(await page.getByRole('combobox', { name: 'Tones from' }).innerText()).toContain('Beneath Downpour, pinned 1')
    expect(await page.getByText('Its pinned state is gone').count()).toBe(0)
  })

  it('a look is copied and pasted, with all its values', async () => {
    await card(/^Rain, Downpour/).click()
    const length = () => page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: 'Length', exact: true }).inputValue()
    const [theirs, theirAmount] = [await length(), await amount().inputValue()]
    await menu(page.getByRole('button', { name: 'More about Rain' }).last(), 'Copy look')
    await page.getByText('The look of Downpour was copied.').waitFor()
    await card(/^Rain, Drizzle/).click()
    expect(await length()).not.toBe(theirs)
    await page.keyboard.press('Control+k')
    await page.getByRole('option', { name: /Paste the look/ }).click()
    await expect.poll(length).toBe(theirs)
    expect(await amount().inputValue()).toBe(theirAmount)
    await page.keyboard.press('Control+z')
    await expect.poll(length).not.toBe(theirs)
  })

  it('mix modes are stepped through with the keyboard, and tried from the list while the picture follows', async () => {
    await card(/^Rain, Downpour/).click()
    await page.getByRole('region', { name: 'Mix' }).getByRole('button').first().click()
    const mode = page.getByRole('combobox', { name: 'Mode' })
    const first = await mode.innerText()
    await page.keyboard.press('m')
    const second = await mode.innerText()
    expect(second).not.toBe(first)
    await page.keyboard.press('Shift+M')
    expect(await mode.innerText()).toBe(first)
    await settled(page)
    const sky = async () => {
      await settled(page)
      return Promise.all(Array.from({ length: 30 }, (_, i) => canvasPixel(page, 0.35 + 0.01 * i, 0.3)))
    }
    const before = await sky()
    await mode.click()
    await page.getByRole('option', { name: 'Difference' }).hover()
    await expect.poll(sky).not.toEqual(before)
    await page.keyboard.press('Escape')
    await expect.poll(sky).toEqual(before)
    expect(await mode.innerText()).toBe(first)
  })

  it('T held down exaggerates the effect, and letting go shows it as it is', async () => {
    const brightest = async () => {
      await settled(page)
      const row = await Promise.all(Array.from({ length: 60 }, (_, i) => canvasPixel(page, 0.3 + 0.008 * i, 0.25)))
      return row.reduce((sum, [red]) => sum + red!, 0)
    }
    const plain = await brightest()
    await page.keyboard.down('t')
    await expect.poll(brightest).toBeGreaterThan(plain + 60)
    await page.keyboard.up('t')
    await expect.poll(brightest).toBe(plain)
  })

  it('complained about nothing', () => {
    expect(complaints).toEqual([])
  })
})
