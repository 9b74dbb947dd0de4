import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { everything } from '../core/test-support/sampled'
import { findings } from './support/axe'
import { launch, settled, shelfReady } from './support/browser'
import { outOfReach, unreadable, withLongerTexts } from './support/texts'

const sizes = [
  ['with texts that are two fifths longer', { width: 1280, height: 800, ratio: 1, isLonger: true }],
  ['at 1024 × 768 px', { width: 1024, height: 768, ratio: 1, isLonger: false }],
  // A window of 1280 × 800 px as it is when the browser enlarges it twice.
  ['at 200 %', { width: 640, height: 400, ratio: 2, isLonger: false }],
] as const

/** The views, one after another, and how each is come to from the one before. */
const views: readonly (readonly [string, (page: Page) => Promise<void>])[] = [
  ['Shelf', shelfReady],
  [
    'Workbench',
    async (page) => {
      await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
      await settled(page)
    },
  ],
  ...['Pattern', 'Shape', 'Colour', 'Where', 'Mix'].map(
    (step) => [`step ${step}`, (page: Page) => page.getByRole('button', { name: new RegExp(`\\d${step}`) }).click()] as const,
  ),
  ['photo panel', (page) => page.getByRole('button', { name: 'Photo', exact: true }).click()],
  ['marks', (page) => page.getByRole('button', { name: 'Marks', exact: true }).click()],
  [
    'watch column',
    async (page) => {
      await page.keyboard.press('h')
      await page.getByRole('button', { name: 'Watch', exact: true }).click()
    },
  ],
  [
    'panel of kinds',
    async (page) => {
      const line = page.getByRole('button', { name: /^Depth line/ })
      if (await line.isVisible()) await line.click()
      await page.getByRole('button', { name: 'Add an effect: Near' }).click()
      await page.getByRole('button', { name: 'Drizzle', exact: true }).waitFor()
    },
  ],
  [
    'keys',
    async (page) => {
      await page.getByRole('button', { name: 'Close' }).click()
      await page.keyboard.press('?')
      await page.getByRole('dialog', { name: 'Keys' }).waitFor()
    },
  ],
  [
    'Export',
    async (page) => {
      await page.keyboard.press('Escape')
      await page.getByRole('link', { name: 'Export' }).click()
      await page.getByRole('button', { name: 'Make the PNG file' }).waitFor()
    },
  ],
]

/** The views that a smaller window lays out in another way, and those between them. */
const laidOutAnew = ['Shelf', 'Workbench', 'step Where', 'panel of kinds', 'keys', 'Export']

describe.each(sizes)('%s', (_, { width, height, ratio, isLonger }) => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    const context = await browser.newContext({ viewport: { width, height }, deviceScaleFactor: ratio })
    page = await context.newPage()
    page.setDefaultTimeout(10_000)
    await page.goto(inject('address'))
  })
  afterAll(() => browser.close())

  it.each(isLonger || everything ? views : views.filter(([name]) => laidOutAnew.includes(name)))(
    '%s: nothing is cut off, out of reach, or a finding of axe',
    async (_name, come) => {
      await come(page)
      await page.mouse.move(width / 2, height / 2)
      // A hint of what was pressed is no part of the view.
      await page.getByRole('tooltip').waitFor({ state: 'hidden' })
      const look = async () => ({
        unreadable: await unreadable(page),
        outOfReach: await outOfReach(page),
        beyond: (await page.evaluate(() => document.documentElement.scrollWidth)) - width,
      })
      expect(await (isLonger ? withLongerTexts(page, look) : look())).toEqual({ unreadable: [], outOfReach: [], beyond: 0 })
      expect(await findings(page)).toEqual([])
    },
  )
})
