import type { Browser, CDPSession, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sampled } from '../core/test-support/sampled'
import { addEffect, choose, dropPhoto, launch, openStep, settled, shelfReady, visit } from './support/browser'
import { drag, fittedPhoto, pngOf, seenOnPhoto, view, type Place } from './support/photo'

const [width, height] = [1200, 800]
const [blue, brown] = [
  [58, 110, 165],
  [200, 132, 60],
]

const size = { width, height }
/** Blue at the left, brown at the right, with a dark mast in the blue. */
const twoColours = () => pngOf(size, (x) => (x >= 290 && x < 310 ? [30, 28, 26] : x < width / 2 ? blue! : brown!))
const fitted = (page: Page) => fittedPhoto(page, size)
const seenAt = (page: Page, x: number, y: number) => seenOnPhoto(page, size, x, y)

describe('directly on the photo', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await twoColours(), 'colours.png')
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const number = (name: string) => page.getByRole('textbox', { name, exact: true }).first()
  const value = async (name: string): Promise<number> => parseFloat((await number(name).inputValue()).replace('−', '-'))
  const type = async (name: string, text: string): Promise<void> => {
    await number(name).fill(text)
    await number(name).press('Enter')
  }
  const undo = () => page.getByRole('button', { name: 'Undo' }).click()
  const middle = async (name: string): Promise<Place> => {
    const box = (await page.getByRole('button', { name: new RegExp(`^${name}\\.`) }).boundingBox())!
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  }
  const dragHandle = async (name: string, dx: number, dy: number): Promise<void> => {
    const from = await middle(name)
    await drag(page, from, { x: from.x + dx, y: from.y + dy })
  }

  describe('a colour from the photo', () => {
    const tint = () => page.getByRole('textbox', { name: 'Tint, written as six hexadecimal digits' })

    it('is taken with the mouse, seen large before, in one step; outside the photo the nearest pixel counts', async () => {
      await addEffect(page, 'Middle', 'Fog')
      await openStep(page, 'Colour')
      const before = await tint().inputValue()
      await page.getByRole('button', { name: 'Tint: Pick from the photo' }).click()
      const { at } = await fitted(page)
      await page.mouse.move(at(900, 400).x, at(900, 400).y)
      await page.getByTestId('lens').getByText('#c8843c').waitFor()
      await page.mouse.click(at(900, 400).x, at(900, 400).y)
      await expect.poll(() => tint().inputValue()).toBe('#c8843c')
      expect(await page.getByTestId('lens').count()).toBe(0)
      await undo()
      expect(await tint().inputValue()).toBe(before)
      await page.getByRole('button', { name: 'Tint: Pick from the photo' }).click()
      await page.mouse.click(at(-6, 100).x, at(-6, 100).y)
      await expect.poll(() => tint().inputValue()).toBe('#3a6ea5')
    })

    it('is taken by keys, of what lies beneath as well, and left by Escape', async () => {
      await page.getByRole('button', { name: 'Tint: Pick from the photo' }).click()
      await page.getByRole('application', { name: /^Colour from the photo: Tint/ }).focus()
      for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight')
      await page.getByTestId('lens').getByText('#c8843c').waitFor()
      await page.keyboard.press('Enter')
      await expect.poll(() => tint().inputValue()).toBe('#c8843c')
      await page.getByRole('button', { name: 'Tint: Pick from the photo' }).click()
      await page.getByRole('button', { name: 'From the photo alone' }).click()
      await page.getByRole('button', { name: 'From what lies beneath' }).waitFor()
      await page.keyboard.press('Escape')
      expect(await page.getByTestId('lens').count()).toBe(0)
      expect(await tint().inputValue()).toBe('#c8843c')
    })
  })

  describe('a box about a pattern', () => {
    it('moves it: what was dragged and what is typed are the same picture, and undo takes it back as one step', async () => {
      await openStep(page, 'Pattern')
      const still = await view(page)
      await dragHandle('Move the fog', 60, -30)
      const [across, down] = [await value('Offset across'), await value('Offset down')]
      const { zoom } = await fitted(page)
      expect(across).toBeCloseTo(60 / zoom, -0.5)
      expect(down).toBeCloseTo(-30 / zoom, -0.5)
      const moved = await view(page)
      expect(moved).not.toBe(still)
      await undo()
      expect(await view(page)).toBe(still)
      await type('Offset across', String(across))
      await type('Offset down', String(down))
      expect(await view(page)).toBe(moved)
    })

    it('turns and pulls it by its handles, with mouse and keys', async () => {
      await page.getByRole('region', { name: 'Pattern' }).scrollIntoViewIfNeeded()
      const [scale, stretch, turn] = [await value('Scale'), await value('Stretch'), await value('Rotation')]
      await dragHandle('Turn the fog', 40, 30)
      expect(await value('Rotation')).not.toBe(turn)
      await dragHandle('Size of the fog', 30, -20)
      expect(await value('Scale')).toBeGreaterThan(scale)
      expect(await value('Stretch')).toBeCloseTo(stretch, 1)
      await page.getByRole('button', { name: /^Length of the fog\./ }).focus()
      const before = await value('Stretch')
      for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
      expect(await value('Stretch')).not.toBeCloseTo(before, 3)
    })

    it('lies about a cloud mask too, and survives being pulled to nothing and turned over', async () => {
      await openStep(page, 'Where')
      await choose(page, page.getByRole('button', { name: 'Add a mask' }), 'Cloud')
      const from = await middle('Size of the cloud')
      const centre = await middle('Move the cloud')
      await drag(page, from, centre, { x: 2 * centre.x - from.x, y: 2 * centre.y - from.y })
      expect(await value('Scale')).toBeGreaterThan(0)
      await settled(page)
    })
  })

  const boxes = [
    ['Middle', 'Custom field', 'Fire', 'Pattern', 'the custom field'],
    ['Near', 'Snow', undefined, 'Shape', 'the snow'],
    ['Lens', 'Dust', undefined, 'Shape', 'the dust'],
    ['Near', 'Rain', undefined, 'Shape', 'the rain'],
  ] as const
  it.each(sampled(boxes))(
    'a box at %s about %s moves and enlarges it: dragged and typed are the same picture, each in one step',
    async (place, kind, look, step, name) => {
      await addEffect(page, place, kind, look)
      await openStep(page, step)
      const still = await view(page)
      await dragHandle(`Move ${name}`, 50, 20)
      const [sideways, down] = [await value('Move sideways'), await value('Move down')]
      const moved = await view(page)
      expect(moved).not.toBe(still)
      await undo()
      expect(await view(page)).toBe(still)
      await type('Move sideways', String(sideways))
      await type('Move down', String(down))
      expect(await view(page)).toBe(moved)
      await dragHandle(`Size of ${name}`, 24, -24)
      expect(await view(page)).not.toBe(moved)
      await undo()
      expect(await view(page)).toBe(moved)
      await page
        .getByRole('button', { name: `More about ${kind}` })
        .last()
        .click()
      await page.getByRole('menuitem', { name: 'Remove', exact: true }).click()
      await settled(page)
    },
  )

  it('the direction of falling rain follows its arrow, by mouse and keys; snow drifts where it points', async () => {
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await openStep(page, 'Shape')
    const centre = (await fitted(page)).at(width / 2, height / 2)
    const tip = await middle('Direction of fall')
    await drag(page, tip, { x: centre.x + 64, y: centre.y + 64 })
    // Down to the right at 45°: streaks lie along 135°.
    expect(await value('Direction')).toBeCloseTo(135, -0.3)
    const byHand = await view(page)
    const angle = await value('Direction')
    await undo()
    await type('Direction', String(angle))
    expect(await view(page)).toBe(byHand)
    await page.getByRole('button', { name: /^Direction of fall\./ }).focus()
    await page.keyboard.press('Shift+ArrowLeft')
    expect(await value('Direction')).toBeLessThan(angle)
    const { zoom } = await fitted(page)
    const moved = await value('Move sideways')
    await dragHandle('Move the rain', 40, 0)
    expect((await value('Move sideways')) - moved).toBeCloseTo(40 / zoom, -0.5)
    await dragHandle('Size of the rain', 20, -20)
    expect(await value('Enlarge')).toBeGreaterThan(110)
    await addEffect(page, 'Near', 'Snow')
    await openStep(page, 'Shape')
    await drag(page, await middle('Direction of fall'), { x: centre.x - 64, y: centre.y + 64 })
    expect(await value('Wind')).toBeCloseTo(45, -0.3)
  })

  it('each glint has its own size and turn, by its tip and by numbers', async () => {
    await addEffect(page, 'Near', 'Sparkles')
    await openStep(page, 'Pattern')
    await page.getByRole('button', { name: /^Glint 1\./ }).click()
    await dragHandle('Size and turn of glint 1', 20, -60)
    const [size, turn] = [await value('Size'), await value('Own rotation')]
    expect(size).toBeGreaterThan(110)
    expect(turn).toBeGreaterThan(20)
    const byHand = await view(page)
    await undo()
    expect(await value('Size')).toBe(100)
    await type('Size', String(size))
    await type('Own rotation', String(turn))
    expect(await view(page)).toBe(byHand)
    await type('Size', '1.5')
    await type('Size', '99999')
    await page.getByText('Between 1 and 1000, please.').waitFor()
    await page.keyboard.press('Escape')
  })

  const oneMask = async (kind: string): Promise<void> => {
    await openStep(page, 'Where')
    const more = page.getByRole('button', { name: /^More about mask/ })
    for (let count = await more.count(); count > 0; count--) await choose(page, more.first(), 'Remove')
    await choose(page, page.getByRole('button', { name: 'Add a mask' }), kind)
  }

  describe('masks', () => {
    const show = (name: string) => page.getByRole('group', { name: 'Show' }).getByRole('button', { name }).click()
    it('something is gone around freehand in one stroke; a tap alone says what to do', async () => {
      await oneMask('Outline')
      await show('Grey')
      await page.getByRole('button', { name: 'Outline freehand' }).click()
      const { at } = await fitted(page)
      await page.mouse.click(at(300, 300).x, at(300, 300).y)
      await page.getByText('Keep it pressed and go around what you want.').waitFor()
      const ring = Array.from({ length: 40 }, (_, i) =>
        at(600 + 200 * Math.cos((2 * Math.PI * i) / 39), 400 + 150 * Math.sin((2 * Math.PI * i) / 39)),
      )
      await drag(page, ring[0]!, ...ring.slice(1))
      expect((await seenAt(page, 600, 400))[0]).toBeGreaterThan(250)
      for (const [x, y] of [
        [600, 230],
        [830, 400],
      ] as const)
        expect((await seenAt(page, x, y))[0], `${x} ${y}`).toBeLessThan(5)
      await undo()
      await page.getByText('Nothing is drawn yet').or(page.getByText('Drag corners')).first().waitFor()
    })

    it('a brush that stops at edges keeps to what it began on; the eraser has a tip of its own', async () => {
      await oneMask('Brush')
      await page.getByRole('button', { name: 'Only here' }).click()
      await show('Grey')
      await page.getByRole('checkbox', { name: 'Stops at edges' }).check()
      await type('Size', '160')
      await type('Hardness', '100')
      const { at } = await fitted(page)
      await drag(page, at(560, 200), at(560, 600))
      await expect.poll(async () => (await seenAt(page, 540, 400))[0]).toBeGreaterThan(240)
      expect((await seenAt(page, 625, 400))[0]).toBeLessThan(10)
      await page.getByRole('button', { name: 'Eraser' }).click()
      expect(await value('Size')).toBe(120)
      await type('Size', '60')
      await page.getByRole('button', { name: 'Eraser' }).click()
      expect(await value('Size')).toBe(160)
      await page.getByRole('checkbox', { name: 'Stops at edges' }).uncheck()
    })

    it('tones are chosen by a curve that is drawn', async () => {
      await oneMask('Luminosity')
      await page.getByRole('button', { name: 'Free', exact: true }).click()
      await show('Grey')
      const points = page.getByRole('slider', { name: /^Point \d/ })
      expect(await points.count()).toBe(5)
      // The point at half the tones is taken down to nothing.
      await points.nth(2).focus()
      for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowDown')
      expect(await points.nth(2).getAttribute('aria-valuenow')).toBe('0')
      // Brown has a luma of 0.2126 · 200 + 0.7152 · 132 + 0.0722 · 60 = 141 of 255: just beside that point.
      expect((await seenAt(page, 900, 400))[0]).toBeLessThan(60)
      await points.nth(2).press('Delete')
      expect(await points.count()).toBe(4)
      await undo()
      expect(await points.count()).toBe(5)
      await show('Picture')
    })
  })

  describe('by finger and pen', () => {
    let client: CDPSession
    beforeAll(async () => {
      client = await page.context().newCDPSession(page)
    })
    /** Fingers on the screen, as the browser itself gets them. */
    const touch = async (type: 'touchStart' | 'touchMove' | 'touchEnd', ...places: Place[]): Promise<void> => {
      const touchPoints = type === 'touchEnd' ? [] : places.map(({ x, y }, id) => ({ x, y, id }))
      await client.send('Input.dispatchTouchEvent', { type, touchPoints })
    }
    const shownZoom = async (): Promise<number> => parseFloat(await page.getByRole('button', { name: /^Zoom/ }).innerText())

    it('a handle follows a finger', async () => {
      await page.getByRole('button', { name: /^Sparkles, / }).click()
      await openStep(page, 'Pattern')
      const from = await middle('Glint 2')
      await touch('touchStart', from)
      await touch('touchMove', { x: from.x + 30, y: from.y })
      await touch('touchMove', { x: from.x + 60, y: from.y + 10 })
      await touch('touchEnd')
      const to = await middle('Glint 2')
      expect(to.x - from.x).toBeCloseTo(60, -0.5)
      expect(to.y - from.y).toBeCloseTo(10, -0.5)
      await undo()
      expect((await middle('Glint 2')).x).toBeCloseTo(from.x, 0)
    })

    it('a box follows a finger, a colour is taken with one, and something is gone around with one', async () => {
      await addEffect(page, 'Middle', 'Fog')
      await openStep(page, 'Pattern')
      const { at, zoom } = await fitted(page)
      const before = await value('Offset across')
      const from = await middle('Move the fog')
      await touch('touchStart', from)
      await touch('touchMove', { x: from.x + 30, y: from.y })
      await touch('touchMove', { x: from.x + 60, y: from.y })
      await touch('touchEnd')
      expect((await value('Offset across')) - before).toBeCloseTo(60 / zoom, -0.5)
      await openStep(page, 'Colour')
      const tint = page.getByRole('textbox', { name: 'Tint, written as six hexadecimal digits' })
      await page.getByRole('button', { name: 'Tint: Pick from the photo' }).click()
      await touch('touchStart', at(900, 300))
      await touch('touchEnd')
      await expect.poll(() => tint.inputValue()).toBe('#c8843c')
      await oneMask('Outline')
      await page.getByRole('group', { name: 'Show' }).getByRole('button', { name: 'Grey' }).click()
      await page.getByRole('button', { name: 'Outline freehand' }).click()
      const ring = Array.from({ length: 24 }, (_, i) =>
        at(600 + 200 * Math.cos((2 * Math.PI * i) / 23), 400 + 150 * Math.sin((2 * Math.PI * i) / 23)),
      )
      await touch('touchStart', ring[0]!)
      for (const place of ring.slice(1)) await touch('touchMove', place)
      await touch('touchEnd')
      await expect.poll(async () => (await seenAt(page, 600, 400))[0]).toBeGreaterThan(250)
      expect((await seenAt(page, 600, 200))[0]).toBeLessThan(5)
      await page.getByRole('group', { name: 'Show' }).getByRole('button', { name: 'Picture' }).click()
      await page.getByRole('button', { name: 'More about Fog' }).first().click()
      await page.getByRole('menuitem', { name: 'Remove', exact: true }).click()
      await page.getByRole('button', { name: /^Sparkles, / }).click()
    })

    it('two fingers pinch and pan while a brush is held, and paint nothing; one paints', async () => {
      await oneMask('Brush')
      await type('Size', '60')
      const centre = (await fitted(page)).at(width / 2, height / 2)
      const strokes = () => page.getByText(/^\d+ strokes?$/).innerText()
      const before = await shownZoom()
      const [a, b] = [
        { x: centre.x - 60, y: centre.y },
        { x: centre.x + 60, y: centre.y },
      ]
      await touch('touchStart', a)
      await touch('touchStart', a, b)
      await touch('touchMove', { ...a, x: a.x - 60 }, { ...b, x: b.x + 60 })
      await touch('touchEnd')
      await expect.poll(shownZoom).toBeCloseTo(2 * before, -1)
      expect(await strokes()).toBe('0 strokes')
      await touch('touchStart', a)
      await touch('touchMove', { x: a.x + 30, y: a.y + 20 })
      await touch('touchMove', { x: a.x + 80, y: a.y + 20 })
      await touch('touchEnd')
      await expect.poll(strokes).toBe('1 stroke')
      await undo()
      await expect.poll(strokes).toBe('0 strokes')
      await page.keyboard.press('Escape')
      await page.keyboard.press('w')
    })
  })

  it('a press with Alt lists the effects of a place, strongest first, and choosing one selects it', async () => {
    const { at } = await fitted(page)
    await page.keyboard.press('Escape')
    await page.keyboard.down('Alt')
    await page.mouse.click(at(500, 400).x, at(500, 400).y)
    await page.keyboard.up('Alt')
    const items = page.getByRole('menu', { name: 'Effects that change this place' }).getByRole('menuitem')
    await items.filter({ hasText: 'by' }).first().waitFor()
    const parts = (await items.allInnerTexts()).map((text) => Number(/by (\d+) %/.exec(text)?.[1]))
    expect(parts).toEqual([...parts].sort((a, b) => b - a))
    const strongest = (await items.first().innerText()).split('\n')[0]!
    await items.first().click()
    await page.getByLabel('Steps').getByPlaceholder(strongest, { exact: true }).waitFor()
  })

  it('what lies around the photo is mid-grey, dark or light, and stays so', async () => {
    const around = () => page.locator('[aria-label^="Picture."]').evaluate((frame) => getComputedStyle(frame).backgroundColor)
    expect(await around()).toBe('rgb(139, 139, 139)')
    await page.keyboard.press('u')
    expect(await around()).toBe('rgb(43, 43, 43)')
    await page.reload()
    await settled(page)
    expect(await around()).toBe('rgb(43, 43, 43)')
    await page.keyboard.press('u')
    expect(await around()).toBe('rgb(214, 214, 214)')
    await page.keyboard.press('u')
    expect(await around()).toBe('rgb(139, 139, 139)')
  })

  it('the picture is seen without an effect while V is held, and compared with how it was, without a step of the history', async () => {
    await page.getByRole('button', { name: /^Snow, / }).click()
    const before = await view(page)
    await page.keyboard.down('v')
    await expect.poll(() => view(page)).not.toBe(before)
    await page.keyboard.up('v')
    await expect.poll(() => view(page)).toBe(before)
    await page.keyboard.press('Shift+S')
    await openStep(page, 'Mix')
    const undoable = await page.getByRole('button', { name: 'Undo' }).isEnabled()
    await page.getByRole('button', { name: 'Before', exact: true }).click()
    expect(await view(page)).toBe(before)
    await page.getByRole('button', { name: 'After', exact: true }).click()
    await page.getByRole('button', { name: 'More about Snow' }).click()
    await page.getByRole('menuitem', { name: 'Remove', exact: true }).click()
    const now = await view(page)
    expect(now).not.toBe(before)
    await page.getByRole('button', { name: 'Before', exact: true }).click()
    expect(await view(page)).toBe(before)
    await page.getByRole('button', { name: /^Before: As it was/ }).click()
    await page.getByRole('menuitem', { name: 'The photo as it came' }).click()
    expect(await seenAt(page, 100, 100)).toEqual(blue)
    await page.getByRole('button', { name: 'After', exact: true }).click()
    await undo()
    expect(undoable).toBe(true)
    expect(await view(page)).toBe(before)
  })
})
