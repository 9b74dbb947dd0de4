import type { Browser, Page } from 'playwright-core'
import sharp, { type Sharp } from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sampled } from '../core/test-support/sampled'
import { demoNames, dropPhoto, exported, launch, saved, settled, shelfReady, visit } from './support/browser'
import { changeScene, storedIn } from './support/database'

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
    const shown = () =>
      page
        .getByTestId('scene picture')
        .first()
        .evaluate((canvas) => (canvas as HTMLCanvasElement).width)
    await expect.poll(shown).toBeGreaterThan(300)
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
    await expect.poll(names).toEqual(['plain avif', 'plain webp', 'plain png', 'plain jpg', ...demoNames])
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
    await saved(page)
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
    // A start soon after leaves it: another tab may still bring it back.
    await page.reload()
    await page.getByRole('heading', { name: 'Harbour at noon' }).waitFor()
    expect((await storedIn(page, 'photos')).length).toBe(16)
    await changeScene(page, 'plain jpg', { putAway: 1 })
    await page.reload()
    await page.getByRole('heading', { name: 'Harbour at noon' }).waitFor()
    expect(await names()).not.toContain('plain jpg')
    // Six photos, each with its depth picture, and the three files that are left.
    expect((await storedIn(page, 'photos')).length).toBe(15)
  })

  it('shows pictures that nothing uses, and clears them', async () => {
    await page.evaluate(
      () =>
        new Promise<void>((resolve) => {
          indexedDB.open('welkinar').onsuccess = (event) => {
            const { result } = event.target as IDBOpenDBRequest
            const photos = result.transaction('photos', 'readwrite').objectStore('photos')
            photos.put({ id: 'old', fileName: 'old.png', file: new Blob(['x'.repeat(3000)]), reduced: false, added: 1 })
            // One that came just now may be on its way into a scene of another tab.
            photos.put({ id: 'new', fileName: 'new.png', file: new Blob(['x']), reduced: false, added: Date.now() }).onsuccess = () =>
              resolve()
          }
        }),
    )
    await page.reload()
    await page.getByText('One picture is used by no scene: 3 kB.').waitFor()
    await page.getByRole('button', { name: 'Clear' }).click()
    await page.getByText('One picture is used by no scene').waitFor({ state: 'detached' })
    expect((await storedIn(page, 'photos')).map(({ id }) => id)).toContain('new')
    expect((await storedIn(page, 'photos')).map(({ id }) => id)).not.toContain('old')
  })

  it('how much of the machine is used can be chosen, and stays', async () => {
    await page.getByRole('button', { name: 'Change' }).click()
    const dialog = page.getByRole('dialog', { name: 'This machine' })
    const threads = dialog.getByRole('textbox', { name: 'Threads' })
    for (const [typed, refusal] of [
      ['0', 'Between 1 and 16, please.'],
      ['2.5', 'A whole number, please.'],
      ['many', 'A number is needed here.'],
    ] as const) {
      await threads.fill(typed)
      await page.getByText(refusal).waitFor()
      await threads.press('Escape')
      await dialog.waitFor()
    }
    await threads.fill('3')
    await threads.press('Enter')
    await dialog.getByRole('textbox', { name: 'Memory for results' }).fill('100')
    await dialog.getByRole('button', { name: 'Use from now on' }).click()
    await page.getByText('Pictures are computed by 3 threads, which may keep 100 MB of results.').waitFor()
    await page
      .getByRole('link', { name: `Open ${demoNames[0]}` })
      .first()
      .click()
    await settled(page)
    expect(page.workers().length).toBe(3)
    await page.goBack()
    await shelfReady(page)
    await page.evaluate(() => localStorage.setItem('welkinar machine', '{"threads": 1e9}'))
    await page.reload()
    await page.getByText('which may keep 768 MB of results.').waitFor()
  })
})

describe('a JPEG', () => {
  let browser: Browser
  beforeAll(async () => {
    browser = await launch()
  })
  afterAll(() => browser.close())

  /** Colour noise at an odd size, which blocks and reduced colour do not divide. */
  const noise = (): Sharp =>
    sharp(Buffer.from(Array.from({ length: 301 * 203 * 3 }, (_, i) => (i * i * 31 + (i >> 5) * 7) % 256)), {
      raw: { width: 301, height: 203, channels: 3 },
    })
  const files: Record<string, Sharp> = {
    'turned, with a profile': noise().withMetadata({ orientation: 6 }).withIccProfile('p3').jpeg({ quality: 70 }),
    'progressive, in full colour': noise().jpeg({ quality: 90, progressive: true, chromaSubsampling: '4:4:4' }),
    grey: noise().greyscale().jpeg(),
  }

  // Against libvips, which reads it for the command line; the browser reads it by itself.
  it.each(sampled(Object.keys(files)))('%s, is exported with the pixels that it has', async (name) => {
    const bytes = await files[name]!.toBuffer()
    const { page } = await visit(browser)
    await shelfReady(page)
    await dropPhoto(page, bytes, 'noise.jpg', 'image/jpeg')
    await page.getByRole('link', { name: 'Export' }).click()
    const wanted = await sharp(bytes).autoOrient().toColourspace('srgb').raw().toBuffer()
    const found = await exported(page)
    const off = found.reduce((most, code, i) => Math.max(most, Math.abs(code - wanted[i]!)), 0)
    // Little CMS natively works in 8 bits; here they are 16, and dithered.
    expect(off).toBeLessThanOrEqual(name.includes('profile') ? 4 : 0)
  })
})
