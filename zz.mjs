import { chromium } from 'playwright-core'
import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
const root = process.argv[2], port = process.argv[3], threads = process.argv[4]
const server = spawn('node', [root + '/server/dist/main.js'], { env: { ...process.env, PORT: port }, stdio: 'ignore' })
await new Promise((r) => setTimeout(r, 2000))
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu', '--disable-quic'] })
const settled = async (page) => { await page.waitForTimeout(60); await page.locator('[data-testid=picture][data-settled=true]').waitFor({ timeout: 90000 }) }
try {
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
page.setDefaultTimeout(60000)
page.on('console', (m) => m.type() === 'error' && console.log('console', m.text()))
page.on('pageerror', (m) => console.log('error', m.message))
if (threads) await page.addInitScript((n) => Object.defineProperty(navigator, 'hardwareConcurrency', { get: () => +n }), threads)
await page.goto('http://127.0.0.1:' + port + '/')
await page.locator('[aria-label="Open Last crossing, heavy rain"]').waitFor()
await page.getByLabel('Photo file').setInputFiles('/tmp/srgb_24.jpg')
await page.waitForURL(/scene/); await settled(page)
const lay = async (file) => {
  const chooser = page.waitForEvent('filechooser')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find a command' }).fill('open a recipe')
  await page.keyboard.press('Enter')
  await (await chooser).setFiles({ name: 'bench.json', mimeType: 'application/json', buffer: readFileSync(file) })
  await page.getByText('replaced the effects').waitFor()
  await settled(page); await page.waitForTimeout(3000)
}
const measures = (name) => page.evaluate((w) => performance.getEntriesByName(w, 'measure').map((e) => Math.round(e.duration)), name)
const med = (a) => [...a].sort((x, y) => x - y)[a.length >> 1]
const dial = async (card, name, label) => {
  await page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name: card }).first().click(); await settled(page)
  const field = page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name, exact: true })
  await page.waitForTimeout(1000)
  await field.press('ArrowDown'); await settled(page)
  await page.evaluate(() => performance.clearMeasures())
  const exact = []
  for (let i = 0; i < 7; i++) { await field.press('ArrowDown'); await settled(page); exact.push((await measures('picture, exact')).at(-1)); await page.waitForTimeout(900) }
  console.log(label, 'coarse', med(await measures('picture, coarse')), 'exact', med(exact), JSON.stringify(exact))
}
await lay('/tmp/mixed10.json')
await dial(/^Haze, Blue distance/, 'Amount', 'fitted, lowest of ten')
await page.evaluate(() => performance.clearMeasures())
await page.keyboard.press('q'); await settled(page)
console.log('1:1 first exact', (await measures('picture, exact')).at(-1))
await dial(/^Haze, Blue distance/, 'Amount', '1:1, lowest of ten')
await dial(/^Soft focus, Dream bloom/, 'Amount', '1:1, top')
const { execSync } = await import('node:child_process')
console.log('memory MB', Math.round(execSync('ps -eo rss,comm | grep -i chrom').toString().split('\n').reduce((s, l) => s + (+l.trim().split(/\s+/)[0] || 0), 0) / 1024))
} finally { await browser.close(); server.kill() }
