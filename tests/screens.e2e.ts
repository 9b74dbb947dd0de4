import type { Browser, Page } from 'playwright-core'
import { maskDefinitions } from '@welkinar/core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { everything } from '../core/test-support/sampled'
import { findings } from './support/axe'
import { launch, settled, shelfReady, visit } from './support/browser'

/** Presses Tab until an element of the role and name has the focus. */
async function tabTo(page: Page, role: string, name: RegExp): Promise<void> {
  for (let i = 0; i < 90; i++) {
    await page.keyboard.press('Tab')
    const hit = await page.evaluate(() => {
      const element = document.activeElement as HTMLElement | null
      const labelled = element?.getAttribute('aria-labelledby')
      const label = labelled ? document.getElementById(labelled)?.textContent : element?.getAttribute('aria-label')
      return {
        role: element?.getAttribute('role') ?? element?.tagName.toLowerCase() ?? '',
        name: (label ?? element?.textContent ?? '').trim(),
      }
    })
    if (hit.role === role && name.test(hit.name)) return
  }
  throw new Error(`Tab does not reach the ${role} ${name}.`)
}

describe('screens', () => {
  let browser: Browser
  let page: Page
  const asked: string[] = []
  beforeAll(async () => {
    browser = await launch()
    const visited = await visit(browser)
    page = visited.page
    page.on('request', (request) => asked.push(request.url()))
    await page.reload()
    await shelfReady(page)
  })
  afterAll(() => browser.close())

  it('the Shelf has no finding', async () => expect(await findings(page)).toEqual([]))

  it('with the keyboard alone: opens the scene, adds an effect, changes a dial and the mask, moves the effect, exports', async () => {
    await page.keyboard.press('Tab')
    await tabTo(page, 'a', /^Open Last crossing/)
    await page.keyboard.press('Enter')
    await settled(page)
    await tabTo(page, 'button', /^Add an effect: Far/)
    await page.keyboard.press('Enter')
    await tabTo(page, 'button', /^Rain$/)
    await page.keyboard.press('Enter')
    await tabTo(page, 'button', /^Drizzle/)
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: /^Rain, Drizzle, 62 %/ }).waitFor()
    await tabTo(page, 'input', /^Amount$/)
    await page.keyboard.press('ArrowUp')
    await page.getByRole('button', { name: /^Rain, Drizzle, 63 %/ }).waitFor()
    await tabTo(page, 'button', /Where/)
    await page.keyboard.press('Enter')
    await tabTo(page, 'slider', /^Full from/)
    await page.keyboard.press('Shift+ArrowRight')
    await page.getByText('tones above 32 %').first().waitFor()
    await page.keyboard.press('Shift+Period')
    expect(
      await page
        .getByRole('region', { name: 'Depth line' })
        .getByRole('heading', { name: 'Middle' })
        .locator('xpath=..')
        .getByRole('button', { name: /^Rain, Drizzle/ })
        .count(),
    ).toBe(1)
    await page.keyboard.press('k')
    await settled(page)
    await page.keyboard.press('k')
    await page.keyboard.press('k')
    await page.keyboard.press('q')
    await settled(page)
    await page.getByRole('button', { name: 'Zoom, 100 %' }).waitFor()
    await page.keyboard.press('w')
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+Shift+z')
    await settled(page)
  })

  // Each step and panel by itself: with longer texts, in sizes.e2e.ts.
  it('the divider and the list of commands have no finding', async () => {
    await page.getByRole('button', { name: 'Split' }).click()
    expect(await findings(page), 'split').toEqual([])
    await page.getByRole('button', { name: 'After', exact: true }).click()
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox', { name: 'Find a command' }).waitFor()
    expect(await findings(page), 'commands').toEqual([])
    await page.keyboard.press('Escape')
  })

  it('the photo’s own panel, its crop and the watch column have no finding; a crop is set with the keyboard', async () => {
    await page.getByRole('button', { name: 'Photo', exact: true }).click()
    await page.getByRole('button', { name: 'Watch', exact: true }).click()
    await page.getByRole('complementary', { name: 'Watch column' }).locator('[data-ready=true]').waitFor()
    // A hint of the button that was pressed is none of it.
    await page.mouse.move(600, 300)
    await page.getByRole('tooltip').waitFor({ state: 'hidden' })
    expect(await findings(page), 'photo and watch').toEqual([])
    await page.getByRole('button', { name: 'Crop', exact: true }).click()
    const corner = page.getByRole('button', { name: /^Upper left corner/ })
    await corner.focus()
    for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
    await page.getByRole('button', { name: 'Show it all' }).waitFor()
    expect(await findings(page), 'crop').toEqual([])
    await page.getByRole('button', { name: 'Show it all' }).click()
    await page.getByRole('button', { name: 'Keep this crop' }).click()
    await page.getByRole('button', { name: 'Watch', exact: true }).click()
    await page.getByRole('complementary', { name: 'Photo' }).getByRole('button', { name: 'Done' }).click()
  })

  // A third of the kinds of mask; all of them in the soak.
  it('kinds of mask, a group and the scene marks have no finding', async () => {
    const header = page.getByRole('button', { name: /\dWhere/ })
    if ((await header.getAttribute('aria-expanded')) === 'false') await header.click()
    for (const { label } of everything ? maskDefinitions : maskDefinitions.filter((_, i) => i % 3 === 0)) {
      await page.getByRole('button', { name: 'Add a mask' }).click()
      await page.getByRole('menuitem', { name: label, exact: true }).click()
      await page.getByRole('group', { name: `${label} mask` }).waitFor()
    }
    expect(await findings(page), 'all masks').toEqual([])
    await page.getByRole('button', { name: 'Marks', exact: true }).click()
    await page.getByRole('button', { name: 'Tap a light' }).click()
    await page.getByTestId('tap surface').click({ position: { x: 200, y: 200 } })
    await page.getByRole('group', { name: 'Light 3' }).waitFor()
    await page.getByRole('button', { name: 'Tap a light' }).click()
    expect(await findings(page), 'marks').toEqual([])
    await page.getByRole('button', { name: 'Done' }).click()
    await page.getByRole('button', { name: 'More about Rain' }).last().click()
    await page.getByRole('menuitem', { name: 'Group', exact: true }).click()
    await page.getByRole('button', { name: 'Ungroup' }).waitFor()
    expect(await findings(page), 'group').toEqual([])
  })

  it('the Export screen has no finding', async () => {
    await page.keyboard.press('Control+e')
    await page.getByRole('button', { name: 'Make the PNG file' }).waitFor()
    await page.getByRole('button', { name: 'JPEG' }).click()
    expect(await findings(page)).toEqual([])
  })

  it('a wrong address has no finding', async () => {
    await page.goto(`${inject('address')}/no/such/page`)
    await page.getByText('There is no page at this address.').waitFor()
    expect(await findings(page)).toEqual([])
  })

  it('stays whole at 1024 px and has its panels in sight', async () => {
    await page.goto(inject('address'))
    await page.setViewportSize({ width: 1024, height: 720 })
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
    await settled(page)
    const wide = await page.evaluate(() => document.documentElement.scrollWidth)
    expect(wide).toBeLessThanOrEqual(1024)
    const box = await page.getByRole('link', { name: 'Export' }).boundingBox()
    expect(box!.x + box!.width).toBeLessThanOrEqual(1024)
    const name = page.getByRole('textbox', { name: 'Name of the scene' })
    expect(await name.evaluate(({ scrollWidth, clientWidth }) => scrollWidth <= clientWidth)).toBe(true)
    const picture = () => page.getByTestId('picture').boundingBox()
    const narrow = (await picture())!.width
    await page.keyboard.press('h')
    await expect.poll(async () => (await picture())!.width).toBeGreaterThan(narrow + 200)
    await page
      .getByRole('button', { name: /^Rain, Drizzle/ })
      .first()
      .click()
    await page.getByRole('complementary', { name: 'Steps' }).waitFor()
  })

  it('is isolated, and asks nobody but its own server', async () => {
    expect(await page.evaluate(() => crossOriginIsolated)).toBe(true)
    const others = asked.filter((url) => !url.startsWith(inject('address')) && !url.startsWith('blob:') && !url.startsWith('data:'))
    expect(others).toEqual([])
    expect(asked.length).toBeGreaterThan(5)
  })
})
