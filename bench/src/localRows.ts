import { newEffect, newMask, noMarks, type Effect } from '@welkinar/core'
import type { Page } from 'playwright-core'
import { layRecipe, measures, openPhoto, settled, watchBlocks } from './browserTimes'
import { inChromium } from './inChromium'
import { limitRow, median, percentile, type Row } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import { mixedStack } from './stackRows'

const size = { width: WIDTH, height: HEIGHT }
const STROKES = 6

/** What a hand waits for while it works at a place: strokes, a correction, the list of steps. 24 MP, eight mixed effects. */
export async function localRows(photo: string): Promise<Row[]> {
  return inChromium(async (browser, address) => {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    await page.goto(address)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).waitFor({ timeout: 60_000 })
    await openPhoto(page, photo)
    await page.evaluate(watchBlocks)
    await layRecipe(page, [...mixedStack(size, 8), painted()])
    const on = await strokesSeen(page)
    const blockedByStrokes = Math.max(0, ...(await blocksOf(page)))
    const correction = await correctionTimes(page)
    const pointing = await pointingTimes(page)
    await layRecipe(page, [painted(), ...mixedStack(size, 8)])
    const under = await strokesSeen(page)
    return [
      limitRow('stroke to the frame that shows it, eight effects beneath: median', median(on), 50),
      limitRow('the same: 95th percentile', percentile(on, 0.95), 100),
      limitRow('longest time that the page was blocked meanwhile', blockedByStrokes, 50),
      limitRow('stroke to the frame that shows it, coarse, eight effects above: median', median(under), 80),
      limitRow('from the end of the drag of Correct here to a changed picture by its ring', median(correction), 200),
      limitRow('pointing at a step to its picture', median(pointing), 300),
    ]
  })
}

/** An adjustment that is painted nowhere yet. */
function painted(): Effect {
  const effect = newEffect(size, { kind: 'adjust', look: 'warm-evening', id: 'painted' })
  effect.where.masks = [newMask(size, { kind: 'brush', id: 'brush', join: 'keep', marks: noMarks })]
  return effect
}

/** What blocked the page since this was asked last, ms. */
async function blocksOf(page: Page): Promise<number[]> {
  return page.evaluate(() => (window as unknown as { blocks: number[] }).blocks.splice(0))
}

/** Strokes into the mask of the adjustment: from each place of the pen to the frame that shows it. */
async function strokesSeen(page: Page): Promise<number[]> {
  await page
    .getByRole('region', { name: 'Depth line' })
    .getByRole('button', { name: /^Adjust, Warm evening/ })
    .first()
    .click()
  const where = page.getByRole('region', { name: 'Where' }).getByRole('button').first()
  if ((await where.getAttribute('aria-expanded')) === 'false') await where.click()
  await page.getByRole('button', { name: 'Paint', exact: true }).click()
  await settled(page)
  // What comes now is painting, not the way to it.
  await blocksOf(page)
  const seen: number[] = []
  for (let stroke = 0; stroke < STROKES; stroke++) {
    await page.evaluate(() => performance.clearMeasures())
    await page.mouse.move(200, 150 + 60 * stroke)
    await page.mouse.down()
    for (let i = 0; i < 60; i++) {
      await page.mouse.move(200 + 9 * i, 150 + 60 * stroke + 25 * Math.sin(i / 5))
      await page.waitForTimeout(12)
    }
    await page.mouse.up()
    const times = await measures(page, 'stroke seen')
    await settled(page)
    // The first is for the compiler.
    if (stroke > 0) seen.push(...times)
  }
  await page.keyboard.press('Escape')
  return seen
}

/** From the end of a drag across a place to the first picture that a pull at its ring has changed. */
async function correctionTimes(page: Page): Promise<number[]> {
  const times: number[] = []
  await page.keyboard.press('e')
  await page.getByTestId('correct surface').waitFor()
  for (let i = 0; i < STROKES; i++) {
    await settled(page)
    await page.evaluate(() => performance.clearMeasures())
    await page.mouse.move(250 + 90 * i, 250)
    await page.mouse.down()
    await page.mouse.move(330 + 90 * i, 380)
    await page.mouse.up()
    const began = performance.now()
    await page.keyboard.press('a')
    await page.waitForFunction(() =>
      document.activeElement?.getAttribute('aria-label')?.startsWith('Strength of the correction: Exposure +0.00'),
    )
    await page.keyboard.press('ArrowUp')
    await page.waitForFunction(() => performance.getEntriesByName('picture, coarse', 'measure').length > 0)
    times.push(performance.now() - began)
  }
  await page.keyboard.press('Escape')
  return times
}

/** From pointing at steps to their pictures. */
async function pointingTimes(page: Page): Promise<number[]> {
  await page.getByRole('button', { name: 'All steps' }).click()
  const steps = page.getByRole('dialog', { name: 'Steps' }).getByRole('menuitem')
  const times: number[] = []
  const picture = () =>
    page
      .getByRole('dialog', { name: 'Steps' })
      .locator('canvas')
      .evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL())
  await page.waitForTimeout(1500)
  for (let i = 1; i <= STROKES; i++) {
    const before = await picture()
    const began = performance.now()
    await steps.nth(2 * i).hover()
    while ((await picture()) === before && performance.now() - began < 2000) await page.waitForTimeout(5)
    times.push(performance.now() - began)
    await page.waitForTimeout(600)
  }
  await page.keyboard.press('Escape')
  return times
}
