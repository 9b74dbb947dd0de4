import { newEffect, type Effect } from '@welkinar/core'
import type { BrowserContext } from 'playwright-core'
import sharp from 'sharp'
import { pageMemory } from '../../tests/support/pageMemory'
import {
  closeTimes,
  demoTimes,
  dialTimes,
  exportTimes,
  layRecipe,
  openPhoto,
  settled,
  sliderTimes,
  strokeTimes,
  topTimes,
  watchBlocks,
} from './browserTimes'
import { keyTimes, panelTimes } from './handTimes'
import { limitRow, median, percentile, type Row } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import { inChromium } from './inChromium'
import { mixedStack } from './stackRows'

const size = { width: WIDTH, height: HEIGHT }
const LOOKS = ['steady-rain', 'drizzle', 'downpour', 'driving-rain']

/** Times in Chromium at 1280×800 with a 24-megapixel photo. */
export async function browserRows(photo: string): Promise<Row[]> {
  return inChromium(async (browser, address) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true })
    const page = await context.newPage()
    await page.goto(address)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).waitFor({ timeout: 60_000 })
    const opening = await openPhoto(page, photo)
    await page.evaluate(watchBlocks)
    await layRecipe(page, rain(8))
    const slider = await sliderTimes(page)
    const exporting = await exportTimes(page)
    const [two, twenty] = [await topTimes(page, rain(2)), await topTimes(page, rain(20))]
    const [tenMixed, twentyMixed] = [await topTimes(page, mixedStack(size, 10)), await topTimes(page, mixedStack(size, 20))]
    const strokes = await strokeTimes(page)
    await layRecipe(page, mixedStack(size, 8))
    const mixed = await dialTimes(page, /^Haze, Blue distance/, 'Amount')
    const panel = await panelTimes(page, 'Near', ['Rain', 'Fog', 'Sparkles', 'Soft focus'])
    await layRecipe(page, mixedStack(size, 10))
    const presses = await keyTimes(page, /^Haze, Blue distance/, 'Amount')
    const close = await closeTimes(page)
    const exportingTen = await exportTimes(page)
    const blocks = await page.evaluate(() => (window as unknown as { blocks: number[] }).blocks)
    const large = pageMemory()
    await context.close()
    const sixty = await sixtyTimes(
      await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true }),
      address,
      photo,
    )
    const demos = await demoTimes(await browser.newContext({ viewport: { width: 1280, height: 800 } }), address)
    return [
      limitRow('slider to coarse picture, median, 24 MP, 8 effects', median(slider.coarse), 50, COARSE_LIMIT),
      limitRow('slider to coarse picture, 95th percentile', percentile(slider.coarse, 0.95), 100),
      limitRow('slider at rest to exact picture, median, same', median(slider.exact), 300),
      limitRow('opening a 24 MP JPEG: the photo is seen', opening.seen, 500),
      limitRow('opening a 24 MP JPEG: first exact picture', opening.exact, 1500),
      limitRow('export 24 MP, 8 effects, PNG', exporting.total, 12_000),
      limitRow('longest time the page was blocked while exporting', exporting.blocked, 50),
      {
        work: 'changing the top of 20 effects against the top of 2',
        ours: twenty,
        other: { name: 'top of 2', ms: two },
        reach: '≤ 1.2 ×',
        within: twenty / two <= 1.2,
        remark: TOP_LIMIT,
      },
      {
        work: 'the same: the top of 20 mixed effects with masks against the top of 10',
        ours: twentyMixed,
        other: { name: 'top of 10', ms: tenMixed },
        reach: '≤ 1.2 ×',
        within: twentyMixed / tenMixed <= 1.2,
      },
      limitRow('brush: from pointer event to drawn, median, 24 MP', median(strokes.drawn), 30),
      limitRow('brush: the same, 95th percentile', percentile(strokes.drawn, 0.95), 30),
      limitRow('brush: from lifting the pen to exact picture, median, 24 MP, 20 effects', median(strokes.exact), 300),
      limitRow('lowest of 8 mixed effects: to coarse picture, median, 24 MP in the fitted view', median(mixed.coarse), 50),
      limitRow('lowest of 8 mixed effects: to coarse picture, 95th percentile', percentile(mixed.coarse, 0.95), 100),
      limitRow('lowest of 8 mixed effects: to exact picture, median', median(mixed.exact), 300),
      { ...limitRow('10 mixed effects with masks, 24 MP: first exact picture at 1:1', close.first, 700), memory: large },
      limitRow('the same: lowest effect changed at 1:1, to coarse picture, median', median(close.lowest.coarse), 100),
      limitRow('the same: lowest effect changed at 1:1, to exact picture, median', median(close.lowest.exact), 700),
      limitRow('the same: top effect changed at 1:1, to exact picture, median', median(close.top.exact), 300),
      limitRow('the same: pan by 100 px at 1:1, to exact picture, median', median(close.pan), 150),
      { ...limitRow('the same: exported as PNG', exportingTen.total, 15_000), memory: exportingTen.memory },
      { ...limitRow('the same effects, 60 MP: exported as PNG (memory: ≤ 2.2 GB)', sixty.total, 40_000), memory: sixty.memory },
      limitRow('panel of kinds over 8 mixed effects: all pictures of the kind that is chosen first', panel[0] ?? NaN, 1000),
      limitRow('panel of kinds: the same of the next three, the slowest', Math.max(...panel.slice(1)), 1000),
      limitRow('a step of a dial by key, lowest of 10 mixed effects: graph and React, median', median(presses), 10),
      limitRow('a step of a dial by key: the same, 95th percentile', percentile(presses, 0.95), 20),
      limitRow('blocks of the page in all this: the longest', Math.max(0, ...blocks), 100, `${blocks.length} tasks took over 50 ms`),
      limitRow(`demo scenes (${demos.length}, 6 MP): opened, the slowest`, Math.max(...demos.map(({ opened }) => opened)), 800),
      limitRow('demo scenes: exact at 1:1, the slowest', Math.max(...demos.map(({ close }) => close)), 300),
      {
        ...limitRow('demo scenes: exact at 1:1, median', median(demos.map(({ close }) => close)), 300),
        memory: Math.max(...demos.map(({ memory }) => memory)),
      },
    ]
  })
}

const COARSE_LIMIT =
  'the lowest of eight effects is changed, so all eight are mixed anew; each mix at a reduced size decodes and encodes every pixel that a streak covers in part, and every drop of the changed effect is drawn whatever the size'
const TOP_LIMIT = 'the picture itself takes one mix in both cases, which a test counts'

/** Ten mixed effects on a photo of 60 megapixels, as a PNG. */
async function sixtyTimes(context: BrowserContext, address: string, photo: string): Promise<{ total: number; memory: number }> {
  const large = { width: 9486, height: 6324 }
  const file = photo.replace(/\.jpg$/, ' 60.jpg')
  await sharp(photo).resize(large.width, large.height, { fit: 'fill' }).jpeg({ quality: 90 }).toFile(file)
  const page = await context.newPage()
  await page.goto(address)
  await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).waitFor({ timeout: 60_000 })
  await page.getByLabel('Photo file').setInputFiles(file)
  await page.waitForURL(/scene/)
  await settled(page)
  await layRecipe(page, mixedStack(large, 10), large)
  const times = await exportTimes(page)
  await context.close()
  return times
}

function rain(count: number): Effect[] {
  return Array.from({ length: count }, (_, i) => newEffect(size, { kind: 'rain', look: LOOKS[i % LOOKS.length] ?? '', id: `rain ${i}` }))
}
