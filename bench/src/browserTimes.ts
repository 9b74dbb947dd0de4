import { readFileSync, writeFileSync } from 'node:fs'
import type { Effect } from '@welkinar/core'
import type { BrowserContext, Page } from 'playwright-core'
import { appears } from '../../tests/support/appears'
import { pageMemory } from '../../tests/support/pageMemory'
import { median } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import { recipeText } from './recipeText'

// What a person does in the Workbench, and how long the answer takes: milliseconds as the browser measures them.

const size = { width: WIDTH, height: HEIGHT }
const EXACT = '[data-testid=picture][data-settled=true]'

export async function settled(page: Page): Promise<void> {
  await page.waitForTimeout(100)
  await appears(page, EXACT, 120)
}

/** From the file to the photo on the screen, as the browser reads it, and to the first exact picture. */
export async function openPhoto(page: Page, photo: string): Promise<{ seen: number; exact: number }> {
  const times: { seen: number; exact: number }[] = []
  const bytes = readFileSync(photo)
  for (let i = 0; i < 3; i++) {
    // A byte after the end of the picture makes it another photo, which is not in the threads yet. On the disk, as a person's photos are.
    const file = photo.replace(/\.jpg$/, ` ${i}.jpg`)
    writeFileSync(file, Buffer.concat([bytes, Buffer.alloc(i)]))
    // The threads are started while the Shelf is looked at.
    await page.waitForTimeout(1500)
    const start = performance.now()
    await page.getByLabel('Photo file').setInputFiles(file)
    await appears(page, '[data-testid=opening]')
    const seen = performance.now() - start
    await appears(page, EXACT, 60)
    times.push({ seen, exact: performance.now() - start })
    if (i < 2) await page.getByRole('link', { name: 'Shelf' }).click()
  }
  return { seen: median(times.map((one) => one.seen)), exact: median(times.map((one) => one.exact)) }
}

/** Writes down from now on every task of the page over 50 ms. */
export function watchBlocks(): void {
  const blocks: number[] = []
  Object.assign(window, { blocks })
  new PerformanceObserver((list) => blocks.push(...list.getEntries().map(({ duration }) => duration))).observe({ type: 'longtask' })
}

interface Times {
  readonly coarse: number[]
  readonly exact: number[]
}

/** Drags a dial of the effect whose card has that name, and lets it rest: from its upper end downwards, so that no value comes twice and nothing is known of it. */
export async function dialTimes(page: Page, card: RegExp, dial: string): Promise<Times> {
  await page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name: card }).first().click()
  await settled(page)
  const thumb = page.getByRole('group', { name: 'Dials' }).getByRole('slider', { name: dial, exact: true }).locator('xpath=..')
  await page.getByRole('group', { name: 'Dials' }).getByRole('slider', { name: dial, exact: true }).focus()
  await page.keyboard.press('End')
  await settled(page)
  const times: Times = { coarse: [], exact: [] }
  for (let round = 0; round < 5; round++) {
    await page.evaluate(() => performance.clearMeasures())
    await thumb.scrollIntoViewIfNeeded()
    const box = await thumb.boundingBox()
    if (!box) throw new Error('The slider is not on the page.')
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    for (let step = 1; step <= 10; step++) {
      await page.mouse.move(box.x + box.width / 2 - 1.4 * step, box.y + box.height / 2)
      await page.waitForTimeout(100)
    }
    await page.mouse.up()
    await settled(page)
    if (round === 0) continue
    times.coarse.push(...(await measures(page, 'picture, coarse')))
    times.exact.push(...(await measures(page, 'picture, exact')).slice(-1))
    await page.waitForTimeout(1000)
  }
  return times
}

/** At one screen pixel for each of the photo: the first picture, dials, pans. */
export async function closeTimes(page: Page): Promise<{ first: number; lowest: Times; top: Times; pan: number[] }> {
  await page.evaluate(() => performance.clearMeasures())
  await page.keyboard.press('q')
  await settled(page)
  const first = (await measures(page, 'picture, exact')).at(-1) ?? NaN
  const lowest = await dialTimes(page, /^Haze, Blue distance/, 'Amount')
  const top = await dialTimes(page, /^Soft focus, Dream bloom/, 'Amount')
  const pan: number[] = []
  for (let i = 0; i < 10; i++) {
    // What is computed ahead is there when one has looked for a moment.
    await page.waitForTimeout(2500)
    await page.evaluate(() => performance.clearMeasures())
    await page.mouse.move(500, 300)
    await page.mouse.down()
    await page.mouse.move(500 + (i % 4 < 2 ? -100 : 100), 300)
    await page.mouse.up()
    await settled(page)
    pan.push(...(await measures(page, 'picture, exact')).slice(-1))
  }
  await page.keyboard.press('w')
  return { first, lowest, top, pan }
}

/** The scenes that are there at the first start, each opened and looked at 1:1. */
export async function demoTimes(
  context: BrowserContext,
  address: string,
): Promise<readonly { opened: number; close: number; memory: number }[]> {
  const page = await context.newPage()
  await page.goto(address)
  await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).waitFor({ timeout: 60_000 })
  const scenes: { opened: number; close: number; memory: number }[] = []
  const names = await page
    .getByRole('link', { name: /^Open / })
    .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? one.textContent ?? ''))
  for (const name of names.filter((one) => one !== 'Open a photo')) {
    await page.waitForTimeout(1500)
    await page.evaluate(() => performance.clearMeasures())
    const start = performance.now()
    await page.getByRole('link', { name, exact: true }).click()
    await appears(page, EXACT, 60)
    const opened = performance.now() - start
    await page.waitForTimeout(1500)
    await page.evaluate(() => performance.clearMeasures())
    await page.keyboard.press('q')
    await settled(page)
    scenes.push({ opened, close: (await measures(page, 'picture, exact')).at(-1) ?? NaN, memory: pageMemory() })
    await page.getByRole('link', { name: 'Shelf' }).click()
  }
  return scenes
}

/** Lays effects on the open photo, and waits until all is quiet. */
export async function layRecipe(page: Page, effects: Effect[], photo = size): Promise<void> {
  const text = recipeText('Bench', photo, effects)
  const chooser = page.waitForEvent('filechooser')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find a command' }).fill('open a recipe')
  await page.keyboard.press('Enter')
  await (await chooser).setFiles({ name: 'bench.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await page.getByText('replaced the effects').waitFor()
  await settled(page)
  await page.waitForTimeout(3000)
}

export function measures(page: Page, name: string): Promise<number[]> {
  return page.evaluate((wanted) => performance.getEntriesByName(wanted, 'measure').map(({ duration }) => duration), name)
}

/** Drags the density of the lowest effect, so that all eight are computed again, then lets it rest; no value comes twice. */
export async function sliderTimes(page: Page): Promise<{ coarse: number[]; exact: number[] }> {
  await page
    .getByRole('button', { name: /^Rain, Steady rain/ })
    .first()
    .click()
  await settled(page)
  const thumb = page.getByRole('group', { name: 'Dials' }).getByRole('slider', { name: 'Density', exact: true }).locator('xpath=..')
  await page.getByRole('group', { name: 'Dials' }).getByRole('slider', { name: 'Density', exact: true }).focus()
  await page.keyboard.press('End')
  await settled(page)
  const coarse: number[] = []
  const exact: number[] = []
  for (let round = 0; round < 6; round++) {
    await page.evaluate(() => performance.clearMeasures())
    const box = await thumb.boundingBox()
    if (!box) throw new Error('The slider is not on the page.')
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    for (let step = 1; step <= 12; step++) {
      await page.mouse.move(box.x + box.width / 2 - 1.1 * step, box.y + box.height / 2)
      await page.waitForTimeout(90)
    }
    await page.mouse.up()
    await settled(page)
    if (round === 0) continue
    coarse.push(...(await measures(page, 'picture, coarse')))
    exact.push(...(await measures(page, 'picture, exact')).slice(-1))
  }
  return { coarse, exact }
}

/** Makes a PNG: how long that takes and blocks the page, and the most memory that the page has meanwhile. */
export async function exportTimes(page: Page): Promise<{ total: number; blocked: number; memory: number }> {
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('button', { name: 'Make the PNG file' }).waitFor()
  await page.waitForTimeout(2500)
  await page.evaluate(() => {
    const store = window as unknown as { blocked: number }
    store.blocked = 0
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) store.blocked = Math.max(store.blocked, entry.duration)
    }).observe({ type: 'longtask' })
  })
  const start = performance.now()
  const waiting = page.waitForEvent('download', { timeout: 240_000 })
  let memory = 0
  const watch = setInterval(() => (memory = Math.max(memory, pageMemory())), 500)
  await page.getByRole('button', { name: 'Make the PNG file' }).click()
  await waiting.finally(() => clearInterval(watch))
  const total = performance.now() - start
  const blocked = await page.evaluate(() => (window as unknown as { blocked: number }).blocked)
  await page.getByRole('link', { name: /Workbench/ }).click()
  await settled(page)
  return { total, blocked, memory }
}

/** Paints long strokes into a mask of the top effect. */
export async function strokeTimes(page: Page): Promise<{ drawn: number[]; exact: number[] }> {
  await page.getByRole('region', { name: 'Where' }).getByRole('button').first().click()
  await page.getByRole('button', { name: 'Add a mask' }).click()
  await page.getByRole('menuitem', { name: 'Brush', exact: true }).click()
  await settled(page)
  const drawn: number[] = []
  const exact: number[] = []
  for (let stroke = 0; stroke < 8; stroke++) {
    await page.evaluate(() => performance.clearMeasures())
    await page.mouse.move(200, 150 + 40 * stroke)
    await page.mouse.down()
    for (let i = 0; i < 60; i++) await page.mouse.move(200 + 9 * i, 150 + 40 * stroke + 25 * Math.sin(i / 5))
    await page.mouse.up()
    await settled(page)
    drawn.push(...(await measures(page, 'stroke')))
    exact.push(...(await measures(page, 'picture, exact')).slice(-1))
    await page.waitForTimeout(400)
  }
  return { drawn, exact }
}

/** Exact picture after a change of the top effect's amount. */
export async function topTimes(page: Page, effects: Effect[]): Promise<number> {
  await layRecipe(page, effects)
  const amount = page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: 'Amount' })
  await page.evaluate(() => performance.clearMeasures())
  for (let i = 0; i < 8; i++) {
    await amount.press('ArrowDown')
    await settled(page)
    await page.waitForTimeout(500)
  }
  return median(await measures(page, 'picture, exact'))
}
