import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { storedIn } from './support/database'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoNames, dropFile, launch, settled, shelfReady, visit, saved } from './support/browser'

const grey = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#778' } })
const text = (words: string) => Buffer.from(words)

describe('bad input', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    page = (await visit(browser)).page
    await shelfReady(page)
  })
  afterAll(() => browser.close())

  const problem = () => page.getByRole('alert')

  it.each([
    ['empty.jpg', () => Buffer.alloc(0), '“empty.jpg” cannot be opened: it is empty.'],
    ['letter.jpg', () => text('not a picture'), '“letter.jpg” cannot be opened: it is not a picture'],
    ['half.jpg', async () => (await grey(300, 200).jpeg().toBuffer()).subarray(0, -40), '“half.jpg” is damaged: the file is cut short.'],
    ['dot.png', () => grey(1, 1).png().toBuffer(), '“dot.png” is too small'],
    ['print.jpg', () => grey(60, 60).toColourspace('cmyk').jpeg().toBuffer(), '“print.jpg” is a CMYK picture'],
    ['moving.gif', () => grey(60, 60).gif().toBuffer(), '“moving.gif” cannot be opened: it is a GIF'],
    ['shot.arw', () => text('II*\0 raw data'), '“shot.arw” cannot be opened: it is a raw file that cannot be read'],
  ] as const)('%s is refused with its name and the reason; the Shelf stays', async (name, make, message) => {
    await dropFile(page, await make(), name, 'image/jpeg')
    await problem().getByText(message).waitFor()
    expect(new URL(page.url()).pathname).toBe('/')
    expect(await page.getByRole('list', { name: 'Scenes' }).getByRole('link').count()).toBe(demoNames.length)
    await problem().getByRole('button', { name: 'Close' }).click()
  })

  it('a transparent PNG opens and says what was done', async () => {
    const cutOut = await sharp({ create: { width: 80, height: 60, channels: 4, background: { r: 200, g: 90, b: 20, alpha: 0.4 } } })
      .png()
      .toBuffer()
    await dropFile(page, cutOut, 'cut-out.png', 'image/png')
    await page.getByText('“cut-out.png” has transparent parts; they were laid on white.').waitFor()
    await page.getByRole('link', { name: 'Shelf' }).click()
  })

  it('a picture over 60 megapixels is offered reduced', async () => {
    await dropFile(page, await grey(9000, 7000).png().toBuffer(), 'huge.png', 'image/png')
    await page.getByText('“huge.png” has 63 megapixels').waitFor()
    await page.getByRole('button', { name: 'Open at reduced size' }).click()
    await page.waitForURL(/\/scene\//, { timeout: 40_000 })
    await page.reload()
    await settled(page)
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByText('4500 × 3500 px').waitFor()
    await page.goto(new URL('/', page.url()).href)
  })

  it('a picture over 60 megapixels that is dropped once more is offered reduced again', async () => {
    await shelfReady(page)
    await dropFile(page, await grey(9000, 7000).png().toBuffer(), 'huge.png', 'image/png')
    await page.getByRole('button', { name: 'Cancel' }).click({ timeout: 40_000 })
    await page.getByRole('dialog').waitFor({ state: 'detached' })
    const records = await storedIn(page, 'photos')
    expect(records.filter(({ fileName }) => fileName === 'huge.png')).toMatchObject([{ reduced: true }])
  })

  it('two photos that are dropped at once are answered', async () => {
    const transfer = await page.evaluateHandle(() => {
      const made = new DataTransfer()
      for (const name of ['one.png', 'two.png']) made.items.add(new File(['x'], name, { type: 'image/png' }))
      return made
    })
    for (const event of ['dragenter', 'dragover', 'drop']) await page.dispatchEvent('main', event, { dataTransfer: transfer })
    await page.getByText('Drop one photo at a time').waitFor()
  })

  /** Changes the stored document of the first scene of a name. */
  const damage = (name: string, change: string) =>
    page.evaluate(
      ([wanted, code]) =>
        new Promise<void>((resolve, reject) => {
          const request = indexedDB.open('welkinar')
          request.onsuccess = () => {
            const store = request.result.transaction('scenes', 'readwrite').objectStore('scenes')
            store.getAll().onsuccess = (event) => {
              const found = (event.target as IDBRequest<{ document: { name: string; version: unknown; effects: unknown } }[]>).result.find(
                (one) => one.document.name === wanted,
              )!
              if (code === 'version') found.document.version = 99
              else Object.assign(found, { document: { ...found.document, effects: 'gone' }, lastValid: undefined })
              store.put(found).onsuccess = () => resolve()
            }
          }
          request.onerror = () => reject(new Error('no database'))
        }),
      [name, change] as const,
    )

  it('a damaged scene is shown as such, can be saved as a file, and hurts no other', async () => {
    await damage('cut-out', 'effects')
    await page.reload()
    await page.getByText(/This scene is damaged: at effects/).waitFor()
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save what is there as a file' }).click()
    expect((await waiting).suggestedFilename()).toMatch(/\.json$/)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).waitFor()
  })

  it('a scene of a newer version is left alone', async () => {
    await damage('huge', 'version')
    await page.reload()
    await page.getByText('This scene was made by a newer Welkinar (version 99).').waitFor()
  })

  it('an address without a scene says so', async () => {
    await page.goto(new URL('/scene/nothing-here', page.url()).href)
    await page.getByText('There is no scene at this address.').waitFor()
    await page.getByRole('link', { name: 'To the Shelf' }).click()
    await shelfReady(page)
  })

  it.each([
    ['newer.json', '{"format":"welkinar-recipe","version":7}', '“newer.json” was made by a newer Welkinar'],
    ['torn.json', '{"format":', '“torn.json” is not a recipe: it is not valid JSON.'],
    [
      'odd.json',
      '{"format":"welkinar-recipe","version":1,"name":"x","madeFor":{"width":0,"height":5},"effects":[]}',
      '“odd.json” is not a valid recipe: at madeFor.width',
    ],
  ])('the recipe %s is refused and the scene stays as it is', async (name, content, message) => {
    if (!page.url().includes('/scene/')) {
      await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
      await settled(page)
    }
    const chooser = page.waitForEvent('filechooser')
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox', { name: 'Find a command' }).fill('open a recipe')
    await page.keyboard.press('Enter')
    await (await chooser).setFiles({ name, mimeType: 'application/json', buffer: text(content) })
    await problem().getByText(message).waitFor()
    await problem().getByRole('button', { name: 'Close' }).click()
    await page.getByRole('button', { name: /^Rain, Downpour/ }).waitFor()
  })

  it('a number out of range says so and changes nothing', async () => {
    const density = page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: 'Density' })
    const before = await density.inputValue()
    await density.fill('9000')
    await page.getByText('Between 0 and 400, please.').waitFor()
    await density.press('Enter')
    await density.fill('rain')
    await page.getByText('A number is needed here.').waitFor()
    await density.press('Escape')
    await density.blur()
    expect(await density.inputValue()).toBe(before)
  })

  it('no room left: new photos are refused, open work is kept on the screen and saved once there is room', async () => {
    const noRoom = (on: boolean) =>
      page.evaluate((full) => {
        const target = IDBObjectStore.prototype as unknown as { put: unknown; realPut?: unknown }
        target.realPut ??= target.put
        target.put = full
          ? () => {
              throw new DOMException('The quota has been exceeded.', 'QuotaExceededError')
            }
          : target.realPut
      }, on)
    const density = page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: 'Density' })
    const set = async (value: string) => {
      await density.fill(value)
      await density.press('Enter')
    }
    await noRoom(true)
    await set('21')
    await page.getByText('There is no room left in this browser’s storage: the latest changes are only on this screen.').waitFor()
    await noRoom(false)
    await set('22')
    await saved(page)
    await noRoom(true)
    await page.getByRole('link', { name: 'Shelf' }).click()
    await shelfReady(page)
    await dropFile(page, await grey(90, 60).png().toBuffer(), 'late.png', 'image/png')
    await problem().getByText('“late.png” cannot be stored: there is no room left').waitFor()
    await page.reload()
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
    await settled(page)
    expect(await density.inputValue()).toBe('22')
  })
})
