import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canvasPixel, launch, settled, shelfReady, visit } from './support/browser'

describe('depth, sky and water', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Moorings at midnight' }).click()
    await settled(page)
  })
  afterAll(() => browser.close())

  const card = (name: RegExp) => page.getByRole('button', { name })
  const dial = (name: string) => page.getByRole('group', { name: 'Dials' }).getByRole('textbox', { name, exact: true })
  const open = async (step: string) => {
    const header = page.getByRole('button', { name: new RegExp(`\\d${step}`) })
    if ((await header.getAttribute('aria-expanded')) === 'false') await header.click()
  }
  const light = async (x: number, y: number, width = 0.3, height = 0.15) => {
    await settled(page)
    return page.locator('[data-testid=picture]').evaluate(
      (canvas, [px, py, w, h]) => {
        const picture = canvas as HTMLCanvasElement
        const area = [picture.width * px!, picture.height * py!, picture.width * w!, picture.height * h!].map(Math.round) as [
          number,
          number,
          number,
          number,
        ]
        const { data } = picture.getContext('2d')!.getImageData(...area)
        return data.reduce((sum, value, i) => (i % 4 === 3 ? sum : sum + value), 0) / (data.length * 0.75)
      },
      [x, y, width, height],
    )
  }

  it('stars say what their settings mean, and turn about a pole that is dragged', async () => {
    await card(/^Stars, Band of stars/).click()
    await page.getByText('Points, as in 21 s and less at 24 mm').waitFor()
    await dial('Trails').fill('60')
    await dial('Trails').press('Enter')
    await page.getByText('The sky turns 15° in 60 min').waitFor()
    await open('Shape')
    const pole = page.getByRole('button', { name: 'Pole of the sky. Arrow keys move it.' })
    const down = async () => {
      const text = await page.getByRole('region', { name: 'Shape' }).getByRole('textbox', { name: 'Pole y' }).inputValue()
      return Number(text.replace('−', '-').replace(/[^\d.-]/g, ''))
    }
    const before = await down()
    await pole.focus()
    for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowDown')
    await expect.poll(down).toBeGreaterThan(before + 20)
    for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z')
    await page.getByText('Points, as in 21 s and less at 24 mm').waitFor()
  })

  it('a magnitude out of range is refused with a message, and nothing is lost', async () => {
    await dial('Faintest').fill('40')
    await dial('Faintest').press('Enter')
    await page
      .getByText(/Between -1 and 11/)
      .first()
      .waitFor()
    await page.keyboard.press('Escape')
    expect(await card(/^Stars, Band of stars/).count()).toBe(1)
  })

  it('what enters the sky enters the water, once for each effect', async () => {
    await card(/^Stars, Band of stars/).focus()
    await page.getByRole('button', { name: 'More about Stars' }).click()
    await page.getByRole('menuitem', { name: 'Reflect in the water' }).click()
    await page.getByRole('heading', { name: 'Reflection', exact: true }).waitFor()
    await open('Pattern')
    expect(await page.getByRole('combobox', { name: 'Mirrors' }).innerText()).toBe('Band of stars')
    const with2 = await light(0.3, 0.66)
    await page.keyboard.press('Control+z')
    await expect.poll(() => light(0.3, 0.66)).toBeLessThan(with2)
  })

  it('plays, and rests where it was', async () => {
    const still = await canvasPixel(page, 0.42, 0.4)
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    const rest = page.getByRole('button', { name: 'Rest', exact: true })
    await rest.waitFor()
    const seen = new Set<number>()
    for (let i = 0; i < 8; i++) {
      seen.add(
        Math.round(
          1000 *
            (await page.locator('[data-testid=picture]').evaluate((canvas) => {
              const picture = canvas as HTMLCanvasElement
              const { data } = picture.getContext('2d')!.getImageData(300, 120, 200, 100)
              return data.reduce((sum, value) => sum + value, 0) / data.length
            })),
        ),
      )
      await page.waitForTimeout(250)
    }
    expect(seen.size).toBeGreaterThan(2)
    await rest.click()
    await expect
      .poll(async () => {
        await settled(page)
        return canvasPixel(page, 0.42, 0.4)
      })
      .toEqual(still)
  })

  it('a region is outlined, has a distance, and shows in the picture of distances and its profile', async () => {
    await page.getByRole('button', { name: 'Marks', exact: true }).click()
    await page.getByRole('img', { name: /^Distances/ }).waitFor()
    await page.locator('.recharts-line-curve').waitFor()
    const curve = () => page.locator('.recharts-line-curve').getAttribute('d')
    const before = await curve()
    await page.getByRole('button', { name: 'Outline one' }).click()
    const box = (await page.getByTestId('picture').boundingBox())!
    for (const [x, y] of [
      [0.4, 0.2],
      [0.6, 0.2],
      [0.6, 0.4],
      [0.4, 0.4],
    ] as const)
      await page.mouse.click(box.x + x * box.width, box.y + y * box.height)
    await page.keyboard.press('Enter')
    const region = page.getByRole('group', { name: 'Region 1' })
    await region.getByRole('textbox', { name: 'Distance' }).fill('3')
    await region.getByRole('textbox', { name: 'Distance' }).press('Enter')
    await expect.poll(curve).not.toBe(before)
    await page.getByRole('button', { name: 'Remove Region 1' }).click()
    await expect.poll(curve).toBe(before)
    await page.getByRole('button', { name: 'Done' }).click()
  })

  it('rain is set by weather and camera, and says in words what that is', async () => {
    await page.getByRole('button', { name: 'Add an effect: Near' }).click()
    await page.getByRole('button', { name: 'Rain by the camera', exact: true }).click()
    await page.getByText('Heavy rain at 1/60 s with 35 mm').waitFor()
    await dial('Rainfall').fill('500')
    await dial('Rainfall').press('Enter')
    await page
      .getByText(/Between 0 and 300/)
      .first()
      .waitFor()
    await dial('Rainfall').fill('1 mm/h')
    await dial('Rainfall').press('Enter')
    await page.getByText('Light rain at 1/60 s with 35 mm').waitFor()
    await open('Pattern')
    // As they stand on a camera.
    for (const [label, before, typed, after] of [
      ['Shutter speed', '1/60\u2009s', '1/250', '1/250\u2009s'],
      ['Aperture', 'f/5.6', 'f/8', 'f/8'],
    ] as const) {
      const field = page.getByRole('textbox', { name: label, exact: true })
      expect(await field.inputValue()).toBe(before)
      await field.fill(typed)
      await field.press('Enter')
      expect(await field.inputValue()).toBe(after)
    }
    await page.getByText('Light rain at 1/250 s').waitFor()
    await page.getByRole('combobox', { name: 'Set by' }).click()
    await page.getByRole('option', { name: 'Eye' }).click()
    await dial('Density').waitFor()
    expect(await dial('Rainfall').count()).toBe(0)
  })

  it('colour by temperature', async () => {
    await open('Colour')
    await page.getByRole('combobox', { name: 'Colour from' }).click()
    await page.getByRole('option', { name: 'Colour temperature' }).click()
    const region = page.getByRole('region', { name: 'Colour' })
    await region.getByText('5600 K, sun').waitFor()
    await region.getByRole('textbox', { name: 'Temperature' }).fill('2000')
    await region.getByRole('textbox', { name: 'Temperature' }).press('Enter')
    await region.getByText('2000 K, candle').waitFor()
  })

  it('complained about nothing', () => {
    expect(complaints).toEqual([])
  })
})
