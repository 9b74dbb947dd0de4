import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, drawn, dropFile, dropPhoto, launch, saved, settled, shelfReady, visit } from './support/browser'

const size = { width: 1500, height: 1000 }
const HORIZON = 370

/** A made-up photo of the sea: a sky with the sun in it, a horizon at 37 % of the height, waves. */
async function sea(): Promise<Buffer> {
  const pixels = Buffer.alloc(size.width * size.height * 3)
  let state = 3
  for (let i = 0; i < size.width * size.height; i++) {
    const [x, y] = [i % size.width, Math.floor(i / size.width)]
    state = (Math.imul(state, 1664525) + 1013904223) | 0
    const noise = (state >>> 24) / 255 - 0.5
    const sun = 120 * Math.exp(-((x - 1000) ** 2 + (y - 200) ** 2) / 9000)
    const tone = y < HORIZON ? 150 + sun - 0.05 * y + 3 * noise : 70 + 30 * noise
    pixels.set(
      [tone * 0.95, tone, Math.min(255, tone * 1.1)].map((v) => Math.min(255, Math.max(0, v))),
      3 * i,
    )
  }
  return sharp(pixels, { raw: { ...size, channels: 3 } })
    .jpeg({ quality: 95 })
    .toBuffer()
}

/** Notes what is on the screen, and where, when the photo that is being opened is first seen. */
function watchOpening(page: Page): Promise<void> {
  return page.evaluate(() => {
    const watch = new MutationObserver(() => {
      const picture = document.querySelector('[data-testid=opening]')
      if (!picture) return
      watch.disconnect()
      const { x, y, width, height } = picture.getBoundingClientRect()
      Object.assign(globalThis, { before: document.body.textContent, box: { x, y, width, height } })
    })
    watch.observe(document, { subtree: true, childList: true })
  })
}

describe('somebody new, with a photo in which nothing is marked', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await watchOpening(page)
    await dropPhoto(page, await sea(), 'sea.jpg', 'image/jpeg')
  })
  afterAll(() => browser.close())

  const at = async (x: number, y: number) => {
    await settled(page)
    return (await canvasPixel(page, x, y))[0]!
  }
  const add = (place: string) => page.getByRole('button', { name: `Add an effect: ${place}` }).click()
  const look = (name: string) => page.getByRole('button', { name, exact: true })
  const undo = () => page.getByRole('button', { name: 'Undo' })

  it('sees the photo while it is being opened, where it then is', async () => {
    const { before, box } = await page.evaluate(() => {
      const { before, box } = globalThis as unknown as { before: string; box: DOMRect }
      return { before, box }
    })
    expect(before).toContain('Opening the photo')
    const view = (await page.locator('[data-testid=picture]').boundingBox())!
    expect([box.x, box.y, box.width, box.height].map(Math.round)).toEqual([view.x, view.y, view.width, view.height].map(Math.round))
    expect(await page.getByTestId('opening').count()).toBe(0)
  })

  it('sees the photo as the largest thing: 57 % of the window with the panel, 72 % without panel and line', async () => {
    const part = async () => {
      await settled(page)
      const zoom = Number.parseFloat((await page.getByRole('button', { name: /^Zoom, / }).textContent()) ?? '') / 100
      return (zoom * size.width * zoom * size.height) / (1280 * 800)
    }
    expect(await part()).toBeGreaterThan(0.56)
    await page.keyboard.press('h')
    await page.keyboard.press('y')
    await drawn(page)
    expect(await part()).toBeGreaterThan(0.72)
    await page.keyboard.press('h')
    await page.getByRole('button', { name: /^Depth line/ }).click()
    expect(await part()).toBeLessThan(0.6)
  })

  it('points at a look and sees it, with nothing done yet; choosing it is one step', async () => {
    const before = await at(0.1, 0.33)
    const near = await at(0.1, 0.95)
    await add('Far')
    await look('Grey day').hover()
    await expect.poll(() => at(0.1, 0.33)).not.toBe(before)
    expect(await undo().isDisabled()).toBe(true)
    // The distance is hazy, not what lies at one's feet.
    expect(Math.abs((await at(0.1, 0.95)) - near)).toBeLessThan(25)
    await page.mouse.move(400, 400)
    await expect.poll(() => at(0.1, 0.33)).toBe(before)
    await look('Grey day').focus()
    await expect.poll(() => at(0.1, 0.33)).not.toBe(before)
    await page.keyboard.press('Escape')
    await expect.poll(() => at(0.1, 0.33)).toBe(before)
    await add('Far')
    await look('Grey day').click()
    await page.getByRole('heading', { name: 'Haze', exact: true }).waitFor()
    await expect.poll(() => at(0.1, 0.33)).not.toBe(before)
    await add('Near')
    expect(await page.getByRole('group', { name: 'Used last' }).innerText()).toMatch(/Haze$/)
    await page.getByRole('button', { name: 'Close' }).click()
    await undo().click()
    await expect.poll(() => at(0.1, 0.33)).toBe(before)
    expect(await undo().isDisabled()).toBe(true)
  })

  it('finds looks by typing, also by words that are not their names, and what shines begins at the sun', async () => {
    await add('Lens')
    const find = page.getByRole('textbox', { name: 'Find a look' })
    await find.fill('sunset')
    await look('Behind the ridge').waitFor()
    await find.fill('nothing of this kind')
    await page.getByText('Nothing found').waitFor()
    await find.fill('starburst')
    await look('Sun between posts').click()
    await page.getByRole('heading', { name: 'Sunburst', exact: true }).waitFor()
    await expect.poll(() => at(1000 / 1500, 0.2)).toBeGreaterThan(230)
    await undo().click()
  })

  it('finds in the marks what was read, dismisses it, takes it, and has it after a reload', async () => {
    await page.keyboard.press('g')
    const reading = page.getByRole('region', { name: 'Read from the photo' })
    await reading.getByText('A horizon, 37 % down').waitFor()
    await reading.getByText('A sky, along its edges').waitFor()
    await reading.getByText('A light, 20 % down').waitFor()
    const onPhoto = page.getByRole('main').getByText('Horizon, as read')
    await onPhoto.waitFor()
    await page.getByRole('main').getByText('Light, as read').waitFor()
    await reading.getByRole('button', { name: 'Dismiss the horizon' }).click()
    await reading.getByText('No horizon was found').waitFor()
    expect(await onPhoto.count()).toBe(0)
    await reading.getByRole('button', { name: 'Read again' }).click()
    await reading.getByText('A horizon, 37 % down').waitFor()
    for (let i = 0; i < 2; i++) await undo().click()
    await reading.getByText('A horizon, 37 % down').waitFor()
    await reading.getByRole('button', { name: 'Take the horizon as a mark' }).click()
    await reading.getByText('The horizon is marked by hand').waitFor()
    await reading.getByRole('button', { name: 'Take the light as a mark' }).click()
    await reading.getByText('Lights are marked by hand').waitFor()
    await page.getByRole('group', { name: 'Light 1' }).waitFor()
    expect(await page.getByRole('main').getByText('Light, as read').count()).toBe(0)
    await saved(page)
    await page.reload()
    await settled(page)
    await page.keyboard.press('g')
    await reading.getByText('The horizon is marked by hand').waitFor()
  })

  it('has no photo read once that is switched off; what is read later changes an effect only as a step', async () => {
    const reading = page.getByRole('region', { name: 'Read from the photo' })
    await reading.getByRole('switch', { name: 'Read new photos on opening' }).click()
    await page.getByRole('link', { name: 'Shelf' }).click()
    await shelfReady(page)
    await dropFile(page, await sea(), 'sea again.jpg', 'image/jpeg')
    await page.waitForURL(/\/scene\//)
    await add('Far')
    await look('Grey day').click()
    const unread = await at(0.1, 0.33)
    await page.keyboard.press('g')
    await reading.getByText('The photo has not been read yet.').waitFor()
    await reading.getByRole('button', { name: 'Read the photo' }).click()
    await reading.getByText('A horizon, 37 % down').waitFor()
    await expect.poll(() => at(0.1, 0.33)).not.toBe(unread)
    await undo().click()
    await expect.poll(() => at(0.1, 0.33)).toBe(unread)
    await reading.getByText('No horizon was found').waitFor()
    await page.getByRole('button', { name: 'Redo' }).click()
    await reading.getByText('A horizon, 37 % down').waitFor()
    await reading.getByRole('switch', { name: 'Read new photos on opening' }).click()
    expect(complaints).toEqual([])
  })
})
