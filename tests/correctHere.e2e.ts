import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dropPhoto, launch, settled, shelfReady, visit } from './support/browser'
import { findings } from './support/axe'
import { drag, fittedPhoto, pngOf, seenOnPhoto, type Place } from './support/photo'

const size = { width: 1200, height: 800 }
const grey = 90
/** What exposure by 0.7 EV makes of the grey: the code of its linear value times 2^0.7, by the curve of sRGB (IEC 61966-2-1). */
const brighter = (() => {
  const linear = ((grey / 255 + 0.055) / 1.055) ** 2.4 * 2 ** 0.7
  return 255 * (1.055 * linear ** (1 / 2.4) - 0.055)
})()

describe('a local correction', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await pngOf(size, () => [grey, grey, grey]), 'grey.png')
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const ring = () => page.getByRole('button', { name: /^Strength of the correction/ })
  const tool = () => page.getByRole('button', { name: 'Correct here: drag across a place of the photo' })
  const seen = async (x: number, y: number): Promise<number> => (await seenOnPhoto(page, size, x, y))[0]!
  const pull = async (across: number, up: number): Promise<void> => {
    const box = (await ring().boundingBox())!
    const from = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    await drag(page, from, { x: from.x + across, y: from.y - up })
  }
  const undo = () => page.getByRole('button', { name: 'Undo' }).click()

  it('takes three actions: the tool, a drag across the place, a pull at its ring; the next one takes two', async () => {
    const { at } = await fittedPhoto(page, size)
    await tool().click()
    await drag(page, at(200, 200), at(500, 500))
    await ring().waitFor()
    await settled(page)
    // Until it is pulled it changes nothing.
    expect(await seen(350, 350)).toBe(grey)
    await pull(0, 70)
    expect(await ring().getAttribute('aria-label')).toMatch(/\+0\.70\sEV, Warmth \+0/)
    await expect.poll(() => seen(350, 350)).toBeGreaterThan(brighter - 2)
    expect(await seen(350, 350)).toBeLessThan(brighter + 2)
    expect(await seen(900, 350)).toBe(grey)
    await drag(page, at(700, 200), at(1000, 500))
    await pull(60, 0)
    expect(await ring().getAttribute('aria-label')).toMatch(/\+0\.00\sEV, Warmth \+20/)
    await settled(page)
    const [red, , blue] = await seenOnPhoto(page, size, 850, 350)
    expect(red! - blue!).toBeGreaterThan(5)
    expect(await page.getByRole('button', { name: /^Adjust/ }).count()).toBeGreaterThanOrEqual(2)
  })

  it('is undone in the steps that it was made in, and its tool is put away by Escape', async () => {
    await undo()
    await expect.poll(() => seenOnPhoto(page, size, 850, 350)).toEqual([grey, grey, grey])
    await undo()
    await undo()
    await expect.poll(() => seen(350, 350)).toBe(grey)
    await page.keyboard.press('Escape')
    expect(await page.getByTestId('correct surface').count()).toBe(0)
    await undo()
  })

  it('is made by keys alone', async () => {
    await page.keyboard.press('e')
    await page.getByTestId('correct surface').waitFor()
    await page.keyboard.press('Enter')
    // A letter goes to the ring.
    await page.keyboard.press('a')
    for (let i = 0; i < 14; i++) await page.keyboard.press('ArrowUp')
    expect(await ring().getAttribute('aria-label')).toMatch(/\+0\.70\sEV/)
    await expect.poll(() => seen(600, 400)).toBeGreaterThan(brighter - 2)
    // A run of keys is one step.
    await undo()
    await expect.poll(() => seen(600, 400)).toBe(grey)
  })

  it.each(['pen', 'finger'] as const)('is made by a %s: a drag across the place, a pull at its ring', async (hand) => {
    const client = await page.context().newCDPSession(page)
    const send = async (type: 'down' | 'move' | 'up', { x, y }: Place): Promise<void> => {
      if (hand === 'finger') {
        const touches = { down: 'touchStart', move: 'touchMove', up: 'touchEnd' } as const
        await client.send('Input.dispatchTouchEvent', { type: touches[type], touchPoints: type === 'up' ? [] : [{ x, y, id: 0 }] })
      } else {
        const presses = { down: 'mousePressed', move: 'mouseMoved', up: 'mouseReleased' } as const
        const pressed = { button: 'left', buttons: type === 'up' ? 0 : 1, clickCount: 1, pointerType: 'pen', force: 0.5 } as const
        await client.send('Input.dispatchMouseEvent', { type: presses[type], x, y, ...pressed })
      }
    }
    const go = async (from: Place, to: Place): Promise<void> => {
      await send('down', from)
      for (const part of [0.3, 0.7, 1]) await send('move', { x: from.x + part * (to.x - from.x), y: from.y + part * (to.y - from.y) })
      await send('up', to)
    }
    const { at } = await fittedPhoto(page, size)
    if ((await page.getByTestId('correct surface').count()) === 0) await page.keyboard.press('e')
    const [x, y] = hand === 'pen' ? [200, 600] : [900, 600]
    await go(at(x - 160, y - 160), at(x + 160, y + 160))
    const middleOfRing = async (): Promise<Place> => {
      const box = (await ring().boundingBox())!
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    }
    // The ring of the new one, not of the one before.
    const away = async (): Promise<number> => {
      const [there, here] = [at(x, y), await middleOfRing()]
      return Math.hypot(there.x - here.x, there.y - here.y)
    }
    await expect.poll(away).toBeLessThan(40)
    const middle = await middleOfRing()
    await go(middle, { x: middle.x, y: middle.y - 70 })
    expect(await ring().getAttribute('aria-label')).toMatch(/\+0\.70\sEV/)
    await expect.poll(() => seen(x, y), { timeout: 5000 }).toBeGreaterThan(brighter - 2)
    expect(await seen(x, y)).toBeLessThan(brighter + 2)
  })

  it('each shape and each way of painting is offered, without a finding', async () => {
    expect(await findings(page)).toEqual([])
    await page.getByRole('group', { name: 'Shape of the next correction' }).getByRole('button', { name: 'Brush' }).click()
    const { at } = await fittedPhoto(page, size)
    const count = () => page.getByRole('button', { name: /^Adjust/ }).count()
    const before = await count()
    // Strokes go on in the correction that is painted; the next one is begun by its button.
    for (const x of [300, 400]) await drag(page, at(x, 200), at(x, 300))
    await page.getByRole('button', { name: 'Next one' }).click()
    await drag(page, at(1000, 200), at(1000, 300))
    await expect.poll(count).toBe(before + 2)
    await page.getByRole('group', { name: 'Shape of the next correction' }).getByRole('button', { name: 'Ellipse' }).click()
  })

  it('a press without a drag makes nothing', async () => {
    const { at } = await fittedPhoto(page, size)
    const before = await page.getByRole('button', { name: /^Adjust/ }).count()
    await page.mouse.click(at(100, 700).x, at(100, 700).y)
    expect(await page.getByRole('button', { name: /^Adjust/ }).count()).toBe(before)
  })
})
