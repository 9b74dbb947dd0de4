import { chromium } from 'playwright-core'
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic'],
})
const c = await b.newContext({ viewport: { width: 1280, height: 800 } })
const p = await c.newPage()
p.on('console', (m) => m.type() === 'error' && console.log(m.text()))
p.on('pageerror', (e) => console.log('ERR', e.message))
const url = 'http://localhost:' + process.env.PORT
await p.goto(url)
await p.locator('[aria-label="Open Last crossing, heavy rain"]').waitFor()
await p.screenshot({ path: '/tmp/b0.png' })
await p.getByRole('link', { name: 'Many photos' }).click()
const D = '/work/main/demo/photos/'
await p
  .getByLabel('Photo files')
  .setInputFiles(['headland', 'pine-inlet', 'ferry-quay', 'survey-hut'].map((n) => D + n + '.jpg').concat(['/work/main/package.json']))
await p.getByRole('button', { name: 'Choose a recipe', exact: true }).click()
await p.getByRole('menuitem', { name: 'Last light' }).click()
await p.getByRole('button', { name: 'Add a file' }).click()
await p.screenshot({ path: '/tmp/b1.png' })
await p.getByRole('button', { name: /^Make 10 files/ }).click()
await p.getByText('2 of 10 made').waitFor({ timeout: 60000 })
await p.screenshot({ path: '/tmp/b2.png' })
await p.getByText('8 of 10 made').waitFor({ timeout: 120000 })
await p.getByRole('button', { name: 'Save 8 files as a zip' }).waitFor()
await p
  .getByRole('button', { name: /^Look at/ })
  .first()
  .click()
await p.waitForTimeout(1500)
await p.screenshot({ path: '/tmp/b3.png' })
await b.close()
