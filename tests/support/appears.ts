import type { Page } from 'playwright-core'

/** Waits for an element, and looks whenever the page changes: the waiting of a locator looks twice a second. */
export async function appears(page: Page, selector: string, seconds = 30): Promise<void> {
  await page.evaluate(
    ([wanted, patience]) =>
      new Promise<void>((resolve, reject) => {
        const look = (): void => {
          if (!document.querySelector(wanted)) return
          clearTimeout(late)
          watch.disconnect()
          resolve()
        }
        const watch = new MutationObserver(look)
        const late = setTimeout(() => {
          watch.disconnect()
          reject(new Error(`${wanted} did not appear within ${patience / 1000} s.`))
        }, patience)
        watch.observe(document, { subtree: true, childList: true, attributes: true })
        look()
      }),
    [selector, 1000 * seconds] as const,
  )
}
