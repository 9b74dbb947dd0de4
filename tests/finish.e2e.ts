import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addEffect, dropPhoto, launch, openStep, settled, shelfReady, visit } from './support/browser'
import { fittedPhoto, pngOf, shownPhoto, view } from './support/photo'

const size = { width: 1200, height: 800 }
/** A warm grey, a blue, an orange, and a dark green, side by side. */
const colours = [
  [150, 132, 108],
  [58, 110, 165],
  [200, 132, 60],
  [30, 60, 34],
] as const
const [warm, blue, orange, green] = [150, 450, 750, 1050]

const fourColours = () => pngOf(size, (x) => colours[Math.floor(x / 300)]!)

describe('finishing a picture', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await dropPhoto(page, await fourColours(), 'colours.png')
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })

  const seen = async (x: number): Promise<number[]> => (await shownPhoto(page, size))(x, 400)
  const press = async (x: number): Promise<void> => {
    const { at } = await fittedPhoto(page, size)
    await page.mouse.move(at(x, 400).x, at(x, 400).y)
    await page.mouse.click(at(x, 400).x, at(x, 400).y)
  }
  const number = (name: string) => page.getByRole('complementary').getByRole('textbox', { name, exact: true }).first()
  const undo = () => page.getByRole('button', { name: 'Undo' }).click()
  const apart = (a: readonly number[], b: readonly number[]): number => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)))

  it('a place that ought to be grey becomes grey, in one step', async () => {
    await addEffect(page, 'Finish', 'Adjust')
    for (const [name, value] of Object.entries({ Contrast: '0', Highlights: '0', Shadows: '0' })) {
      await number(name).fill(value)
      await number(name).press('Enter')
    }
    await openStep(page, 'Shape')
    for (const name of ['Vibrance', 'Fine contrast', 'Broad contrast']) {
      await number(name).fill('0')
      await number(name).press('Enter')
    }
    expect(apart(await seen(warm), colours[0])).toBeLessThan(2)
    await page.getByRole('button', { name: 'Grey: Pick from the photo' }).click()
    await press(warm)
    await expect
      .poll(async () => {
        const grey = await seen(warm)
        return Math.max(...grey) - Math.min(...grey)
      })
      .toBeLessThan(8)
    await undo()
    await expect.poll(async () => apart(await seen(warm), colours[0])).toBeLessThan(2)
  })

  it('a number that cannot be is refused with words, and keeps the picture', async () => {
    const before = await view(page)
    for (const [text, words] of [
      ['abc', 'A number is needed here.'],
      ['99', 'Between -10 and 10, please.'],
    ] as const) {
      await number('Exposure').fill(text)
      await page.getByText(words).waitFor()
      await number('Exposure').press('Escape')
    }
    expect(await view(page)).toBe(before)
    await number('Exposure').fill('0.755')
    await number('Exposure').press('Enter')
    await expect.poll(() => view(page)).not.toBe(before)
  })

  it('a curve is bent by keys, for all channels and for one, and made straight again', async () => {
    await addEffect(page, 'Finish', 'Curves', 'Gentle S')
    await openStep(page, 'Pattern')
    await page.getByRole('button', { name: 'Reset', exact: true }).click()
    const before = await seen(warm)
    await page.getByRole('button', { name: 'Red', exact: true }).click()
    const points = page.getByRole('slider', { name: /^Point \d/ })
    await points.last().focus()
    for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowDown')
    await expect.poll(async () => before[0]! - (await seen(warm))[0]!).toBeGreaterThan(30)
    expect(Math.abs((await seen(warm))[2]! - before[2]!)).toBeLessThan(3)
    await page.getByRole('button', { name: 'Reset', exact: true }).click()
    await expect.poll(async () => apart(await seen(warm), before)).toBeLessThan(2)
  })

  it('a hue that is picked on the photo is changed, and no other', async () => {
    const before = await shownPhoto(page, size)
    await addEffect(page, 'Finish', 'One hue', 'Calmer greens')
    await openStep(page, 'Pattern')
    await page.getByRole('button', { name: 'Hue: Pick from the photo' }).click()
    await press(orange)
    await number('Saturation').fill('-100')
    await number('Saturation').press('Enter')
    await expect.poll(async () => Math.max(...(await seen(orange))) - Math.min(...(await seen(orange)))).toBeLessThan(30)
    expect(apart(await seen(blue), before(blue, 400))).toBeLessThan(3)
    expect(apart(await seen(green), before(green, 400))).toBeLessThan(3)
  })

  it('a colour that is pressed and pulled changes its lightness and saturation there, in one step', async () => {
    const before = await shownPhoto(page, size)
    const states = await view(page)
    await addEffect(page, 'Finish', 'One hue', 'Calmer greens')
    await openStep(page, 'Pattern')
    await page.getByRole('button', { name: 'Press and pull' }).click()
    const { at } = await fittedPhoto(page, size)
    const from = at(blue, 400)
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await expect.poll(() => number('Hue').inputValue()).not.toBe('135')
    await page.mouse.move(from.x, from.y - 60, { steps: 4 })
    await page.mouse.up()
    await expect.poll(async () => (await seen(blue))[1]! - before(blue, 400)[1]!).toBeGreaterThan(15)
    expect(apart(await seen(orange), before(orange, 400))).toBeLessThan(3)
    const lighter = await seen(blue)
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(from.x - 190, from.y, { steps: 4 })
    await page.mouse.up()
    await expect.poll(async () => Math.max(...(await seen(blue))) - Math.min(...(await seen(blue)))).toBeLessThan(50)
    await undo()
    await expect.poll(async () => apart(await seen(blue), lighter)).toBeLessThan(3)
    await page.getByRole('button', { name: 'Done' }).click()
    await undo()
    await undo()
    await expect.poll(() => view(page)).toBe(states)
  })

  it('a colour table comes from a file; one that is wrong is refused with its line', async () => {
    await addEffect(page, 'Finish', 'Colour table')
    await openStep(page, 'Pattern')
    const open = async (...files: (readonly [name: string, text: string])[]): Promise<void> => {
      const chooser = page.waitForEvent('filechooser')
      await page.getByRole('button', { name: 'Open .cube files' }).click()
      await (await chooser).setFiles(files.map(([name, text]) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })))
    }
    const before = await view(page)
    const broken = ['broken.cube', 'LUT_3D_SIZE 2\n0 0 0\n'] as const
    await open(broken)
    await page
      .getByText('“broken.cube” is not a table of colours that can be read: line 3, 8 entries are needed, and there are 1.')
      .waitFor()
    expect(await view(page)).toBe(before)
    // What can be read of several is taken, and stands in the strip with those of our own.
    await open(['swapped.cube', `LUT_1D_SIZE 2\n1 1 1\n0 0 0\n`], broken, ['dim.cube', `LUT_1D_SIZE 2\n0 0 0\n.5 .5 .5\n`])
    await page.getByText('swapped, curves of 2').waitFor()
    const strip = page.getByRole('group', { name: /^Colour tables/ })
    await expect.poll(() => strip.getByRole('button').count()).toBe(6)
    // Pointing at one tries it, and leaving takes it back.
    const swapped = await view(page)
    await strip.getByRole('button', { name: 'dim' }).hover()
    await expect.poll(() => view(page)).not.toBe(swapped)
    await page.mouse.move(5, 5)
    await expect.poll(() => view(page)).toBe(swapped)
    await strip.getByRole('button', { name: 'dim' }).click()
    await page.getByText('dim, curves of 2').waitFor()
    await page.getByRole('button', { name: 'Take it off this list' }).click()
    await undo()
    await page.getByText('swapped, curves of 2').waitFor()
    await expect.poll(() => strip.getByRole('button').count()).toBe(5)
    await number('Amount').fill('100')
    await number('Amount').press('Enter')
    await page.getByRole('button', { name: 'More about Colour table' }).click()
    await page.getByRole('menuitem', { name: 'Duplicate', exact: true }).click()
    // Turned over twice.
    await expect.poll(async () => apart(await seen(blue), [58, 110, 165])).toBeLessThan(60)
    await undo()
    await expect.poll(async () => (await seen(green))[0]!).toBeGreaterThan(180)
  })

  it('a picture is laid over it as far as it is there; numbers and files that cannot be are refused', async () => {
    const [under, beside] = [await seen(blue), await seen(warm)]
    await addEffect(page, 'Finish', 'Overlay picture', 'As it is')
    await openStep(page, 'Pattern')
    // What is transparent is green; the rest is white.
    const half = await sharp({ create: { width: 200, height: 100, channels: 4, background: { r: 0, g: 255, b: 0, alpha: 0 } } })
      .composite([{ input: { create: { width: 100, height: 100, channels: 4, background: '#fff' } }, left: 100, top: 0 }])
      .png()
      .toBuffer()
    const give = async (name: string, buffer: Buffer) => {
      const chooser = page.waitForEvent('filechooser')
      await page.getByRole('button', { name: 'Choose a picture' }).click()
      await (await chooser).setFiles({ name, mimeType: 'image/png', buffer })
    }
    await give('torn.png', half.subarray(0, 90))
    await page
      .getByText(/“torn.png”/)
      .first()
      .waitFor()
    expect(await seen(orange)).not.toEqual([255, 255, 255])
    await give('half.png', half)
    for (const [name, wrong] of [
      ['Width', ['0', 'wide', '1e9']],
      ['Rotation', ['x']],
    ] as const)
      for (const text of wrong) {
        await number(name).fill(text)
        expect(await number(name).getAttribute('aria-invalid')).toBe('true')
        await number(name).press('Escape')
      }
    await number('Width').fill('600')
    await number('Width').press('Enter')
    await expect.poll(() => seen(orange)).toEqual([255, 255, 255])
    expect([await seen(blue), await seen(warm)]).toEqual([under, beside])
    await undo()
    await undo()
    await expect.poll(async () => Math.max(...(await seen(orange)))).toBeLessThan(250)
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Redo' }).click()
    await expect.poll(() => seen(orange)).toEqual([255, 255, 255])
  })

  it('all of it is there after a reload, and is exported with 16 bits as it is shown', async () => {
    await addEffect(page, 'Finish', 'Vignette')
    await addEffect(page, 'Finish', 'Grain')
    const before = await view(page)
    await page.locator('[data-saved=true]').waitFor()
    await page.reload()
    await settled(page)
    expect(await view(page)).toBe(before)
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: '16 bit' }).click()
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    const file = await (await waiting).path()
    const { depth, width, height } = await sharp(file).metadata()
    expect([depth, width, height]).toEqual(['ushort', size.width, size.height])
    const { data } = await sharp(file).toColourspace('rgb16').raw({ depth: 'ushort' }).toBuffer({ resolveWithObject: true })
    const deep = new Uint16Array(data.buffer, data.byteOffset, data.length / 2)
    expect(deep.filter((code) => code % 257 !== 0).length).toBeGreaterThan(0.9 * deep.length)
    await page.getByRole('link', { name: /Workbench/ }).click()
    await settled(page)
    const shown = await shownPhoto(page, size)
    const mean = (x: number): number[] => {
      const sums = [0, 0, 0]
      for (let dx = -40; dx <= 40; dx++) for (let k = 0; k < 3; k++) sums[k]! += deep[3 * (400 * size.width + x + dx) + k]! / 257 / 81
      return sums
    }
    for (const x of [warm, blue, orange]) expect(apart(shown(x, 400), mean(x))).toBeLessThan(16)
  })
})
