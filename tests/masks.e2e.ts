import type { Browser, Locator, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, dragBy, dropFile, launch, saved, settled, shelfReady, visit } from './support/browser'

const [width, height] = [1200, 800]

/** From black at the left to white at the right, so that a mask by tones can be told from its place. */
async function ramp(): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 3)
  for (let i = 0; i < width * height; i++) pixels.fill(Math.round((255 * (i % width)) / (width - 1)), 3 * i, 3 * i + 3)
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer()
}

/** Css px of a place of the photo, given as parts of its size, on the page. */
async function onPhoto(page: Page, x: number, y: number): Promise<{ x: number; y: number }> {
  const box = (await page.locator('[data-testid=picture]').boundingBox())!
  const margin = 8
  const zoom = Math.min((box.width - 2 * margin) / width, (box.height - 2 * margin) / height)
  return { x: box.x + box.width / 2 + (x - 0.5) * width * zoom, y: box.y + box.height / 2 + (y - 0.5) * height * zoom }
}

/** Grey 0-255 that the view shows at a place of the photo. */
async function greyAt(page: Page, x: number, y: number): Promise<number> {
  await settled(page)
  const box = (await page.locator('[data-testid=picture]').boundingBox())!
  const at = await onPhoto(page, x, y)
  return (await canvasPixel(page, (at.x - box.x) / box.width, (at.y - box.y) / box.height))[0]!
}

async function paint(page: Page, ...places: (readonly [number, number])[]): Promise<void> {
  const [first, ...rest] = await Promise.all(places.map(([x, y]) => onPhoto(page, x, y)))
  await page.mouse.move(first!.x, first!.y)
  await page.mouse.down()
  for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 6 })
  await page.mouse.up()
}

/** One pen stroke straight across, its pressure from 0.2 to 1, through the browser's own input. */
async function penStroke(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const [a, b] = await Promise.all([onPhoto(page, ...from), onPhoto(page, ...to)])
  const client = await page.context().newCDPSession(page)
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', t: number) =>
    client.send('Input.dispatchMouseEvent', {
      type,
      x: a.x + t * (b.x - a.x),
      y: a.y + t * (b.y - a.y),
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
      force: 0.2 + 0.8 * t,
    })
  await send('mousePressed', 0)
  for (let i = 1; i <= 20; i++) await send('mouseMoved', i / 20)
  await send('mouseReleased', 1)
}

const menu = async (page: Page, button: Locator, item: string): Promise<void> => {
  await button.click()
  await page.getByRole('menuitem', { name: item, exact: true }).click()
}

describe('masks, built and painted in the Workbench', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  let photo: Buffer
  beforeAll(async () => {
    browser = await launch()
    photo = await ramp()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropFile(page, photo, 'ramp.png', 'image/png')
    await page.waitForURL(/\/scene\//)
    await page.getByRole('button', { name: 'Add an effect: Near' }).click()
    await page.getByRole('button', { name: /Downpour/ }).click()
    await page.getByRole('region', { name: 'Where' }).getByRole('button').first().click()
  })
  afterAll(() => browser.close())

  const list = () => page.getByRole('list', { name: 'Masks' })
  const addMask = (kind: string) => menu(page, page.getByRole('button', { name: 'Add a mask' }), kind)
  const show = (view: string) => page.getByRole('group', { name: 'Show' }).getByRole('button', { name: view }).click()
  const field = (name: string) => page.getByRole('region', { name: 'Where' }).getByRole('textbox', { name, exact: true })

  describe('midtones, a little wider, less the brights, less what is painted, at 70 % hold, read from before the effect', () => {
    it('is built with mouse and keyboard', async () => {
      await menu(page, page.getByRole('button', { name: 'More about mask 1' }), 'Remove')
      await addMask('Luminosity')
      await page.getByRole('button', { name: 'Midtones', exact: true }).click()
      await page.getByRole('button', { name: 'Wider' }).click()
      await addMask('Luminosity')
      await page.getByRole('button', { name: 'Tighter' }).click()
      await addMask('Brush')
      await field('Size').fill('160')
      await field('Size').press('Enter')
      await paint(page, [0.5, 0.2], [0.5, 0.4])
      await field('Hold').fill('70')
      await field('Hold').press('Enter')
      await show('Grey')
      // Mids of steepness -1: 1 - (1 - 4 t (1 - t))²; brights of steepness 1: t². Hold lets 30 % through.
      const expected = (t: number) => 0.3 + 0.7 * Math.max(0, 1 - (1 - 4 * t * (1 - t)) ** 2 - t * t)
      for (const t of [0.1, 0.3, 0.5, 0.7, 0.95])
        expect(Math.abs((await greyAt(page, t, 0.7)) / 255 - expected(t)), `tone ${t}`).toBeLessThan(0.02)
      expect(Math.abs((await greyAt(page, 0.5, 0.3)) / 255 - 0.3)).toBeLessThan(0.02)
      expect(await page.getByRole('region', { name: 'Where' }).innerText()).toContain('midtones less highlights less painted; hold 70 %')
    })

    it('a mask can be looked at alone, and the effect without it', async () => {
      await page.getByRole('group', { name: 'Which masks are shown' }).getByRole('button', { name: 'One' }).click()
      expect(await greyAt(page, 0.5, 0.3)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.5, 0.7)).toBeLessThan(5)
      await page.keyboard.down('n')
      expect(await greyAt(page, 0.5, 0.7)).toBeGreaterThan(250)
      await page.keyboard.up('n')
      expect(await greyAt(page, 0.5, 0.7)).toBeLessThan(5)
      await page.getByRole('group', { name: 'Which masks are shown' }).getByRole('button', { name: 'All' }).click()
    })

    it('can read a pinned state, which survives a reload, undo and a recipe', async () => {
      await list().getByRole('button', { name: 'midtones', exact: true }).click()
      const before = await greyAt(page, 0.3, 0.7)
      await page.getByRole('combobox', { name: 'Tones from' }).click()
      await page.getByRole('option', { name: 'Pin what lies beneath now' }).click()
      expect(await page.getByRole('combobox', { name: 'Tones from' }).innerText()).toContain('Beneath Downpour, pinned 1')
      expect(Math.abs((await greyAt(page, 0.3, 0.7)) - before)).toBeLessThan(2)
      await saved(page)
      await page.reload()
      await page.getByRole('region', { name: 'Where' }).getByRole('button').first().click()
      expect(await page.getByRole('combobox', { name: 'Tones from' }).innerText()).toContain('pinned 1')
      await page.getByRole('button', { name: 'Undo' }).click()
      expect(await page.getByRole('combobox', { name: 'Tones from' }).innerText()).toBe('The photo')
      await page.getByRole('button', { name: 'Redo' }).click()
      expect(await page.getByRole('combobox', { name: 'Tones from' }).innerText()).toContain('pinned 1')
      const download = page.waitForEvent('download')
      await page.keyboard.press('Control+k')
      await page.getByRole('option', { name: /Save the recipe/ }).click()
      const recipe = JSON.parse(await readAll(await download)) as {
        pinned: { id: string }[]
        effects: { where: { masks: { pinned?: string }[] } }[]
      }
      expect(recipe.pinned).toHaveLength(1)
      expect(recipe.effects[0]!.where.masks[0]!.pinned).toBe(recipe.pinned[0]!.id)
    })

    it('a pinned state that was removed is said to be gone, and the mask reads the photo', async () => {
      await page.getByRole('button', { name: 'Marks', exact: true }).click()
      await page.getByRole('button', { name: 'Remove Beneath Downpour, pinned 1' }).click()
      await page.getByRole('button', { name: 'Done' }).click()
      await page.getByText('Its pinned state is gone; it reads the photo instead.').waitFor()
      await page.getByRole('button', { name: 'Undo' }).click()
      await page.getByText('Its pinned state is gone').waitFor({ state: 'detached' })
    })
  })

  describe('the list', () => {
    it('takes another order by dragging, names and copies', async () => {
      await dragBy(page, page.getByRole('button', { name: 'Move mask 3' }), 0, -80)
      await page.waitForFunction(() => document.querySelector('[role=list] [role=listitem]')?.textContent?.includes('painted'))
      await list().getByRole('button', { name: 'painted', exact: true }).dblclick()
      await page.getByRole('textbox', { name: 'Name of the mask' }).fill('the wall')
      await page.keyboard.press('Enter')
      await list().getByRole('button', { name: 'the wall', exact: true }).waitFor()
      await menu(page, page.getByRole('button', { name: 'More about mask 1' }), 'Duplicate')
      expect(await list().getByRole('listitem').count()).toBe(4)
      await page.keyboard.press('Control+z')
      await page.keyboard.press('Control+z')
      await page.keyboard.press('Control+z')
      expect(await list().getByRole('listitem').first().innerText()).toContain('midtones')
    })

    it('follows quick choices with the picture, and leaves everything as it was', async () => {
      await show('Grey')
      await list().getByRole('button', { name: 'midtones', exact: true }).click()
      const before = await greyAt(page, 0.1, 0.7)
      await page.getByRole('button', { name: 'Try them in pictures' }).click()
      await page.getByRole('button', { name: 'Shadows, plain', exact: true }).hover()
      await expect.poll(() => greyAt(page, 0.1, 0.7)).toBeGreaterThan(before + 30)
      await page.mouse.move(5, 5)
      await expect.poll(() => greyAt(page, 0.1, 0.7)).toBe(before)
      await page.getByRole('button', { name: 'Highlights, widest', exact: true }).focus()
      for (const key of ['ArrowUp', 'ArrowUp', 'ArrowRight', 'ArrowRight']) await page.keyboard.press(key)
      await expect.poll(() => page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe('Shadows, plain')
      await expect.poll(() => greyAt(page, 0.1, 0.7)).toBeGreaterThan(before + 30)
      await page.getByRole('button', { name: 'Try them in pictures' }).click()
      await expect.poll(() => greyAt(page, 0.1, 0.7)).toBe(before)
    })
  })

  describe('a brush', () => {
    it('paints with the pressure of a pen, stroke by stroke undone across a reload', async () => {
      for (let i = await list().getByRole('listitem').count(); i > 0; i--)
        await menu(page, page.getByRole('button', { name: 'More about mask 1' }), 'Remove')
      await addMask('Brush')
      // Of weather what is painted is what is spared; turned over it is kept.
      const sense = (name: string) => page.getByRole('group', { name: 'What painting does' }).getByRole('button', { name })
      expect(await sense('Not here').getAttribute('aria-pressed')).toBe('true')
      await page.keyboard.press('z')
      expect(await sense('Only here').getAttribute('aria-pressed')).toBe('true')
      await field('Size').fill('200')
      await field('Size').press('Enter')
      await field('Hardness').fill('90')
      await field('Hardness').press('Enter')
      await field('Hold').fill('100')
      await field('Hold').press('Enter')
      await show('Grey')
      await penStroke(page, [0.1, 0.3], [0.9, 0.3])
      await penStroke(page, [0.1, 0.8], [0.9, 0.8])
      expect(await page.getByText('2 strokes').count()).toBe(1)
      // 70 px off the middle a stroke 200 px wide is open where it is pressed hard, and shut where it begins.
      expect(await greyAt(page, 0.85, 0.3 + 70 / height)).toBeGreaterThan(200)
      expect(await greyAt(page, 0.15, 0.3 + 70 / height)).toBeLessThan(20)
      expect(await greyAt(page, 0.15, 0.3)).toBeGreaterThan(200)
      await saved(page)
      await page.reload()
      await page.getByRole('region', { name: 'Where' }).getByRole('button').first().click()
      await show('Grey')
      expect(await greyAt(page, 0.5, 0.8)).toBeGreaterThan(200)
      await page.keyboard.press('Control+z')
      expect(await greyAt(page, 0.5, 0.8)).toBeLessThan(5)
      expect(await greyAt(page, 0.5, 0.3)).toBeGreaterThan(200)
      await page.keyboard.press('Control+z')
      expect(await greyAt(page, 0.5, 0.3)).toBeLessThan(5)
      await page.keyboard.press('Control+Shift+z')
      expect(await greyAt(page, 0.5, 0.3)).toBeGreaterThan(200)
    })

    it('shows the whole stroke while the pen is down, also when several moves come in one event', async () => {
      await page.getByRole('button', { name: 'Paint', exact: true }).click()
      const [start, corner, end] = await Promise.all([onPhoto(page, 0.2, 0.55), onPhoto(page, 0.45, 0.95), onPhoto(page, 0.7, 0.55)])
      await page.mouse.move(start.x, start.y)
      await page.mouse.down()
      await page.getByTestId('brush surface').evaluate(
        (surface, places) => {
          const moves = places.map(([x, y]) => new PointerEvent('pointermove', { clientX: x, clientY: y, pointerId: 1, bubbles: true }))
          const last = places.at(-1)!
          surface.dispatchEvent(
            new PointerEvent('pointermove', { clientX: last[0], clientY: last[1], pointerId: 1, bubbles: true, coalescedEvents: moves }),
          )
        },
        [
          [(start.x + corner.x) / 2, (start.y + corner.y) / 2],
          [corner.x, corner.y],
          [(corner.x + end.x) / 2, (corner.y + end.y) / 2],
          [end.x, end.y],
        ] as [number, number][],
      )
      const along = [0.25, 0.5, 0.75].flatMap((t) => [
        [0.2 + 0.25 * t, 0.55 + 0.4 * t],
        [0.45 + 0.25 * t, 0.95 - 0.4 * t],
      ])
      for (const [x, y] of along) await expect.poll(() => greyAt(page, x!, y!), { message: `${x}` }).toBeGreaterThan(200)
      await page.mouse.up()
      for (const [x, y] of along) expect(await greyAt(page, x!, y!), `${x}`).toBeGreaterThan(200)
      await page.getByRole('button', { name: 'Undo' }).click()
    })

    it('draws straight with Shift, erases, and moves the photo with Space', async () => {
      const [a, b, bend] = await Promise.all([onPhoto(page, 0.2, 0.6), onPhoto(page, 0.8, 0.6), onPhoto(page, 0.5, 0.95)])
      await page.mouse.move(a.x, a.y)
      await page.keyboard.down('Shift')
      await page.mouse.down()
      await page.mouse.move(bend.x, bend.y, { steps: 5 })
      await page.mouse.move(b.x, b.y, { steps: 5 })
      await page.mouse.up()
      await page.keyboard.up('Shift')
      expect(await greyAt(page, 0.5, 0.6)).toBeGreaterThan(200)
      expect(await greyAt(page, 0.5, 0.92)).toBeLessThan(5)
      await page.keyboard.press('r')
      await paint(page, [0.45, 0.6], [0.55, 0.6])
      expect(await greyAt(page, 0.5, 0.6)).toBeLessThan(5)
      const before = await page.getByText(/strokes?$/).innerText()
      await page.keyboard.down('Space')
      await paint(page, [0.5, 0.5], [0.6, 0.6])
      await page.keyboard.up('Space')
      expect(await page.getByText(/strokes?$/).innerText()).toBe(before)
      await page.keyboard.press('w')
      await page.keyboard.press('r')
    })
  })

  describe('handles on the photo', () => {
    const only = async (kind: string) => {
      for (let i = await list().getByRole('listitem').count(); i > 0; i--)
        await menu(page, page.getByRole('button', { name: 'More about mask 1' }), 'Remove')
      await addMask(kind)
      await show('Grey')
    }
    const handle = (name: string) => page.getByRole('button', { name: `${name}. Arrow keys move it.` })

    it('an ellipse is moved, widened and turned; far outside the frame too', async () => {
      await only('Ellipse')
      expect(await greyAt(page, 0.5, 0.5)).toBeGreaterThan(250)
      const middle = await onPhoto(page, 0.5, 0.5)
      const target = await onPhoto(page, 0.2, 0.3)
      await page.mouse.move(middle.x, middle.y)
      await page.mouse.down()
      await page.mouse.move(target.x, target.y, { steps: 5 })
      await page.mouse.up()
      expect(await greyAt(page, 0.2, 0.3)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.7, 0.7)).toBeLessThan(5)
      await handle('Width of the ellipse').focus()
      const before = Number((await field('Width').inputValue()).replace(/[^\d.]/g, ''))
      await page.keyboard.press('Shift+ArrowRight')
      expect(Number((await field('Width').inputValue()).replace(/[^\d.]/g, ''))).toBeGreaterThan(before)
      await dragBy(page, handle('Centre of the ellipse'), -3000, 2000)
      expect(await greyAt(page, 0.5, 0.5)).toBe(0)
      await page.getByRole('button', { name: 'Undo' }).click()
      expect(await greyAt(page, 0.2, 0.3)).toBeGreaterThan(250)
    })

    it('a finger moves a handle too', async () => {
      await only('Ellipse')
      const [from, to] = [await onPhoto(page, 0.5, 0.5), await onPhoto(page, 0.3, 0.7)]
      const client = await page.context().newCDPSession(page)
      const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', t: number) =>
        client.send('Input.dispatchTouchEvent', {
          type,
          touchPoints: type === 'touchEnd' ? [] : [{ x: from.x + 8 + t * (to.x - from.x), y: from.y + 5 + t * (to.y - from.y) }],
        })
      await touch('touchStart', 0)
      for (let i = 1; i <= 8; i++) await touch('touchMove', i / 8)
      await touch('touchEnd', 1)
      expect(await greyAt(page, 0.3, 0.7)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.75, 0.25)).toBeLessThan(20)
    })

    it('a line, a band and the frame edge are moved by their handles', async () => {
      const drag = async (name: string, to: readonly [number, number]) => {
        const box = (await handle(name).boundingBox())!
        const at = await onPhoto(page, ...to)
        await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
        await page.mouse.down()
        await page.mouse.move(at.x, at.y, { steps: 5 })
        await page.mouse.up()
      }
      await only('Line')
      await drag('Where the mask is open', [0.2, 0.5])
      await drag('Where the mask is shut', [0.5, 0.5])
      expect(await greyAt(page, 0.15, 0.9)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.55, 0.1)).toBeLessThan(5)
      expect(Math.abs((await greyAt(page, 0.35, 0.5)) - 128)).toBeLessThan(12)
      await only('Band')
      await drag('Middle of the band', [0.5, 0.25])
      expect(await greyAt(page, 0.9, 0.25)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.9, 0.75)).toBeLessThan(5)
      await only('Frame edge')
      await drag('Inset of the frame edge', [0.5, 0.2])
      expect(await greyAt(page, 0.5, 0.1)).toBeLessThan(5)
      expect(await greyAt(page, 0.5, 0.5)).toBeGreaterThan(250)
    })

    it('a hue is picked from the photo', async () => {
      await only('Colour')
      await page.getByRole('button', { name: 'Hue: Pick from the photo' }).click()
      const at = await onPhoto(page, 0.5, 0.5)
      const before = await field('Hue').inputValue()
      await page.mouse.click(at.x, at.y)
      // The ramp is grey, so the hue is whatever is left of it; what counts is that it was read and the tool put away.
      await expect.poll(() => field('Hue').inputValue()).not.toBe(before)
      await page.getByTestId('tap surface').waitFor({ state: 'detached' })
    })

    it('a depth picture is imported, and the depth mask reads it', async () => {
      await only('Depth')
      // What was read goes, and then the scene says that it has none.
      await page.keyboard.press('g')
      await page.getByRole('button', { name: 'Dismiss the distances' }).click()
      await page.getByRole('button', { name: 'Done' }).click()
      await page.getByText(/^This scene has no depth yet/).waitFor()
      await page.getByRole('button', { name: 'Give the scene a depth' }).click()
      const slope = Buffer.from(Array.from({ length: 120 * 80 }, (_, i) => Math.round((255 * (119 - (i % 120))) / 119)))
      const buffer = await sharp(slope, { raw: { width: 120, height: 80, channels: 1 } })
        .png()
        .toBuffer()
      const chooser = page.waitForEvent('filechooser')
      await page.getByRole('button', { name: 'Import a depth map' }).click()
      await (await chooser).setFiles({ name: 'slope.png', mimeType: 'image/png', buffer })
      await page.getByRole('img', { name: /^Distances/ }).waitFor()
      await page.getByRole('button', { name: 'Done' }).click()
      // Near is white, at the left; from 20 m on the mask is open.
      expect(await greyAt(page, 0.2, 0.5)).toBeLessThan(5)
      expect(await greyAt(page, 0.97, 0.5)).toBeGreaterThan(250)
    })

    it('an outline is drawn, crossed over itself, bent and cornered', async () => {
      await only('Outline')
      for (const [x, y] of [
        [0.3, 0.3],
        [0.7, 0.7],
        [0.7, 0.3],
        [0.3, 0.7],
      ] as const) {
        const at = await onPhoto(page, x, y)
        await page.mouse.click(at.x, at.y)
      }
      await page.keyboard.press('Enter')
      expect(await greyAt(page, 0.35, 0.5)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.65, 0.5)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.5, 0.35)).toBeLessThan(5)
      await handle('Corner 1 of outline 1').focus()
      await page.keyboard.press('Delete')
      await page.getByText('Outline 1, 3 corners').waitFor()
      const side = await onPhoto(page, 0.7, 0.5)
      await page.mouse.dblclick(side.x, side.y)
      await page.getByText('Outline 1, 4 corners').waitFor()
    })

    it('places that are tapped grow by their likeness', async () => {
      await only('Similar')
      await page.getByText('It has no place to grow from yet: tap the photo.').waitFor()
      const at = await onPhoto(page, 0.5, 0.5)
      await page.mouse.click(at.x, at.y)
      await page.getByText('It has no place to grow from yet').waitFor({ state: 'detached' })
      expect(await greyAt(page, 0.5, 0.5)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.8, 0.5)).toBeLessThan(5)
    })

    it('a picture of another size is stretched over the photo, and one that is none says so', async () => {
      await only('Picture')
      const halves = await sharp({ create: { width: 40, height: 60, channels: 3, background: '#000' } })
        .composite([{ input: { create: { width: 20, height: 60, channels: 3, background: '#fff' } }, left: 0, top: 0 }])
        .png()
        .toBuffer()
      const choose = async (buffer: Buffer, name: string) => {
        const chooser = page.waitForEvent('filechooser')
        await page.getByRole('button', { name: 'Choose a picture' }).click()
        await (await chooser).setFiles({ name, mimeType: 'image/png', buffer })
      }
      await choose(Buffer.from('nothing of the kind'), 'torn.png')
      await page.getByText(/“torn.png” cannot be opened/).waitFor()
      await page.getByText('No picture is chosen yet; the mask is left out.').waitFor()
      await choose(halves, 'halves.png')
      await page.getByText('The picture (40 × 60) has other proportions than the photo; it is stretched to fit.').waitFor()
      expect(await greyAt(page, 0.25, 0.5)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.75, 0.5)).toBeLessThan(5)
      await saved(page)
      await page.reload()
      await page.getByRole('region', { name: 'Where' }).getByRole('button').first().click()
      await show('Grey')
      expect(await greyAt(page, 0.25, 0.5)).toBeGreaterThan(250)
    })

    it('a scene mark is set on the photo, and a new mask follows it when it moves', async () => {
      await page.keyboard.press('Escape')
      await page.getByRole('button', { name: 'Marks', exact: true }).click()
      await page.getByRole('region', { name: 'Centre of interest' }).getByRole('button', { name: 'Set' }).click()
      const at = await onPhoto(page, 0.75, 0.25)
      await page.mouse.click(at.x, at.y)
      await page.getByRole('button', { name: 'Done' }).click()
      await only('Ellipse')
      expect(await greyAt(page, 0.75, 0.25)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.25, 0.75)).toBeLessThan(5)
      await page.getByRole('button', { name: 'Marks', exact: true }).click()
      const [from, to] = [await onPhoto(page, 0.75, 0.25), await onPhoto(page, 0.25, 0.75)]
      await page.mouse.move(from.x, from.y)
      await page.mouse.down()
      await page.mouse.move(to.x, to.y, { steps: 5 })
      await page.mouse.up()
      await page.getByRole('button', { name: 'Done' }).click()
      expect(await greyAt(page, 0.25, 0.75)).toBeGreaterThan(250)
      expect(await greyAt(page, 0.75, 0.25)).toBeLessThan(5)
    })
  })

  it('complained about nothing', () => {
    expect(complaints).toEqual([])
  })
})

async function readAll(download: { createReadStream(): Promise<NodeJS.ReadableStream> }): Promise<string> {
  const chunks: Buffer[] = []
  for await (const chunk of await download.createReadStream()) chunks.push(Buffer.from(chunk as Uint8Array))
  return Buffer.concat(chunks).toString('utf8')
}
