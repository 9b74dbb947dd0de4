import type { Page } from 'playwright-core'
import { settled } from './browserTimes'

// What the page itself does while a hand is at work: milliseconds as the browser measures them.

/** Presses an arrow key on a dial of the effect whose card has that name: what the page does within each press, which is the graph and React. */
export async function keyTimes(page: Page, card: RegExp, dial: string): Promise<number[]> {
  await page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name: card }).first().click()
  await settled(page)
  await page.evaluate(() => {
    const presses: number[] = []
    Object.assign(window, { presses })
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as PerformanceEventTiming[])
        if (entry.name === 'keydown') presses.push(entry.processingEnd - entry.processingStart)
    }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit)
  })
  const textbox = page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: dial, exact: true })
  // The first are for the compiler.
  for (let i = 0; i < 120; i++) {
    await textbox.press(i % 2 ? 'ArrowUp' : 'ArrowDown')
    await page.waitForTimeout(60)
  }
  // The keys after these are for the view.
  await textbox.blur()
  await settled(page)
  return (await page.evaluate(() => (window as unknown as { presses: number[] }).presses)).slice(-60)
}

/** From choosing kinds in the panel, one after another, to all pictures of their looks. */
export async function panelTimes(page: Page, place: string, kinds: readonly string[]): Promise<number[]> {
  await page.getByRole('button', { name: `Add an effect: ${place}` }).click()
  const times: number[] = []
  for (const kind of kinds) {
    const began = performance.now()
    await page.getByRole('navigation', { name: 'Kinds of effect' }).getByRole('button', { name: kind, exact: true }).last().click()
    await page.waitForFunction((name) => {
      const pictures = [...document.querySelectorAll<HTMLCanvasElement>(`[aria-label="Looks of ${name}"] canvas`)]
      // A canvas that nothing was drawn on has the size that the standard gives it.
      return pictures.length > 0 && pictures.every(({ width, height }) => width !== 300 || height !== 150)
    }, kind)
    times.push(performance.now() - began)
  }
  await page.keyboard.press('Escape')
  await settled(page)
  return times
}
