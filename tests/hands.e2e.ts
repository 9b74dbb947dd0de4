import type { Browser, CDPSession, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { sampled } from '../core/test-support/sampled'
import { addEffect, dropPhoto, exported, launch, openStep, saved, settled, shelfReady, visit } from './support/browser'
import { storedIn } from './support/database'

// What a hand on the keyboard expects: one key does one thing, what lies over the view suspends it, other keyboards, held keys; and the page where storage or network are denied.

const photo = (seed = 0): Promise<Buffer> =>
  sharp({ create: { width: 900 + seed, height: 600, channels: 3, background: '#557', noise: { type: 'gaussian', mean: 120, sigma: 30 } } })
    .png()
    .toBuffer()

describe('keys of the Workbench', () => {
  let browser: Browser
  let page: Page
  let devtools: CDPSession
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
    await settled(page)
    devtools = await page.context().newCDPSession(page)
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const undoes = () => page.getByRole('button', { name: 'Undo' })
  /** Presses a key as a keyboard of any layout does. */
  const press = async (key: string, code: string, { ctrl = false, shift = false, repeats = 0 } = {}): Promise<void> => {
    const event = { key, code, modifiers: (ctrl ? 2 : 0) + (shift ? 8 : 0), windowsVirtualKeyCode: 0 }
    for (let i = 0; i <= repeats; i++) await devtools.send('Input.dispatchKeyEvent', { type: 'keyDown', autoRepeat: i > 0, ...event })
    await devtools.send('Input.dispatchKeyEvent', { type: 'keyUp', ...event })
  }
  /** How many steps of the scene are done, as it is stored. */
  const steps = async (): Promise<number> => {
    await saved(page)
    const scenes = await storedIn(page, 'scenes')
    return scenes.find(({ document }) => (document as { name: string }).name === 'Last crossing, heavy rain')!['position'] as number
  }

  it('a letter typed in an open list chooses there, and does nothing to the effect behind it', async () => {
    await openStep(page, 'Mix')
    const before = await steps()
    await page.getByRole('combobox', { name: 'Mode' }).click()
    await page.getByRole('listbox').waitFor()
    for (const key of ['o', 'm', 'k', 'Delete']) await page.keyboard.press(key)
    await page.keyboard.press('Escape')
    await page.getByRole('listbox').waitFor({ state: 'detached' })
    expect(await steps()).toBe(before)
    await page.getByRole('button', { name: /^Zoom,/ }).click()
    await page.keyboard.press('x')
    await page.keyboard.press('Escape')
    expect(await page.getByRole('complementary', { name: 'Watch column' }).count()).toBe(0)
  })

  it.each([
    ['German', { key: 'z', code: 'KeyY' }],
    ['French', { key: 'z', code: 'KeyW' }],
    ['Russian', { key: 'я', code: 'KeyZ' }],
  ])('Ctrl Z undoes on a %s keyboard', async (_, { key, code }) => {
    const before = await steps()
    await press('o', 'KeyO')
    await expect.poll(steps).toBe(before + 1)
    await press(key, code, { ctrl: true })
    await expect.poll(steps).toBe(before)
    await press(key, code, { ctrl: true, shift: true })
    await expect.poll(steps).toBe(before + 1)
    await undoes().click()
  })

  it('plus zooms in on any keyboard', async () => {
    await page.keyboard.press('q')
    await page.getByRole('button', { name: 'Zoom, 100 %' }).waitFor()
    await press('+', 'Equal', { shift: true })
    await page.getByRole('button', { name: 'Zoom, 125 %' }).waitFor()
    await press('+', 'BracketRight')
    await page.getByRole('button', { name: 'Zoom, 156 %' }).waitFor()
    await press('-', 'Slash')
    await page.getByRole('button', { name: 'Zoom, 125 %' }).waitFor()
    await page.keyboard.press('w')
  })

  it('a held arrow key in a number is one step of the history', async () => {
    const amount = page.getByRole('textbox', { name: 'Amount', exact: true }).last()
    const before = await steps()
    await amount.focus()
    await press('ArrowDown', 'ArrowDown', { repeats: 20 })
    await expect.poll(steps).toBe(before + 1)
    await undoes().click()
    await page.locator('body').click({ position: { x: 300, y: 300 } })
  })

  it('a held letter does it once, and what lasts while it is held ends wherever it is let go', async () => {
    const before = await steps()
    await press('o', 'KeyO', { repeats: 6 })
    await expect.poll(steps).toBe(before + 1)
    await undoes().click()
    const shown = () => page.getByRole('button', { name: 'Before', exact: true }).getAttribute('aria-pressed')
    await devtools.send('Input.dispatchKeyEvent', { type: 'keyDown', key: 'b', code: 'KeyB' })
    await expect.poll(shown).toBe('true')
    // Shift changes what is written on the key that is lifted.
    await devtools.send('Input.dispatchKeyEvent', { type: 'keyUp', key: 'B', code: 'KeyB', modifiers: 8 })
    await expect.poll(shown).toBe('false')
    await devtools.send('Input.dispatchKeyEvent', { type: 'keyDown', key: 'b', code: 'KeyB' })
    await expect.poll(shown).toBe('true')
    await page.evaluate(() => window.dispatchEvent(new Event('blur')))
    await expect.poll(shown).toBe('false')
    await devtools.send('Input.dispatchKeyEvent', { type: 'keyUp', key: 'b', code: 'KeyB' })
  })

  it('Escape takes the last corner of an outline back, and puts the tool away when there is none', async () => {
    await openStep(page, 'Where')
    await page.getByRole('button', { name: 'Add a mask' }).click()
    await page.getByRole('menuitem', { name: 'Outline' }).click()
    const surface = page.getByTestId('outline surface')
    await surface.waitFor()
    const corners = surface.locator('circle')
    for (const [x, y] of [
      [200, 150],
      [300, 150],
      [300, 250],
    ] as const)
      await surface.click({ position: { x, y } })
    await expect.poll(() => corners.count()).toBe(3)
    await page.keyboard.press('Escape')
    await expect.poll(() => corners.count()).toBe(2)
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
    await expect.poll(() => corners.count()).toBe(0)
    expect(await surface.count()).toBe(1)
    await page.keyboard.press('Escape')
    await expect.poll(() => surface.count()).toBe(0)
    await undoes().click()
  })

  it('all keys stand in a table that is searched, and one can be changed; a conflict is said, a reload keeps it', async () => {
    await page.keyboard.press('?')
    const table = page.getByRole('dialog', { name: 'Keys' })
    await table.getByRole('textbox', { name: 'Find a key' }).fill('split')
    await expect.poll(() => table.getByRole('listitem').count()).toBe(1)
    await table.getByRole('button', { name: /^Key of Split/ }).click()
    await page.keyboard.press('m')
    await table.getByText('M is the key of “Next mix mode”, which would have none.').waitFor()
    await table.getByRole('button', { name: 'Cancel' }).click()
    await table.getByRole('button', { name: /^Key of Split/ }).click()
    await page.keyboard.press('8')
    await table.getByRole('button', { name: 'Key of Split: before and after: 8. Change it' }).waitFor()
    await page.keyboard.press('Escape')
    await page.reload()
    await settled(page)
    const split = page.getByRole('button', { name: 'Split', exact: true })
    await page.keyboard.press('s')
    expect(await split.getAttribute('aria-pressed')).toBe('false')
    await page.keyboard.press('8')
    await expect.poll(() => split.getAttribute('aria-pressed')).toBe('true')
    expect(await split.getAttribute('title')).toContain('(8)')
    await page.keyboard.press('8')
  })
})

describe('a page that is alone', () => {
  let browser: Browser
  beforeAll(async () => {
    browser = await launch()
  })
  afterAll(() => browser.close())

  it('opens a photo and exports while the browser says that it is offline', async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true })
    const page = await context.newPage()
    const complaints: string[] = []
    page.on('pageerror', (error) => complaints.push(error.message))
    await page.addInitScript(() => Object.defineProperty(Navigator.prototype, 'onLine', { get: () => false }))
    await page.goto(inject('address'))
    await shelfReady(page)
    await dropPhoto(page, await photo(), 'alone.png')
    await addEffect(page, 'Near', 'Rain')
    await settled(page)
    await page.getByRole('link', { name: 'Export' }).click()
    expect((await exported(page)).length).toBe(900 * 600 * 3)
    expect(complaints).toEqual([])
    await context.close()
  })

  const denials: readonly (readonly [string, () => void])[] = [
    [
      'throws when it is named',
      () => {
        const denied = { configurable: true, get: () => { throw new DOMException('denied', 'SecurityError') } } // oxfmt-ignore
        Object.defineProperty(window, 'localStorage', denied)
        Object.defineProperty(window, 'indexedDB', denied)
      },
    ],
    [
      'is not there',
      () => {
        Object.defineProperty(window, 'localStorage', { value: null })
        Object.defineProperty(window, 'indexedDB', { configurable: true, value: undefined })
      },
    ],
    [
      'cannot be opened',
      () => {
        IDBFactory.prototype.open = () => {
          throw new DOMException('denied', 'InvalidStateError')
        }
      },
    ],
  ]
  it.each(sampled(denials))('works where storage %s: that is said once, and the picture can be made and exported', async (_, deny) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true })
    const page = await context.newPage()
    const complaints: string[] = []
    page.on('pageerror', (error) => complaints.push(error.message))
    await page.addInitScript(deny)
    await page.goto(inject('address'))
    await page.getByRole('alert').or(page.getByRole('status')).getByText('does not let the page keep anything').first().waitFor()
    await dropPhoto(page, await photo(), 'denied.png')
    await addEffect(page, 'Near', 'Rain')
    await settled(page)
    await page.keyboard.press('u')
    await page.getByRole('link', { name: 'Export' }).click()
    expect((await exported(page)).length).toBe(900 * 600 * 3)
    await page.getByRole('link', { name: /Workbench/ }).click()
    await settled(page)
    await page.getByRole('link', { name: 'Shelf' }).click()
    await page.getByRole('link', { name: 'Open denied' }).waitFor()
    expect(complaints).toEqual([])
    await context.close()
  })

  it('the Shelf, right after a photo was dropped, gets its picture by itself', async () => {
    const { page } = await visit(browser)
    await shelfReady(page)
    await dropPhoto(page, await photo(1), 'quick.png')
    await page.getByRole('link', { name: 'Shelf' }).click()
    await page.getByRole('link', { name: 'Open quick' }).getByTestId('scene picture').waitFor()
    await page.context().close()
  })

  it('a scene that another tab adds, renames or deletes is so on the Shelf at once', async () => {
    const { page } = await visit(browser)
    await shelfReady(page)
    const other = await page.context().newPage()
    await other.goto(inject('address'))
    await shelfReady(other)
    await other.getByRole('button', { name: 'More about Snow before dark' }).click()
    await other.getByRole('menuitem', { name: 'Duplicate' }).click()
    await page.getByRole('link', { name: 'Open Snow before dark, copy' }).waitFor()
    await page.getByRole('button', { name: 'More about Snow before dark, copy' }).click()
    await page.getByRole('menuitem', { name: 'Delete' }).click()
    await other.getByRole('link', { name: 'Open Snow before dark, copy' }).waitFor({ state: 'detached' })
    await page.context().close()
  })
})
