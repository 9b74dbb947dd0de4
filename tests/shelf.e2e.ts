import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoNames, launch, settled, shelfReady, visit } from './support/browser'

describe('the Shelf', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    page = (await visit(browser)).page
    await shelfReady(page)
  })
  afterAll(() => browser.close())

  const names = () => page.getByRole('list', { name: 'Scenes' }).getByRole('heading').allTextContents()
  const choose = async (scene: string, entry: string) => {
    await page.getByRole('button', { name: `More about ${scene}`, exact: true }).click()
    await page.getByRole('menuitem', { name: entry }).click()
  }

  it('shows the demo scene with its picture, and how much is stored', async () => {
    expect(await names()).toEqual(demoNames)
    const shown = await page
      .locator('li img')
      .first()
      .evaluate((image) => (image as HTMLImageElement).naturalWidth)
    expect(shown).toBeGreaterThan(300)
    await page.getByText(/used, .* available/).waitFor()
  })

  it('opens photos of every kind that it names, chosen by the button', async () => {
    const picture = sharp({ create: { width: 120, height: 80, channels: 3, background: '#456' } })
    const files = { jpg: picture.clone().jpeg(), png: picture.clone().png(), webp: picture.clone().webp(), avif: picture.clone().avif() }
    for (const [ending, made] of Object.entries(files)) {
      const chooser = page.waitForEvent('filechooser')
      await page.getByRole('button', { name: 'Open a photo' }).click()
      await (await chooser).setFiles({ name: `plain ${ending}.${ending}`, mimeType: `image/${ending}`, buffer: await made.toBuffer() })
      await page.waitForURL(/\/scene\//)
      await settled(page)
      await page.getByText('Press a + on the depth line').waitFor()
      await page.getByRole('link', { name: 'Shelf' }).click()
      await shelfReady(page)
    }
    expect(await names()).toEqual(['plain avif', 'plain webp', 'plain png', 'plain jpg', ...demoNames])
  })

  it('renames', async () => {
    await choose('plain png', 'Rename')
    const field = page.getByRole('textbox', { name: 'New name' })
    await field.fill('Harbour at noon')
    await field.press('Enter')
    await page.getByRole('heading', { name: 'Harbour at noon' }).waitFor()
    await page.reload()
    await page.getByRole('heading', { name: 'Harbour at noon' }).waitFor()
  })

  it('duplicates with all effects, and the copy goes its own way', async () => {
    await choose('Last crossing, heavy rain', 'Duplicate')
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain, copy' }).click()
    await settled(page)
    await page.getByRole('button', { name: /^Rain, Downpour/ }).click()
    await page.keyboard.press('Shift+Delete')
    await page.getByRole('button', { name: /^Rain, Downpour/ }).waitFor({ state: 'detached' })
    await page.waitForTimeout(800)
    await page.getByRole('link', { name: 'Shelf' }).click()
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain', exact: true }).click()
    await page.getByRole('button', { name: /^Rain, Downpour/ }).waitFor()
    await page.getByRole('link', { name: 'Shelf' }).click()
  })

  it('deletes with undo, and for good after the next start', async () => {
    await choose('plain jpg', 'Delete')
    await page.getByRole('heading', { name: 'plain jpg' }).waitFor({ state: 'detached' })
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('heading', { name: 'plain jpg' }).waitFor()
    await choose('plain jpg', 'Delete')
    await page.getByRole('heading', { name: 'plain jpg' }).waitFor({ state: 'detached' })
    await page.reload()
    await page.getByRole('heading', { name: 'Harbour at noon' }).waitFor()
    expect(await names()).not.toContain('plain jpg')
    const stored = await page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          indexedDB.open('welkinar').onsuccess = (event) => {
            const { result } = event.target as IDBOpenDBRequest
            result.transaction('photos').objectStore('photos').count().onsuccess = (count) =>
              resolve((count.target as IDBRequest<number>).result)
          }
        }),
    )
    // Six photos, each with its depth picture, and the three files that are left.
    expect(stored).toBe(15)
  })
})
