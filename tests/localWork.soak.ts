import type { Browser, Locator, Page } from 'playwright-core'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { dropPhoto, launch, settled, shelfReady, visit } from './support/browser'
import { drag, fittedPhoto, pngOf, shownPhoto, type Place } from './support/photo'

// Local corrections by visible controls, counted as a person's actions: presses, drags, strokes, typed numbers; a choice from a menu is two.

const size = { width: 1500, height: 1000 }
/** Bright sky, and below the horizon grey ground with a green meadow in it. */
const sky = [150, 175, 215]
const grey = [110, 110, 110]
const green = [70, 140, 60]
const horizon = 380
const colourAt = (x: number, y: number) => (y < horizon ? sky : y > 640 && x > 750 ? green : grey)

/** What exposure makes of a code, by the curve of sRGB (IEC 61966-2-1). */
function exposed(code: number, stops: number): number {
  const linear = ((code / 255 + 0.055) / 1.055) ** 2.4 * 2 ** stops
  return 255 * (1.055 * linear ** (1 / 2.4) - 0.055)
}

describe('local work, counted', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  let actions = 0
  beforeAll(async () => {
    browser = await launch()
  })
  afterAll(() => browser.close())
  afterEach(() => expect(complaints).toEqual([]))

  const press = async (target: Locator): Promise<void> => {
    actions++
    await target.click()
  }
  const choose = async (list: Locator, entry: string): Promise<void> => {
    await press(list)
    await press(page.getByRole('option', { name: entry, exact: true }).or(page.getByRole('menuitem', { name: entry, exact: true })))
  }
  const pull = async (from: Place, ...to: Place[]): Promise<void> => {
    actions++
    await drag(page, from, ...to)
  }
  const ring = () => page.getByRole('button', { name: /^Strength of the correction/ })
  const turn = async (across: number, up: number, reads: RegExp): Promise<void> => {
    await settled(page)
    const box = (await ring().boundingBox())!
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    await pull(middle, { x: middle.x + across, y: middle.y - up })
    expect(await ring().getAttribute('aria-label')).toMatch(reads)
  }
  const start = async (): Promise<void> => {
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await pngOf(size, colourAt), 'counted.png')
    actions = 0
  }

  it('ten corrections of four sorts take at most 45 actions, and each is as strong as it was meant, in its place', async () => {
    await start()
    const before = await shownPhoto(page, size)
    const { at } = await fittedPhoto(page, size)
    const around = async (x: number, y: number): Promise<void> => {
      await pull(at(x - 90, y - 90), at(x + 90, y + 90))
      // The ring of the new one, which is at nothing.
      await expect.poll(() => ring().getAttribute('aria-label')).toMatch(/ \+0(\.00)?\s\S+, \w+ \+0\s/)
    }
    const brighter = [
      [150, 520],
      [400, 520],
      [650, 520],
    ] as const
    const warmer = [
      [150, 850],
      [400, 850],
      [620, 850],
    ] as const
    const calmer = [
      [900, 800],
      [1130, 800],
      [1360, 800],
    ] as const
    await press(page.getByRole('button', { name: 'Correct here: drag across a place of the photo' }))
    for (const [x, y] of brighter) {
      await around(x, y)
      await turn(0, 70, /Exposure \+0\.70/)
    }
    for (const [x, y] of warmer) {
      await around(x, y)
      await turn(60, 0, /Warmth \+20/)
    }
    await choose(page.getByRole('combobox', { name: 'Kind of the next correction' }), 'One hue')
    for (const [x, y] of calmer) {
      await around(x, y)
      await turn(-120, 0, /Saturation −40/)
    }
    await choose(page.getByRole('combobox', { name: 'Kind of the next correction' }), 'Adjust')
    await press(page.getByRole('group', { name: 'Shape of the next correction' }).getByRole('button', { name: 'Sky' }))
    actions++
    await page.mouse.click(at(700, 150).x, at(700, 150).y)
    await turn(0, -50, /Exposure −0\.50/)
    console.log(`Ten local corrections of four sorts: ${actions} actions`)
    expect(actions).toBeLessThanOrEqual(45)
    const after = await shownPhoto(page, size)
    for (const [x, y] of brighter) for (const c of [0, 1, 2]) expect(near(after(x, y)[c]!, exposed(grey[c]!, 0.7), grey[c]!)).toBe(true)
    for (const [x, y] of warmer) expect(after(x, y)[0]! - after(x, y)[2]!, `warmer ${x}`).toBeGreaterThan(6)
    for (const [x, y] of calmer) {
      const spread = (rgb: readonly number[]): number => Math.max(...rgb) - Math.min(...rgb)
      expect(spread(after(x, y)) / spread(before(x, y)), `calmer ${x}`).toBeLessThan(0.75)
    }
    for (const c of [0, 1, 2]) expect(near(after(700, 150)[c]!, exposed(sky[c]!, -0.5), sky[c]!)).toBe(true)
    // What lies between them is as it was.
    for (const [x, y] of [
      [275, 520],
      [275, 700],
      [1000, 560],
      [1250, 930],
    ] as const)
      expect(after(x, y), `${x} ${y}`).toEqual(before(x, y))
  })

  it('five corrections under one mask: the mask is mended once, and all five change', async () => {
    await start()
    const { at } = await fittedPhoto(page, size)
    await press(page.getByRole('button', { name: 'Correct here: drag across a place of the photo' }))
    await pull(at(300, 450), at(700, 750))
    await page.keyboard.press('Escape')
    await press(page.getByRole('button', { name: /4\s*Where/ }))
    await choose(page.getByRole('button', { name: 'More about mask 1' }), 'Share it')
    for (const kind of ['Warm evening', 'Cold morning', 'As night', 'Clearer']) {
      await press(page.getByRole('button', { name: 'Add an effect: Finish' }))
      await press(page.getByRole('navigation', { name: 'Kinds of effect' }).getByRole('button', { name: 'Adjust', exact: true }).last())
      await press(page.getByRole('group', { name: 'Looks of Adjust' }).getByRole('button', { name: kind, exact: true }))
      // The step that was open is open of the next one.
      await choose(page.getByRole('region', { name: 'Where' }).getByRole('button', { name: 'Add a mask' }), 'Shared: Ellipse')
    }
    const bare = colourAt(900, 600)
    expect((await shownPhoto(page, size))(900, 600)).toEqual(bare)
    const before = await shownPhoto(page, size)
    const width = page.getByRole('group', { name: 'Within the shared mask' }).getByRole('textbox', { name: 'Width', exact: true })
    actions++
    await width.fill('900')
    await width.press('Enter')
    const after = await shownPhoto(page, size)
    console.log(`Five corrections under one mask, mended once: ${actions} actions`)
    // What lay outside of it is changed as much as what lay inside.
    expect(after(900, 600)).not.toEqual(bare)
    expect(before(500, 600)).not.toEqual(colourAt(500, 600))
    const users = await page.getByText(/^Used by /).innerText()
    for (const one of ['Adjust', 'Warm evening', 'Cold morning', 'As night', 'Clearer']) expect(users).toContain(one)
    await page.reload()
    await settled(page)
    expect((await shownPhoto(page, size))(900, 600)).toEqual(after(900, 600))
  })

  it('a soft focus painted away from a face takes at most nine', async () => {
    await start()
    await page.getByRole('button', { name: 'Add an effect: Finish' }).waitFor()
    await press(page.getByRole('button', { name: 'Add an effect: Finish' }))
    await press(page.getByRole('group', { name: 'Looks of Soft focus' }).getByRole('button').first())
    await press(page.getByRole('button', { name: /^4\s*Where|\dWhere/ }))
    await choose(page.getByRole('region', { name: 'Where' }).getByRole('button', { name: 'Add a mask' }), 'Brush')
    await settled(page)
    const { at } = await fittedPhoto(page, size)
    const soft = await shownPhoto(page, size)
    await pull(at(700, 360), at(760, 400), at(820, 360))
    console.log(`A soft focus painted away from a face: ${actions} actions`)
    expect(actions).toBeLessThanOrEqual(9)
    const bare = colourAt(760, 376)
    const after = await shownPhoto(page, size)
    const apart = (seen: readonly number[]): number => Math.max(...seen.map((value, c) => Math.abs(value - bare[c]!)))
    expect(apart(after(760, 376))).toBeLessThan(4)
    expect(apart(soft(760, 376))).toBeGreaterThan(4)
    // Elsewhere it is as soft as before.
    expect(after(200, 376)).toEqual(soft(200, 376))
  })
})

/** Within a twentieth of the change that was meant. */
function near(value: number, meant: number, before: number): boolean {
  return Math.abs(value - meant) <= Math.max(1, 0.05 * Math.abs(meant - before))
}
