import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from 'playwright-core'

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

interface Finding {
  readonly id: string
  readonly impact: string
  readonly where: string
}

/** Findings of axe (WCAG 2.2 A and AA, and what it holds for good practice). @param part a selector, where only that part is new */
export async function findings(page: Page, part = 'html'): Promise<Finding[]> {
  // As the tool's own code, outside the page's policy.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe)
  return page.evaluate(async (where) => {
    const runner = (
      window as unknown as {
        axe: { run(part: string, options: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }> }
      }
    ).axe
    const { violations } = await runner.run(where, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
      // The headings before a part are not seen.
      rules: { 'heading-order': { enabled: where === 'html' } },
    })
    return violations.map(({ id, impact, nodes }) => ({ id, impact, where: nodes.map(({ html }) => html.slice(0, 160)).join('\n') }))
  }, part)
}
