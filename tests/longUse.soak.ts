import type { Browser, Page } from 'playwright-core'
import { afterAll, describe, expect, it } from 'vitest'
import { demoNames, launch, shelfReady, visit } from './support/browser'
import { pageMemory } from './support/pageMemory'

/**
 * How long it is used; only in the soak (`npm run soak -- use`). No other browser of the same program may run meanwhile: of what they share each counts only
 * its part, so that one that ends makes this one 45 MB larger.
 */
const MINUTES = Number(process.env['WELKINAR_MINUTES'] ?? 30)

/** The memory of the page once garbage is collected and it changes no more: the browser lets go by and by of what was left. */
async function memoryAtRest(page: Page): Promise<number> {
  const client = await page.context().newCDPSession(page)
  await client.send('HeapProfiler.enable')
  const last: number[] = []
  while (last.length < 4 || Math.max(...last) > 1.02 * Math.min(...last)) {
    await client.send('HeapProfiler.collectGarbage')
    last.push(pageMemory())
    if (last.length > 4) last.shift()
    await page.waitForTimeout(500)
  }
  await client.detach()
  return last.at(-1) ?? 0
}

const among = <T>(all: readonly T[]): T => all[Math.floor(Math.random() * all.length)]!

/** One thing that somebody does who looks around in a scene. */
async function doSomething(page: Page): Promise<void> {
  const box = await page.locator('[data-testid=picture]').boundingBox()
  if (!box) return
  const [x, y] = [box.x + box.width * Math.random() * 0.8, box.y + box.height * Math.random() * 0.8]
  const what = Math.random()
  if (what < 0.35) {
    const dials = page.getByRole('group', { name: 'Dials' }).getByRole('slider')
    const count = await dials.count()
    if (count === 0) return
    await dials.nth(Math.floor(Math.random() * count)).focus()
    for (let i = 0; i < 6; i++) await page.keyboard.press(among(['ArrowLeft', 'ArrowRight', 'PageUp', 'PageDown']))
  } else if (what < 0.55) {
    await page.mouse.move(x, y)
    await page.mouse.wheel(0, (Math.random() - 0.5) * 1200)
  } else if (what < 0.75) {
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x + (Math.random() - 0.5) * 300, y + (Math.random() - 0.5) * 200, { steps: 5 })
    await page.mouse.up()
  } else if (what < 0.85) {
    const cards = page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name: /, / })
    const count = await cards.count()
    if (count > 0) await cards.nth(Math.floor(Math.random() * count)).click()
  } else await page.keyboard.press(among(['q', 'w', 'Control+z', 'Control+Shift+z']))
  await page.locator('[data-testid=picture][data-settled=true]').waitFor({ timeout: 60_000 })
}

describe('long use', () => {
  let browser: Browser
  afterAll(() => browser.close())

  it(
    `of ${MINUTES} minutes ends with the memory that it had after five`,
    async () => {
      browser = await launch()
      const { page, complaints } = await visit(browser)
      await shelfReady(page)
      const started = Date.now()
      const minutes = () => (Date.now() - started) / 60_000
      const found: { at: number; most: number; memory: number }[] = []
      while (minutes() < MINUTES) {
        await page.getByRole('link', { name: `Open ${among(demoNames)}`, exact: true }).click()
        await page.locator('[data-testid=picture][data-settled=true]').waitFor({ timeout: 60_000 })
        for (let i = 0; i < 25; i++) await doSomething(page)
        const most = pageMemory()
        await page.getByRole('link', { name: 'Shelf' }).click()
        await shelfReady(page)
        found.push({ at: minutes(), most, memory: await memoryAtRest(page) })
      }
      // Medians of some minutes, since what is kept comes and goes.
      const middle = (from: number, to: number, of: 'most' | 'memory') => {
        const part = found.filter(({ at }) => at >= from && at <= to).map((one) => one[of])
        return part.sort((a, b) => a - b)[Math.floor(part.length / 2)] ?? NaN
      }
      const [early, late] = [middle(2, 8, 'memory'), middle(MINUTES - 6, MINUTES + 5, 'memory')]
      console.log(
        found.map(({ at, most, memory }) => [at, most / 1e6, memory / 1e6].map((n) => n.toFixed(n > 99 ? 0 : 1)).join(' ')).join(', '),
      )
      console.log(
        `in a scene: ${middle(2, 8, 'most') / 1e6} MB after five minutes, ${middle(MINUTES - 6, MINUTES + 5, 'most') / 1e6} MB in the end`,
      )
      expect(complaints).toEqual([])
      expect(late, `${(early / 1e6).toFixed(0)} MB after five minutes`).toBeLessThan(1.1 * early)
    },
    (MINUTES + 10) * 60_000,
  )
})
