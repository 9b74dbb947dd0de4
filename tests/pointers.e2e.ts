import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { addEffect, dropPhoto, launch, openStep, saved, settled, shelfReady, visit } from './support/browser'
import { storedIn } from './support/database'
import { drag, fittedPhoto, pngOf } from './support/photo'

// What a hand on the photo expects: tools act on what is there when they are used, a mirrored view moves as it is seen, a double click goes to the place.

const size = { width: 900, height: 600 }
/** Grey that differs everywhere, with a red spot. */
const spot = { x: 700, y: 150, half: 6 }
const photo = (): Promise<Buffer> =>
  pngOf(size, (x, y) =>
    Math.abs(x - spot.x) <= spot.half && Math.abs(y - spot.y) <= spot.half
      ? [230, 20, 20]
      : Array<number>(3).fill(60 + ((x * 7 + y * 13 + ((x * y) % 37)) % 120)),
  )

/** Colours of what is on the screen about a place, row by row. */
async function seen(page: Page, { x, y }: { readonly x: number; readonly y: number }, half = 20): Promise<Buffer> {
  await settled(page)
  const clip = { x: Math.round(x) - half, y: Math.round(y) - half, width: 2 * half, height: 2 * half }
  return sharp(await page.screenshot({ clip }))
    .removeAlpha()
    .raw()
    .toBuffer()
}

describe('the hand on the photo', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await photo(), 'spot.png')
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const exposure = () => page.getByRole('complementary', { name: 'Photo' }).getByRole('textbox', { name: 'Exposure', exact: true })

  it('white balance that is taken from the photo keeps what was changed while the dropper waited', async () => {
    await page.keyboard.press('f')
    await page.getByRole('button', { name: 'Grey: Pick from the photo' }).click()
    await exposure().fill('1')
    await exposure().press('Enter')
    const { at } = await fittedPhoto(page, size)
    await page.mouse.click(at(300, 300).x, at(300, 300).y)
    await page.getByRole('button', { name: 'Grey: Pick from the photo', pressed: false }).waitFor()
    expect(Number.parseFloat(await exposure().inputValue())).toBe(1)
    await page.getByRole('button', { name: 'Reset', exact: true }).click()
    await page.keyboard.press('f')
  })

  it('a double click shows the pixels of the place, and all of the photo again', async () => {
    const { at } = await fittedPhoto(page, size)
    const place = at(spot.x, spot.y)
    await page.mouse.dblclick(place.x, place.y)
    await page.getByRole('button', { name: 'Zoom, 100 %' }).waitFor()
    const [red = 0, green = 0] = await seen(page, place, 1)
    expect([red > 200, green < 60]).toEqual([true, true])
    await page.mouse.dblclick(place.x, place.y)
    await expect.poll(() => page.getByRole('button', { name: 'Zoom, 100 %' }).count()).toBe(0)
  })

  it('a mirrored photo follows the hand, and the wheel keeps the place under it', async () => {
    await page.keyboard.press('i')
    const { at } = await fittedPhoto(page, size)
    const mirrored = at(size.width - spot.x, spot.y)
    await page.mouse.dblclick(mirrored.x, mirrored.y)
    await page.getByRole('button', { name: 'Zoom, 100 %' }).waitFor()
    expect((await seen(page, mirrored, 1))[0]).toBeGreaterThan(200)
    await drag(page, { x: mirrored.x + 60, y: mirrored.y + 60 }, { x: mirrored.x + 110, y: mirrored.y + 90 })
    const after = { x: mirrored.x + 50, y: mirrored.y + 30 }
    expect((await seen(page, after, 1))[0]).toBeGreaterThan(200)
    await page.mouse.move(after.x, after.y)
    await page.mouse.wheel(0, -300)
    await expect.poll(() => page.getByRole('button', { name: 'Zoom, 100 %' }).count()).toBe(0)
    expect((await seen(page, after, 1))[0]).toBeGreaterThan(200)
    await page.keyboard.press('w')
    await page.keyboard.press('i')
  })

  it('strokes that keep to edges are laid in the order in which they were painted', async () => {
    await addEffect(page, 'Near', 'Rain')
    await openStep(page, 'Where')
    await page.getByRole('button', { name: 'Add a mask' }).click()
    await page.getByRole('menuitem', { name: 'Brush' }).click()
    await page.getByRole('checkbox', { name: 'Stops at edges' }).check()
    const { at } = await fittedPhoto(page, size)
    await drag(page, at(100, 100), at(800, 300), at(100, 500), at(800, 500))
    for (const x of [200, 400]) await drag(page, at(x, 300), at(x + 8, 300))
    await page.getByText('3 strokes').waitFor()
    await saved(page)
    const [scene] = (await storedIn(page, 'scenes')).filter(({ document }) => (document as { name: string }).name === 'spot')
    type Masked = { effects: { where: { masks: { strokes?: { points: number[] }[] }[] } }[] }
    const { strokes } = (scene!['document'] as Masked).effects[0]!.where.masks.find((mask) => mask.strokes)!
    const near = strokes!.map(({ points: [x = 0] }) => Math.round(x / 100))
    expect(near).toEqual([1, 2, 4])
    await page.keyboard.press('Escape')
  })

  it('a name may be empty while it is typed; only the main button places a mark', async () => {
    await page.keyboard.press('g')
    await page.getByRole('button', { name: 'Tap a light' }).click()
    const { at } = await fittedPhoto(page, size)
    await page.mouse.click(at(500, 200).x, at(500, 200).y, { button: 'middle' })
    await page.mouse.click(at(300, 200).x, at(300, 200).y)
    const names = page.getByRole('textbox', { name: 'Name of the light' })
    await names.first().waitFor()
    expect(await names.count()).toBe(1)
    await names.fill('')
    expect(await names.inputValue()).toBe('')
    await names.pressSequentially('Sun')
    await names.press('Enter')
    await page.getByRole('group', { name: 'Sun' }).waitFor()
    await names.fill('')
    await names.press('Escape')
    expect(await names.inputValue()).toBe('Sun')
    await page.keyboard.press('g')
  })

  it('leaving at once saves first; where that fails it is asked', async () => {
    await page.keyboard.press('h')
    await page.keyboard.press('h')
    await page.evaluate(() => {
      const { put } = IDBObjectStore.prototype
      Object.assign(window, { giveRoom: () => (IDBObjectStore.prototype.put = put) })
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('full', 'QuotaExceededError')
      }
    })
    await page.keyboard.press('o')
    await page.getByRole('link', { name: 'Shelf' }).click()
    const question = page.getByRole('dialog', { name: 'Leaving the scene' })
    await question.getByRole('button', { name: 'Stay' }).click()
    await page.evaluate(() => (window as unknown as { giveRoom(): void }).giveRoom())
    await saved(page)
    await page.keyboard.press('o')
    await page.getByRole('link', { name: 'Shelf' }).click()
    await page.getByRole('link', { name: 'Open spot' }).click()
    await settled(page)
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+z')
    await expect.poll(() => page.getByRole('button', { name: 'Redo' }).isEnabled()).toBe(true)
  })
})

it('on a screen of two pixels to one, 1:1 is a pixel of the screen for each of the photo', async () => {
  const browser = await launch()
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 2 })
  const page = await context.newPage()
  await page.goto(inject('address'))
  await shelfReady(page)
  await page.getByRole('link', { name: 'Open Low sun, passing shower' }).click()
  await settled(page)
  await page.getByTestId('picture').dblclick()
  await page.getByRole('button', { name: 'Zoom, 100 %' }).waitFor()
  // So is the field in its studio.
  await addEffect(page, 'Middle', 'Custom field', 'Scan lines')
  await openStep(page, 'Pattern')
  await page.getByRole('link', { name: 'Open the Field studio' }).click()
  const field = page.getByRole('img', { name: 'The field', exact: true })
  const drawnField = () =>
    field.evaluate((element) => {
      const canvas = element as HTMLCanvasElement
      return { picture: canvas.toDataURL(), pixels: canvas.width / canvas.clientWidth }
    })
  // A canvas that nothing was drawn on yet has another size.
  await expect.poll(async () => (await drawnField()).pixels).toBeCloseTo(2, 1)
  const fitted = await drawnField()
  await page.getByRole('button', { name: '1:1' }).click()
  await expect.poll(async () => (await drawnField()).picture).not.toBe(fitted.picture)
  expect((await drawnField()).pixels).toBeCloseTo(2, 1)
  await browser.close()
})
