import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { readFile } from 'node:fs/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findings } from './support/axe'
import { addEffect, dropPhoto, launch, openStep, saved, settled, shelfReady, visit } from './support/browser'
import { drag, pngOf } from './support/photo'

const size = { width: 900, height: 600 }

describe('Trials', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await pngOf(size, (_, y) => (y < 300 ? [70, 80, 95] : [40, 42, 40])), 'evening.png')
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await settled(page)
    await page.getByRole('link', { name: 'Trials' }).click()
    await page.getByRole('heading', { name: 'Trials' }).waitFor()
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const cards = () => page.locator('[data-trial]')
  const names = () => cards().evaluateAll((all) => all.map((one) => (one.getAttribute('aria-label') ?? '').replaceAll(/\s/g, ' ')))
  const kept = () => page.getByRole('button', { name: /^Kept/ })
  const choose = async (part: 'Vary' | 'Against', what: string) => {
    await page.getByRole('region', { name: part }).getByRole('combobox', { name: 'What' }).click()
    await page.getByRole('option', { name: what, exact: true }).click()
  }
  /** Numbers of what the pictures show, once all of them are there and exact: coarse ones have fewer px than they are wide. */
  const pictures = async (count: number): Promise<string[]> => {
    const shown = () =>
      page.locator('[data-trial] canvas').evaluateAll((all) =>
        Promise.all(
          all.map(async (one) => {
            const { width, height, clientWidth } = one as HTMLCanvasElement
            if (width < clientWidth - 1) return 'coarse'
            const { data } = (one as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height)
            return `${width} ${[...new Uint8Array(await crypto.subtle.digest('SHA-1', data))].join(' ')}`
          }),
        ),
      )
    await expect
      .poll(async () => {
        const all = new Set(await shown())
        return all.has('coarse') ? 0 : all.size
      })
      .toBe(count)
    return shown()
  }

  it('begins with six seeds of the selected effect, the first as it is, each its own picture', async () => {
    await expect.poll(async () => (await names()).length).toBe(6)
    expect((await names())[0]).toMatch(/^Seed \d+, as it is$/)
    await pictures(6)
    expect(await findings(page)).toEqual([])
  })

  it('other seeds are others', async () => {
    const before = await names()
    await page.getByRole('button', { name: 'Other seeds' }).click()
    await expect.poll(async () => (await names()).filter((name) => before.includes(name)).length).toBe(0)
    expect((await names()).length).toBe(6)
  })

  it('is gone through by keys: marked, compared at one place of the photo, gone through in place', async () => {
    await cards().first().focus()
    await page.keyboard.press('m')
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('m')
    await page.getByRole('button', { name: 'Compare 2' }).press('Enter')
    const panes = page.getByTestId('trial')
    await expect.poll(() => panes.count()).toBe(2)
    await page.locator('[data-testid=trial][data-settled=true]').nth(1).waitFor()
    await page.keyboard.press('q')
    await page.locator('[data-testid=trial][data-settled=true]').nth(1).waitFor()
    const [one, other] = await panes.evaluateAll((all) => all.map((canvas) => (canvas as HTMLCanvasElement).toDataURL()))
    expect(one).not.toBe(other)
    // Moving one moves the other.
    const box = (await panes.first().boundingBox())!
    await drag(page, { x: box.x + 200, y: box.y + 200 }, { x: box.x + 120, y: box.y + 150 })
    await page.locator('[data-testid=trial][data-settled=true]').nth(1).waitFor()
    await expect
      .poll(() =>
        panes.evaluateAll((all, before) => all.map((canvas, i) => (canvas as HTMLCanvasElement).toDataURL() === before[i]), [one, other]),
      )
      .toEqual([false, false])
    expect(await findings(page)).toEqual([])
    await page.keyboard.press('ArrowRight')
    await expect.poll(() => panes.count()).toBe(1)
    const first = await panes.first().getAttribute('aria-label')
    await page.keyboard.press('ArrowRight')
    await expect.poll(() => panes.first().getAttribute('aria-label')).not.toBe(first)
    await page.keyboard.press('w')
    await page.keyboard.press('Escape')
    await expect.poll(() => panes.count()).toBe(2)
    await page.keyboard.press('Escape')
    await cards().first().waitFor()
  })

  it('one that is put away comes back, and one gets a name', async () => {
    const [first, second] = await names()
    await cards().first().focus()
    await page.keyboard.press('Delete')
    await expect.poll(() => names()).not.toContain(first)
    await page.getByRole('button', { name: 'Bring back 1 put away' }).click()
    await expect.poll(() => names()).toContain(first)
    await page.getByRole('textbox', { name: `Name of ${second}` }).fill('The wild one')
    await page.keyboard.press('Enter')
    await expect.poll(() => names()).toContain('The wild one')
  })

  it('two numbers stand against each other, their values at the edges', async () => {
    await choose('Vary', 'Density')
    await choose('Against', 'Length')
    for (const [part, from, to] of [
      ['Vary', '5', '20'],
      ['Against', '10', '40'],
    ] as const) {
      for (const [which, value] of [
        ['how many', '2'],
        ['from', from],
        ['to', to],
      ] as const) {
        await page.getByRole('textbox', { name: `${part}: ${which}` }).fill(value)
        await page.keyboard.press('Enter')
      }
    }
    await expect
      .poll(() => names())
      .toEqual(['Density 5, Length 10.0 px', 'Density 20, Length 10.0 px', 'Density 5, Length 40.0 px', 'Density 20, Length 40.0 px'])
    await page.getByText(/^Length 40\.0.px$/).waitFor()
    await pictures(4)
  })

  it('is saved as one picture with all of them', async () => {
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save the sheet' }).click()
    const download = await waiting
    expect(download.suggestedFilename()).toBe('evening trials.png')
    const { width = 0, height = 0 } = await sharp(await readFile(await download.path())).metadata()
    expect(width).toBeGreaterThan(2 * 480)
    expect(height).toBeGreaterThan(2 * 320)
  })

  it('one that is kept is a scene of its own', async () => {
    await cards().nth(3).hover()
    await page.getByRole('button', { name: /^What can be done with Density 20, Length 40/ }).click()
    await page.getByRole('menuitem', { name: 'Keep as a scene of its own' }).click()
    await page.getByText('is a scene of its own on the Shelf now').waitFor()
  })

  it('some are kept as states', async () => {
    for (const [card, name] of [
      [0, /^What can be done with Density 5, Length 10/],
      [3, /^What can be done with Density 20, Length 40/],
    ] as const) {
      await cards().nth(card).hover()
      await page.getByRole('button', { name }).click()
      await page.getByRole('menuitem', { name: 'Keep as a state' }).click()
      await expect.poll(() => kept().innerText()).toBe(`Kept (${card === 0 ? 1 : 2})`)
    }
  })

  it('one is taken over as one step, which is undone, and is there after a reload', async () => {
    await cards().nth(2).hover()
    await page.getByRole('button', { name: /^Take over Density 5, Length 40/ }).click()
    await settled(page)
    const density = page.getByRole('textbox', { name: 'Density', exact: true }).first()
    const length = page.getByRole('textbox', { name: 'Length', exact: true }).first()
    expect([await density.inputValue(), await length.inputValue()]).toEqual(['5', expect.stringMatching(/^40\.0.px$/)])
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(() => density.inputValue()).not.toBe('5')
    await page.getByRole('button', { name: 'Redo' }).click()
    await expect.poll(() => density.inputValue()).toBe('5')
    await saved(page)
    await page.reload()
    await settled(page)
    expect(await length.inputValue()).toMatch(/^40\.0/)
  })

  it('what is kept is there after a reload, is renamed, compared, brought back as one step and deleted with undo', async () => {
    await page.keyboard.press('c')
    await page.getByText('was kept as “State 3”').waitFor()
    await page.getByRole('button', { name: 'See what was kept' }).click()
    await expect.poll(() => names()).toEqual(['State 3', 'Density 20, Length 40.0 px', 'Density 5, Length 10.0 px'])
    await pictures(3)
    expect(await findings(page)).toEqual([])
    await page.getByRole('textbox', { name: 'Name of State 3' }).fill('At first')
    await page.keyboard.press('Enter')
    await expect.poll(() => names()).toContain('At first')
    await cards().nth(2).focus()
    await page.keyboard.press('Delete')
    await expect.poll(async () => (await names()).length).toBe(2)
    await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
    await expect.poll(async () => (await names()).length).toBe(3)
    await cards().nth(1).hover()
    await page.getByRole('button', { name: /^Take over Density 20, Length 40/ }).click()
    await settled(page)
    const density = page.getByRole('textbox', { name: 'Density', exact: true }).first()
    expect(await density.inputValue()).toBe('20')
    await page.getByRole('button', { name: 'Split' }).click()
    await page.getByRole('button', { name: 'Before: the photo' }).click()
    await page.getByRole('menuitem', { name: 'At first' }).click()
    await page.getByRole('button', { name: 'Before: At first' }).waitFor()
    await page.getByRole('button', { name: 'After' }).click()
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(() => density.inputValue()).not.toBe('20')
    await page.getByRole('link', { name: 'Trials' }).click()
    await expect.poll(async () => (await names()).length).toBe(6)
    await page.getByRole('link', { name: '← Workbench' }).click()
    await settled(page)
  })

  it('looks, modes and masks are varied too, of each effect', async () => {
    await addEffect(page, 'Middle', 'Fog')
    await openStep(page, 'Mix')
    await page.keyboard.press('Shift+T')
    await page.getByRole('heading', { name: 'Trials' }).waitFor()
    for (const [what, least] of [
      ['Look', 3],
      ['Mix mode', 15],
      ['Masks', 9],
    ] as const) {
      await choose('Vary', what)
      await expect.poll(async () => (await names()).length).toBeGreaterThanOrEqual(least)
    }
    await page.getByRole('region', { name: 'Vary' }).getByRole('combobox', { name: 'Of' }).click()
    await page.getByRole('option', { name: 'Downpour' }).click()
    await choose('Vary', 'Seed')
    await expect.poll(async () => (await names())[0]).toMatch(/^Seed \d+, as it is$/)
  })
})
