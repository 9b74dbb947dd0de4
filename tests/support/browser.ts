import { readFile } from 'node:fs/promises'
import { chromium, type Browser, type BrowserContext, type Locator, type Page } from 'playwright-core'
import sharp from 'sharp'
import { inject } from 'vitest'
import { appears } from './appears'
import { chromiumPath } from './chromium'

/** Without the browser's own background traffic. */
const quiet = [
  ...['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
  ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
]

/** Debian's Chromium. @param args further options of it */
export function launch(args: readonly string[] = []): Promise<Browser> {
  return chromium.launch({ executablePath: chromiumPath, args: [...quiet, ...args] })
}

/** Debian's Chromium with a profile that stays in a folder. */
export async function launchProfile(folder: string): Promise<BrowserContext> {
  const context = await chromium.launchPersistentContext(folder, {
    executablePath: chromiumPath,
    args: quiet,
    viewport: { width: 1280, height: 800 },
  })
  context.setDefaultTimeout(15_000)
  return context
}

export interface Visit {
  readonly page: Page
  /** What the page complained about. */
  readonly complaints: string[]
}

/** A page of a fresh browser profile at an address of the application, the Shelf without one. */
export async function visit(browser: Browser, path = '/'): Promise<Visit> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true })
  const page = await context.newPage()
  page.setDefaultTimeout(10_000)
  const complaints: string[] = []
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()))
  page.on('pageerror', (error) => complaints.push(error.message))
  await page.goto(`${inject('address')}${path}`)
  return { page, complaints }
}

/** An empty page, for what the browser itself computes. */
export async function emptyPage(browser: Browser): Promise<Page> {
  const page = await browser.newPage()
  await page.setContent('<!doctype html>')
  return page
}

/** The scenes that are on the Shelf at the first start, in their order. */
export const demoNames = [
  'Last crossing, heavy rain',
  'The chart-room lantern',
  'Moorings at midnight',
  'Sun through the trestle',
  'First light on the inlet',
  'Morning like silk',
  'Snow before dark',
  'Low sun, passing shower',
] as const

/** Waits until the Shelf has its scenes. */
export async function shelfReady(page: Page): Promise<void> {
  await appears(page, '[aria-label="Open Last crossing, heavy rain"]')
}

/** Waits until what was just done is on the screen: it is drawn in the frame after. */
export async function drawn(page: Page): Promise<void> {
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(resolve)))))
}

/** Waits until the exact picture is shown. */
export async function settled(page: Page): Promise<void> {
  await appears(page, '[data-testid=picture]')
  await drawn(page)
  await appears(page, '[data-testid=picture][data-settled=true]')
}

/** Waits until everything that was done is stored. */
export async function saved(page: Page): Promise<void> {
  await drawn(page)
  await appears(page, '[data-saved=true]')
}

/** Drops a file on the page as a person would. */
export async function dropFile(page: Page, bytes: Uint8Array, name: string, type: string): Promise<void> {
  const data = await page.evaluateHandle(
    ([base64, fileName, mime]) => {
      const binary = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
      const transfer = new DataTransfer()
      transfer.items.add(new File([binary], fileName, { type: mime }))
      return transfer
    },
    [Buffer.from(bytes).toString('base64'), name, type] as const,
  )
  for (const event of ['dragenter', 'dragover', 'drop']) await page.dispatchEvent('main', event, { dataTransfer: data })
}

/** Drops a photo, and waits for its picture in the Workbench. */
export async function dropPhoto(page: Page, bytes: Uint8Array, name: string, type = 'image/png'): Promise<void> {
  await dropFile(page, bytes, name, type)
  // A raw file takes long to develop on a busy machine.
  await page.waitForURL(/\/scene\//, { timeout: 40_000 })
  await settled(page)
  await appears(page, '[data-testid=picture][data-read=true]')
}

/** Saves the recipe of the open scene by the command list, as a file at a path. */
export async function saveRecipe(page: Page, path: string): Promise<void> {
  const waiting = page.waitForEvent('download')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find a command' }).fill('save the recipe')
  await page.keyboard.press('Enter')
  await (await waiting).saveAs(path)
}

/** Drags from the middle of an element by css px. */
export async function dragBy(page: Page, selector: ReturnType<Page['locator']>, x: number, y: number): Promise<void> {
  const box = await selector.boundingBox()
  if (!box) throw new Error('There is nothing to drag.')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + x / 2, box.y + box.height / 2 + y / 2, { steps: 4 })
  await page.mouse.move(box.x + box.width / 2 + x, box.y + box.height / 2 + y, { steps: 4 })
  await page.mouse.up()
}

/** Red values of the canvas along one row, given as part of its height, over its middle half. */
export function canvasRow(page: Page, y: number): Promise<number[]> {
  return page.locator('[data-testid=picture]').evaluate((canvas, part) => {
    const picture = canvas as HTMLCanvasElement
    const { data } = picture.getContext('2d')!.getImageData(picture.width / 4, Math.round(picture.height * part), picture.width / 2, 1)
    return [...data].filter((_, i) => i % 4 === 0)
  }, y)
}

/** RGBA of the canvas at a place given as parts of its size. */
export function canvasPixel(page: Page, x: number, y: number): Promise<number[]> {
  return page.locator('[data-testid=picture]').evaluate(
    (canvas, [px, py]) => {
      const picture = canvas as HTMLCanvasElement
      const { data } = picture.getContext('2d')!.getImageData(Math.round(picture.width * px), Math.round(picture.height * py), 1, 1)
      return [...data]
    },
    [x, y] as const,
  )
}

/** Adds a starting look at a place of the depth line; the first of its kind that changes something if none is named. */
export async function addEffect(page: Page, place: string, kind: string, look?: string): Promise<void> {
  await page.getByRole('button', { name: `Add an effect: ${place}` }).click()
  await page.getByRole('navigation', { name: 'Kinds of effect' }).getByRole('button', { name: kind, exact: true }).last().click()
  await page
    .getByRole('group', { name: `Looks of ${kind}` })
    .getByRole('button', look === undefined ? { name: /^(?!Neutral)/ } : { name: look, exact: true })
    .first()
    .click()
}

/** Makes the file of the open scene on the Export screen and gives its pixels, interleaved RGB. */
export async function exported(page: Page, format: 'PNG' | 'JPEG' = 'PNG'): Promise<Buffer> {
  await page.getByRole('button', { name: format, exact: true }).click()
  return sharp(await exportedFile(page, format))
    .removeAlpha()
    .raw()
    .toBuffer()
}

/** Makes the file of the open scene on the Export screen, as it is set there. */
export async function exportedFile(page: Page, format = 'PNG'): Promise<Buffer> {
  const waiting = page.waitForEvent('download', { timeout: 60_000 })
  await page.getByRole('button', { name: `Make the ${format} file` }).click()
  return readFile(await (await waiting).path())
}

/** Opens a step of the selected effect. */
export async function openStep(page: Page, name: string): Promise<void> {
  const head = page.getByRole('region', { name, exact: true }).getByRole('button').first()
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click()
}

/** Chooses an entry of a menu. */
export async function choose(page: Page, button: Locator, item: string): Promise<void> {
  await button.click()
  await page.getByRole('menuitem', { name: item, exact: true }).click()
}
