import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, canvasRow, dragBy, drawn, launch, settled, shelfReady, visit } from './support/browser'

describe('the Workbench', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    page = (await visit(browser)).page
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).click()
    await settled(page)
  })
  afterAll(() => browser.close())

  const card = (name: RegExp) => page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name })
  const order = async () => {
    const labels = await page
      .getByRole('region', { name: 'Depth line' })
      .getByRole('button', { name: /^Rain, / })
      .evaluateAll((cards) => cards.map((one) => one.getAttribute('aria-label') ?? ''))
    return labels.map((label) => label.split(', ')[1])
  }
  const zoom = async () => Number.parseFloat((await page.getByRole('button', { name: /^Zoom, / }).textContent()) ?? '')
  const dial = (label: string) => page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name: label, exact: true })
  const undo = () => page.getByRole('button', { name: 'Undo' }).click()
  const openStep = async (step: string) => {
    const header = page.getByRole('button', { name: new RegExp(`\\d${step}`) })
    if ((await header.getAttribute('aria-expanded')) === 'false') await header.click()
  }

  it('zooms with the wheel about the pointer, pans by dragging and with the arrow keys, and goes back to the whole', async () => {
    const fitted = await zoom()
    const picture = page.locator('[data-testid=picture]')
    const box = (await picture.boundingBox())!
    await page.mouse.move(box.x + 300, box.y + 200)
    await page.mouse.wheel(0, -700)
    await settled(page)
    expect(await zoom()).toBeGreaterThan(fitted * 2)
    const before = await canvasRow(page, 0.5)
    await dragBy(page, picture, -120, 40)
    await settled(page)
    const panned = await canvasRow(page, 0.5)
    expect(panned).not.toEqual(before)
    // What was shown stays, the rest is added to it: the same as all of it computed anew.
    await card(/^Rain, Downpour/).focus()
    await page.keyboard.press('o')
    await settled(page)
    expect(await canvasRow(page, 0.5)).not.toEqual(panned)
    await page.keyboard.press('o')
    await settled(page)
    expect(await canvasRow(page, 0.5)).toEqual(panned)
    await page.getByRole('group', { name: /^Picture/ }).focus()
    await page.keyboard.press('ArrowRight')
    await settled(page)
    expect(await canvasRow(page, 0.5)).not.toEqual(panned)
    await page.keyboard.press('w')
    await settled(page)
    expect(await zoom()).toBe(fitted)
    await picture.dblclick()
    await settled(page)
    expect(await zoom()).toBe(100)
    await picture.dblclick()
  })

  it('selects a card with a click, and shows the steps of that effect', async () => {
    await card(/^Rain, Drizzle/).click()
    await page.getByRole('complementary', { name: 'Steps' }).getByPlaceholder('Drizzle').waitFor()
    await card(/^Rain, Downpour/).click()
    await page.getByRole('complementary', { name: 'Steps' }).getByPlaceholder('Downpour').waitFor()
  })

  it('an effect can have a name of its own, and keeps the marks of its look', async () => {
    const name = page.getByRole('textbox', { name: 'Name of the effect' })
    const reset = page.getByRole('button', { name: /^Reset Length to/ })
    const marked = await reset.getAttribute('aria-label')
    await name.fill('Evening shower')
    await name.press('Enter')
    await card(/^Rain, Evening shower/).waitFor()
    await page.getByRole('region', { name: 'Depth line' }).getByText('Evening shower').waitFor()
    expect(await reset.getAttribute('aria-label')).toBe(marked)
    // Without a name of its own it is called by its look again.
    await name.fill('')
    await name.press('Enter')
    await card(/^Rain, Downpour/).waitFor()
    await undo()
    await card(/^Rain, Evening shower/).waitFor()
    await undo()
    await card(/^Rain, Downpour/).waitFor()
  })

  it('moves an effect by dragging its card, and undoes it', async () => {
    expect(await order()).toEqual(['Drizzle', 'Downpour'])
    const from = (await card(/^Rain, Downpour/).boundingBox())!
    const to = (await card(/^Rain, Drizzle/).boundingBox())!
    await page.mouse.move(from.x + 30, from.y + 20)
    await page.mouse.down()
    await page.mouse.move(from.x - 40, from.y + 20, { steps: 5 })
    await page.mouse.move(to.x + 20, to.y + 20, { steps: 10 })
    await drawn(page)
    await page.mouse.up()
    await expect.poll(order).toEqual(['Downpour', 'Drizzle'])
    await undo()
    await expect.poll(order).toEqual(['Drizzle', 'Downpour'])
  })

  it('switches an effect off and on, duplicates it with another seed, removes it', async () => {
    const seedOf = async () => {
      await openStep('Pattern')
      return page.getByRole('complementary', { name: 'Steps' }).getByRole('textbox', { name: 'Seed' }).inputValue()
    }
    await card(/^Rain, Downpour/).click()
    await page.keyboard.press('o')
    await card(/^Rain, Downpour, off/).waitFor()
    await page.keyboard.press('o')
    await card(/^Rain, Downpour, 52 %/).waitFor()
    const seed = await seedOf()
    await page.getByRole('button', { name: 'More about Rain' }).nth(1).click()
    await page.getByRole('menuitem', { name: 'Duplicate' }).click()
    await expect.poll(order).toEqual(['Drizzle', 'Downpour', 'Downpour'])
    expect(await seedOf()).not.toBe(seed)
    await page.getByRole('button', { name: 'More about Rain' }).nth(2).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    await expect.poll(order).toEqual(['Drizzle', 'Downpour'])
  })

  it('a changed value has a mark that resets it; arrow keys step, with Shift ten times as far', async () => {
    const density = dial('Density')
    await density.fill('62')
    await density.press('Enter')
    await page.getByRole('button', { name: /^Reset Density/ }).waitFor({ state: 'detached' })
    await density.press('ArrowUp')
    expect(await density.inputValue()).toBe('63')
    await density.press('Shift+ArrowUp')
    expect(await density.inputValue()).toBe('73')
    await page.getByRole('button', { name: 'Reset Density to 62' }).click()
    expect(await density.inputValue()).toBe('62')
    await density.fill('310')
    await density.press('Enter')
    expect(await density.inputValue()).toBe('310')
    await undo()
  })

  it('opens each layer of the pattern', async () => {
    await openStep('Pattern')
    const layers = page.getByRole('group', { name: 'Layers' })
    await layers.getByRole('button', { name: 'Layer 3' }).click()
    const size = layers.getByRole('textbox', { name: 'Size' })
    const before = Number.parseFloat(await size.inputValue())
    await size.press('Shift+ArrowUp')
    expect(Number.parseFloat(await size.inputValue())).toBeCloseTo(before + 0.5, 5)
    await undo()
  })

  it('takes the colour from the brightest of the photo, or as typed', async () => {
    await openStep('Colour')
    const tint = page.getByRole('textbox', { name: /^Tint/ })
    await tint.fill('8899aa')
    await tint.press('Enter')
    expect(await tint.inputValue()).toBe('#8899aa')
    await page.getByRole('button', { name: 'From the brightest 5 %' }).click()
    await expect.poll(() => tint.inputValue()).not.toBe('#8899aa')
    expect(await tint.inputValue()).toMatch(/^#[0-9a-f]{6}$/)
    await undo()
    await undo()
  })

  it('mixes in another mode and in linear light', async () => {
    await openStep('Mix')
    await settled(page)
    const before = await canvasRow(page, 0.3)
    await page.getByRole('combobox', { name: 'Mode' }).click()
    await page.getByRole('option', { name: 'Difference' }).click()
    await settled(page)
    const difference = await canvasRow(page, 0.3)
    expect(difference).not.toEqual(before)
    await page.getByRole('switch', { name: 'Blend in linear light' }).click()
    await settled(page)
    expect(await canvasRow(page, 0.3)).not.toEqual(difference)
    await undo()
    await undo()
    await settled(page)
    expect(await canvasRow(page, 0.3)).toEqual(before)
  })

  it('lists masks: quick choices, tighter and wider, invert, subtract, switch off, remove', async () => {
    await openStep('Where')
    const summary = () => page.getByRole('button', { name: /\dWhere/ }).textContent()
    await page.getByRole('button', { name: 'Grey' }).click()
    await page.getByRole('button', { name: 'Shadows', exact: true }).click()
    await settled(page)
    expect(await summary()).toContain('shadows')
    const lamp = await canvasPixel(page, 0.292, 0.21)
    const hull = await canvasPixel(page, 0.8, 0.62)
    expect(hull[0]!).toBeGreaterThan(lamp[0]! + 60)
    await page.getByRole('switch', { name: 'Invert' }).click()
    await settled(page)
    expect((await canvasPixel(page, 0.8, 0.62))[0]!).toBeLessThan(hull[0]!)
    await page.getByRole('button', { name: 'Tighter' }).click()
    await page.getByRole('button', { name: 'Tighter' }).click()
    await page.getByRole('button', { name: 'Wider' }).click()
    expect(await page.getByRole('textbox', { name: 'Steepness' }).inputValue()).toBe('1.0')
    await page.getByRole('button', { name: 'Add a mask' }).click()
    await page.getByRole('menuitem', { name: 'Luminosity', exact: true }).click()
    expect(await summary()).toContain('less highlights')
    await page.getByRole('combobox', { name: 'How mask 2 joins' }).click()
    await page.getByRole('option', { name: 'Intersect' }).click()
    expect(await summary()).toContain('and highlights')
    await page.getByRole('switch', { name: /^Mask 2/ }).click()
    expect(await summary()).not.toContain('highlights')
    await page.getByRole('button', { name: 'More about mask 2' }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    await page.getByRole('button', { name: 'More about mask 1' }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    expect(await summary()).toContain('everywhere')
    await page.getByRole('button', { name: 'Picture', exact: true }).click()
  })

  it('hatches what the mask shuts out, in the accent colour', async () => {
    await page.getByRole('button', { name: 'Add a mask' }).click()
    await page.getByRole('menuitem', { name: 'Luminosity', exact: true }).click()
    await page.getByRole('button', { name: 'Hatch' }).click()
    await settled(page)
    const row = await Promise.all(Array.from({ length: 12 }, (_, i) => canvasPixel(page, 0.85 + i * 0.004, 0.66)))
    // Red-brown lines over the dark hull.
    expect(row.some(([red, green, blue]) => red! > 110 && green! < 90 && blue! < 80)).toBe(true)
    await page.keyboard.press('k')
  })

  it('every change of this session can be undone, one after another', async () => {
    const button = page.getByRole('button', { name: 'Undo' })
    for (let i = 0; i < 60 && (await button.isEnabled()); i++) await button.click()
    expect(await button.isEnabled()).toBe(false)
    expect(await order()).toEqual(['Drizzle', 'Downpour'])
    await card(/^Rain, Downpour, 52 %/).waitFor()
  })
})
