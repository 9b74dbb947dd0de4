import { execFile } from 'node:child_process'
import { mkdtemp, readFile, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, canvasRow, dragBy, dropPhoto, launch, saved, settled, shelfReady, visit, saveRecipe } from './support/browser'

const run = promisify(execFile)
const [width, height] = [1200, 800]
const BOUNDARY = 480

/** Dark wall at the left, bright evening at the right, with texture: a mask can tell them apart without doubt. */
async function wallAndSky(): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 3)
  for (let i = 0; i < width * height; i++) {
    const [x, y] = [i % width, Math.floor(i / width)]
    const texture = ((x * 7 + y * 13) % 9) - 4
    const tone = x < BOUNDARY ? 18 : 120 + Math.round((60 * y) / height)
    pixels.fill(tone + texture, 3 * i, 3 * i + 3)
  }
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer()
}

describe('rain on a photo, from drop to file', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  let photo: Buffer
  let folder: string
  beforeAll(async () => {
    browser = await launch()
    photo = await wallAndSky()
    folder = await mkdtemp(join(tmpdir(), 'welkinar-e2e-'))
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
  })
  afterAll(() => browser.close())

  const field = (label: string) => page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: label, exact: true })
  const slider = (label: string) => page.getByRole('group', { name: 'Dials' }).getByRole('slider', { name: label, exact: true })
  const thumb = (label: string) => slider(label).locator('xpath=..')

  it('opens a dropped photo', async () => {
    await dropPhoto(page, photo, 'wall.png')
    expect(await page.getByRole('textbox', { name: 'Name of the scene' }).inputValue()).toBe('wall')
  })

  it('adds rain from the depth line', async () => {
    const before = await canvasRow(page, 0.5)
    await page.getByRole('button', { name: 'Add an effect: Near' }).click()
    await page.getByRole('button', { name: /Downpour/ }).click()
    await settled(page)
    await page.getByRole('button', { name: /^Rain, Downpour/ }).waitFor()
    const after = await canvasRow(page, 0.5)
    expect(after.filter((v, i) => Math.abs(v - before[i]!) > 4).length).toBeGreaterThan(20)
  })

  it('moves three dials', async () => {
    for (const [label, by] of [
      ['Density', 25],
      ['Length', -15],
      ['Direction', -20],
    ] as const) {
      const before = await field(label).inputValue()
      await dragBy(page, thumb(label), by, 0)
      expect(await field(label).inputValue()).not.toBe(before)
    }
    await settled(page)
  })

  it('shuts the mask over the wall by its handles', async () => {
    await page.getByRole('button', { name: /Where/ }).click()
    await dragBy(page, page.getByRole('slider', { name: 'Full from, tone' }), 30, 0)
    await dragBy(page, page.getByRole('slider', { name: 'Start, tone' }), 62, 0)
    const start = Number(await page.getByRole('slider', { name: 'Start, tone' }).getAttribute('aria-valuenow'))
    const full = Number(await page.getByRole('slider', { name: 'Full from, tone' }).getAttribute('aria-valuenow'))
    expect(start).toBeGreaterThan(15)
    expect(full).toBeLessThan(45)
    const hold = page.getByRole('textbox', { name: 'Hold' })
    await hold.fill('100')
    await hold.press('Enter')
    const feather = page.getByRole('textbox', { name: 'Feather' })
    await feather.fill('0')
    await feather.press('Enter')
    await page.getByRole('button', { name: 'Grey' }).click()
    await settled(page)
    expect((await canvasPixel(page, 0.2, 0.5)).slice(0, 3)).toEqual([0, 0, 0])
    expect((await canvasPixel(page, 0.8, 0.6)).slice(0, 3)).toEqual([255, 255, 255])
    await page.getByRole('button', { name: 'Picture', exact: true }).click()
  })

  it('compares: hold to see before, and a divider that can be moved', async () => {
    await settled(page)
    const after = await canvasRow(page, 0.4)
    await page.keyboard.down('b')
    await settled(page)
    const before = await canvasRow(page, 0.4)
    await page.keyboard.up('b')
    expect(before).not.toEqual(after)
    await settled(page)
    expect(await canvasRow(page, 0.4)).toEqual(after)
    await page.getByRole('button', { name: 'Split' }).click()
    const divider = page.getByRole('slider', { name: /Divider/ })
    const at = Number(await divider.getAttribute('aria-valuenow'))
    await dragBy(page, divider, 120, 0)
    expect(Number(await divider.getAttribute('aria-valuenow'))).toBeGreaterThan(at + 5)
    await page.getByRole('button', { name: 'After', exact: true }).click()
  })

  it('undoes twice, does again once, and all is still there after a reload', async () => {
    const feather = page.getByRole('textbox', { name: 'Feather' })
    const hold = page.getByRole('textbox', { name: 'Hold' })
    await page.getByRole('button', { name: 'Undo' }).click()
    expect(Number.parseFloat(await feather.inputValue())).toBeGreaterThan(0)
    await page.getByRole('button', { name: 'Undo' }).click()
    expect(Number.parseFloat(await hold.inputValue())).toBe(75)
    await page.getByRole('button', { name: 'Redo' }).click()
    expect(Number.parseFloat(await hold.inputValue())).toBe(100)
    const density = await field('Density').inputValue()
    await saved(page)
    await saved(page)
    await page.reload()
    await settled(page)
    expect(await field('Density').inputValue()).toBe(density)
    await page.getByRole('button', { name: /Where/ }).click()
    expect(Number.parseFloat(await hold.inputValue())).toBe(100)
    // The step that was not done again still can be.
    await page.getByRole('button', { name: 'Redo' }).click()
    expect(Number.parseFloat(await feather.inputValue())).toBe(0)
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('button', { name: 'Redo' }).click()
    await saved(page)
  })

  it('exports a PNG that differs from the photo where the mask is open and nowhere else', async () => {
    await page.getByRole('link', { name: 'Export' }).click()
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    const download = await waiting
    expect(download.suggestedFilename()).toBe('wall.png')
    await download.saveAs(join(folder, 'export.png'))
    const found = await sharp(join(folder, 'export.png')).removeAlpha().raw().toBuffer()
    const original = await sharp(photo).removeAlpha().raw().toBuffer()
    expect(found.length).toBe(original.length)
    const changed = { wall: 0, sky: 0 }
    for (let i = 0; i < found.length; i++) if (found[i] !== original[i]) changed[Math.floor(i / 3) % width < BOUNDARY ? 'wall' : 'sky']++
    expect(changed.wall).toBe(0)
    expect(changed.sky).toBeGreaterThan(50_000)
  })

  it('gives the same bytes from the command line', async () => {
    await page.getByRole('link', { name: /Workbench/ }).click()
    await settled(page)
    await saveRecipe(page, join(folder, 'recipe.json'))
    await writeFile(join(folder, 'photo.png'), photo)
    const main = fileURLToPath(new URL('../server/dist/welkinar.js', import.meta.url))
    await run('node', [
      main,
      'render',
      '--photo',
      join(folder, 'photo.png'),
      '--recipe',
      join(folder, 'recipe.json'),
      '--out',
      join(folder, 'line.png'),
    ])
    const [fromPage, fromLine] = await Promise.all(['export.png', 'line.png'].map((name) => readFile(join(folder, name))))
    expect(fromLine!.equals(fromPage!)).toBe(true)
  })

  it('exports a JPEG of the chosen quality', async () => {
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: 'JPEG' }).click()
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Make the JPEG file' }).click()
    const download = await waiting
    const meta = await sharp(await download.path()).metadata()
    expect([meta.format, meta.width, meta.height]).toEqual(['jpeg', width, height])
  })

  it('lays the recipe on another scene, lengths fitted to its photo', async () => {
    const half = await sharp(photo)
      .resize(width / 2, height / 2)
      .png()
      .toBuffer()
    const length = async () => Number.parseFloat(await field('Length').inputValue())
    await page.getByRole('link', { name: /Workbench/ }).click()
    await settled(page)
    const before = await length()
    await page.getByRole('link', { name: 'Shelf' }).click()
    await dropPhoto(page, half, 'small.png')
    const chooser = page.waitForEvent('filechooser')
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox', { name: 'Find a command' }).fill('open a recipe')
    await page.keyboard.press('Enter')
    await (await chooser).setFiles(join(folder, 'recipe.json'))
    await page.getByText('replaced the effects').waitFor()
    expect(Math.abs((await length()) - before / 2)).toBeLessThan(0.06)
  })

  it('cancels an export: nothing is saved, and another can be begun', async () => {
    await page.getByRole('link', { name: 'Shelf' }).click()
    await dropPhoto(page, await sharp(photo).resize(3000, 2000).jpeg().toBuffer(), 'large.jpg', 'image/jpeg')
    await page.getByRole('link', { name: 'Export' }).click()
    let files = 0
    page.on('download', () => files++)
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    await page.getByRole('progressbar').waitFor()
    await page.getByRole('button', { name: 'Cancel' }).click()
    await page.getByRole('button', { name: 'Make the PNG file' }).waitFor()
    // What would come of the first comes before the second.
    const second = page.waitForEvent('download', { timeout: 60_000 })
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    await second
    expect(files).toBe(1)
  })

  it('has nothing to complain about', () => expect(complaints).toEqual([]))
})
