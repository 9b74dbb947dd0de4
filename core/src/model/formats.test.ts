import { readFileSync, writeFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { controlTables } from '../../test-support/controlTables'

const page = new URL('../../../docs/formats.md', import.meta.url)
const [BEGIN, END] = ['<!-- controls: written by npm run docs -->', '<!-- end of controls -->']

// `npm run docs` writes them.
it('the tables of controls in docs/formats.md say what the schemas say', () => {
  const text = readFileSync(page, 'utf8')
  const [from, to] = [text.indexOf(BEGIN) + BEGIN.length, text.indexOf(END)]
  expect(to).toBeGreaterThan(from)
  const tables = controlTables()
  if (process.env['WELKINAR_WRITE_DOCS']) writeFileSync(page, `${text.slice(0, from)}\n\n${tables}\n${text.slice(to)}`)
  // Without the padding that makes columns of it.
  else expect(bare(text.slice(from, to))).toBe(bare(tables))
})

function bare(text: string): string {
  return text
    .replace(/-{3,}/g, '---')
    .replace(/ *\| */g, '|')
    .trim()
}
