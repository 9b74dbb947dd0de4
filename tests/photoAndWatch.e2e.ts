import { execFile } from 'node:child_process'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { converter } from 'culori'
import exifr from 'exifr'
import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { deepPictureIn, fileOf } from '../core/test-support/codecs'
import { dngOf } from '../core/test-support/dng'
import { everything } from '../core/test-support/sampled'
import { appears } from './support/appears'
import { addEffect, canvasPixel, dropPhoto, exportedFile, launch, settled, shelfReady, visit, saveRecipe } from './support/browser'
import { drag, fittedPhoto, pngOf, shownPhoto, view } from './support/photo'

const run = promisify(execFile)
const size = { width: 1200, height: 800 }
const SLOPE = Math.tan((3 * Math.PI) / 180)
const bird = { x: 300, y: 150, radius: 7 }
const warm = [150, 132, 108] as const

/** A sea whose horizon falls by 3 degrees to the right, a bird in the sky, something warm that ought to be grey. */
const tilted = () =>
  pngOf(size, (x, y) => {
    if (Math.hypot(x - bird.x, y - bird.y) < bird.radius) return [24, 22, 26]
    if (x > 900 && x < 1100 && y > 600 && y < 700) return warm
    const wave = 4 * Math.sin(x / 5) * Math.sin(y / 3)
    return y < 400 + SLOPE * (x - 600) ? [150 + y / 10, 170 + y / 12, 200] : [40 + wave, 70 + wave, 84 + wave]
  })

/** What is laid over a photo that was straightened and mended, in the order of practice. */
const job = [
  ['Far', 'Fog', 'Morning fog'],
  ['Far', 'Sunburst', 'Rays through haze'],
  ['Near', 'Rain', 'Steady rain'],
  ['Lens', 'Soft focus', 'Dream bloom'],
  ['Lens', 'Drops on the lens', 'A few drops'],
  ['Finish', 'One hue', 'Deeper blues'],
  ['Finish', 'Vignette', 'Quiet corners'],
  ['Finish', 'Grain', 'Fine grain'],
  ['Finish', 'Colour table', 'Amber and sea'],
] as const

describe('the photo itself, and what is watched', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  let folder: string
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'photo-'))
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
    await writeFile(join(folder, 'sea.png'), await tilted())
    await dropPhoto(page, await tilted(), 'sea.png')
    await openPanel()
  })
  afterAll(async () => {
    await browser.close()
    await rm(folder, { recursive: true })
    expect(complaints).toEqual([])
  })

  const openPanel = async (): Promise<void> => {
    await page.getByRole('button', { name: 'Photo', exact: true }).click()
    await panel().waitFor()
  }
  const panel = () => page.getByRole('complementary', { name: 'Photo' })
  const watch = () => page.getByRole('complementary', { name: 'Watch column' })
  const number = (name: string) => panel().getByRole('textbox', { name, exact: true })
  const undo = () => page.getByRole('button', { name: 'Undo' }).click()
  const enter = async (name: string, value: string): Promise<void> => {
    await number(name).fill(value)
    await number(name).press('Enter')
  }
  /** Width and height of what is shown of the photo. */
  const frame = async () => {
    const [width = 0, height = 0] =
      /(\d+) × (\d+) px/
        .exec((await panel().textContent()) ?? '')
        ?.slice(1)
        .map(Number) ?? []
    return { width, height }
  }
  const apart = (a: readonly number[], b: readonly number[]): number => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)))
  /** Row of the frame at which the sea begins in a column. */
  const seaAt = async (column: number): Promise<number> => {
    const { width, height } = await frame()
    const colour = await shownPhoto(page, { width, height })
    for (let y = 0; y < height; y++) if (colour(column, y)[2]! < 140) return y
    return NaN
  }

  it('a line along the horizon straightens it; one undo brings the whole photo back', async () => {
    await page.getByRole('button', { name: 'Level by a line' }).click()
    const { at } = await fittedPhoto(page, size)
    await drag(page, at(100, 400 - 500 * SLOPE), at(1100, 400 + 500 * SLOPE))
    await expect.poll(async () => Math.abs(Number.parseFloat(await number('Straighten').inputValue()) - 3)).toBeLessThan(0.25)
    const { width, height } = await frame()
    expect(width).toBeLessThan(1200)
    expect(width / height).toBeCloseTo(1.5, 1)
    expect(Math.abs((await seaAt(60)) - (await seaAt(width - 60)))).toBeLessThan(7)
    await undo()
    await expect.poll(frame).toEqual(size)
    await enter('Straighten', '3')
    await expect.poll(async () => (await frame()).width).toBeLessThan(1200)
    expect(Math.abs((await seaAt(60)) - (await seaAt((await frame()).width - 60)))).toBeLessThan(4)
  })

  it('numbers that cannot be are refused with words, and decimals taken', async () => {
    const before = await view(page)
    for (const [name, text, words] of [
      ['Straighten', '1000000000', 'Between -45 and 45, please.'],
      ['Exposure', 'abc', 'A number is needed here.'],
      ['Fine noise', '-5', 'Between 0 and 100, please.'],
    ] as const) {
      await number(name).fill(text)
      await page.getByText(words).waitFor()
      await number(name).press('Escape')
    }
    expect(await view(page)).toBe(before)
  })

  it('a crop is pulled at its corners and moved; it never shows more than the photo', async () => {
    const before = await frame()
    await page.getByRole('button', { name: 'Crop', exact: true }).click()
    const corner = page.getByRole('button', { name: /^Upper left corner/ })
    const box = (await corner.boundingBox())!
    const from = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    await drag(page, from, { x: from.x + 60, y: from.y + 40 })
    const { zoom } = await fittedPhoto(page, size)
    await expect.poll(async () => Math.abs(before.width - (await frame()).width - 60 / zoom)).toBeLessThan(4)
    // Far beyond the border it stops.
    const small = await frame()
    const crop = (await page.getByTestId('crop').boundingBox())!
    const middle = { x: crop.x + crop.width / 2, y: crop.y + crop.height / 2 }
    await drag(page, middle, { x: middle.x + 900, y: middle.y })
    expect(await frame()).toEqual(small)
    await page.getByRole('combobox', { name: 'Shape' }).click()
    await page.getByRole('option', { name: '1 : 1' }).click()
    await expect.poll(async () => (await frame()).width - (await frame()).height).toBe(0)
    await undo()
    await undo()
    await undo()
    await page.getByRole('button', { name: 'Keep this crop' }).click()
    await expect.poll(frame).toEqual(before)
  })

  it('a bird disappears from the turned sky, and what is grey becomes grey', async () => {
    const { width, height } = await frame()
    const places = await fittedPhoto(page, { width, height })
    // Where the bird is once the photo is turned about the middle of the frame, which is that of the photo here.
    const [sin, cos] = [Math.sin((3 * Math.PI) / 180), Math.cos((3 * Math.PI) / 180)]
    const turned = (x: number, y: number) => {
      const [dx, dy] = [x - 600, y - 400]
      return { x: width / 2 + dx * cos + dy * sin, y: height / 2 - dx * sin + dy * cos }
    }
    const spot = turned(bird.x, bird.y)
    expect((await shownPhoto(page, { width, height }))(spot.x, spot.y)[2]!).toBeLessThan(60)
    await page.getByRole('button', { name: 'Mend a spot' }).click()
    const here = places.at(spot.x, spot.y)
    await drag(page, here, { x: here.x + 14 * places.zoom, y: here.y })
    await panel().getByRole('button', { name: 'Mended spot 1' }).waitFor()
    const sky = async () => (await shownPhoto(page, { width, height }))(spot.x, spot.y)
    await expect.poll(async () => apart(await sky(), [165, 182, 200])).toBeLessThan(6)
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Grey: Pick from the photo' }).click()
    const patch = turned(1000, 650)
    await page.mouse.click(places.at(patch.x, patch.y).x, places.at(patch.x, patch.y).y)
    const grey = async () => {
      const colour = (await shownPhoto(page, { width, height }))(patch.x, patch.y)
      return Math.max(...colour) - Math.min(...colour)
    }
    await expect.poll(grey).toBeLessThan(8)
  })

  it('the watch column shows tones, marks what clips, reads colours, and keeps places in sight', async () => {
    await page.keyboard.press('x')
    await watch().locator('[data-ready=true]').waitFor()
    const shown = await frame()
    const { at } = await fittedPhoto(page, shown)
    await page.mouse.move(at(shown.width / 2, 60).x, at(shown.width / 2, 60).y)
    await watch()
      .getByText(/^\d+ {2}\d+ {2}\d+$/)
      .waitFor()
    const plain = await view(page)
    await enter('Exposure', '3')
    await watch().getByRole('button', { name: 'Mark what clips' }).click()
    const stripes = async (): Promise<number> => {
      const colour = await shownPhoto(page, shown)
      return Array.from({ length: 60 }, (_, i) => colour(200 + i, 120)).filter(
        ([r = 0, g = 0, b = 0]) => r > 180 && r < 230 && g < 160 && b < 60,
      ).length
    }
    await expect.poll(stripes).toBeGreaterThan(15)
    await undo()
    await expect.poll(stripes).toBe(0)
    await watch().getByRole('button', { name: 'Mark what clips' }).click()
    await watch().getByRole('button', { name: 'Set', exact: true }).click()
    const place = at(200, 500)
    await page.mouse.click(place.x, place.y)
    await page.keyboard.press('Escape')
    await watch().getByRole('img', { name: 'Watchpoint 1 after' }).waitFor()
    await watch().getByRole('button', { name: 'Go to watchpoint 1' }).click()
    await page.getByRole('button', { name: 'Zoom, 100 %' }).waitFor()
    await page.keyboard.press('w')
    await watch().getByRole('button', { name: 'Flip view' }).click()
    await page.getByRole('button', { name: 'Mirrored. Turn it back' }).click()
    expect(await view(page)).toBe(plain)
  })

  it.runIf(everything)('a whole job on it is there after a reload; its deep file in Display-P3 equals the command line’s', async () => {
    for (const [place, kind, look] of job) await addEffect(page, place, kind, look)
    const whole = watch().getByRole('textbox', { name: 'Whole stack' })
    await whole.fill('62.5')
    await whole.press('Enter')
    await openPanel()
    const shown = await frame()
    const before = await view(page)
    await page.locator('[data-saved=true]').waitFor()
    await page.reload()
    await settled(page)
    await openPanel()
    expect(await frame()).toEqual(shown)
    await page.keyboard.press('x')
    await watch().getByRole('button', { name: 'Go to watchpoint 1' }).waitFor()
    expect(await view(page)).toBe(before)
    // All of it can be undone, and done again.
    const all = async (name: 'Undo' | 'Redo'): Promise<void> => {
      const button = page.getByRole('button', { name, exact: true })
      while (await button.isEnabled()) await button.click()
    }
    await all('Undo')
    await expect.poll(frame).toEqual(size)
    await all('Redo')
    await expect.poll(frame).toEqual(shown)
    expect(await view(page)).toBe(before)
    for (const label of ['save the recipe', 'save marks and groundwork']) {
      const download = page.waitForEvent('download')
      await page.keyboard.press('Control+k')
      await page.getByRole('combobox', { name: 'Find a command' }).fill(label)
      await page.keyboard.press('Enter')
      await (await download).saveAs(join(folder, label.startsWith('save the') ? 'recipe.json' : 'marks.json'))
    }
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: '16 bit' }).click()
    await page.getByRole('button', { name: 'Display-P3' }).click()
    const ours = await deepPictureIn(await exportedFile(page))
    const main = fileURLToPath(new URL('../server/dist/welkinar.js', import.meta.url))
    const named = (name: string): string => join(folder, name)
    const args = ['--photo', named('sea.png'), '--recipe', named('recipe.json'), '--marks', named('marks.json'), '--out', named('out.png')]
    await run('node', [main, 'render', '--overwrite', ...args, '--bits', '16', '--colours', 'display-p3'])
    const theirs = await deepPictureIn(await readFile(named('out.png')))
    expect(theirs.is).toEqual([shown.width, shown.height, 'ushort'])
    expect(Buffer.compare(ours.data, theirs.data)).toBe(0)
  })

  it('a smaller file has the size that was asked for, and says what wrote it', async () => {
    if (!page.url().endsWith('/export')) await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: 'Smaller' }).click()
    const side = page.getByRole('textbox', { name: 'Longer side' })
    for (const [text, words] of [
      ['512.5', 'A whole number, please.'],
      ['99999', 'Between 16 and'],
    ] as const) {
      await side.fill(text)
      await page.getByText(words).waitFor()
      await side.press('Escape')
    }
    await side.fill('400')
    await side.press('Enter')
    await page.getByText(/^About \d+(\.\d)? [kM]B$/).waitFor()
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'JPEG', exact: true }).click()
    await page.getByRole('button', { name: 'Make the JPEG file' }).click()
    const file = await (await waiting).path()
    const { width, height } = await sharp(file).metadata()
    expect(Math.abs(Math.max(width, height) - 400)).toBeLessThanOrEqual(1)
    expect(await exifr.parse(file)).toMatchObject({ Software: 'Welkinar' })
    // Chromium itself reads the AVIF, a grid of pictures.
    await page.getByRole('button', { name: 'AVIF', exact: true }).click()
    const avif = await exportedFile(page, 'AVIF')
    const read = await page.evaluate(
      async (codes) => {
        const picture = await createImageBitmap(new Blob([Uint8Array.from(codes)], { type: 'image/avif' }))
        return [picture.width, picture.height]
      },
      [...avif],
    )
    expect(read).toEqual([width, height])
  })
})

describe.runIf(everything)('files of cameras and archives', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  let folder: string
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'deep-'))
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await shelfReady(page)
  })
  afterAll(async () => {
    await browser.close()
    await rm(folder, { recursive: true })
    expect(complaints).toEqual([])
  })

  const shape = { width: 240, height: 160 }
  const light = (x: number, y: number, colour: number): number => (0.05 + (0.8 * x) / shape.width) * (colour === 1 ? 1 : 0.4 + y / 400)

  // CSS Color Module Level 4 by culori 4.
  it('a photo with colours that sRGB does not have keeps them under rain, and is written with those of the command line', async () => {
    const codes = new Uint8ClampedArray(4 * shape.width * shape.height)
    for (let i = 0; i < codes.length; i += 4) codes.set([20 + ((i / 4) % 64), 230, i % 8 === 0 ? 40 : 60, 255], i)
    const bytes = await fileOf(codes, shape, { format: 'png', quality: 100, depth: 8, space: 'displayP3' })
    await dropPhoto(page, bytes, 'meadow.png')
    await page.getByText('The colours of “meadow.png” are those of Display-P3.').waitFor()
    // This screen shows sRGB only, so the browser cuts them off there.
    const seen = await canvasPixel(page, 0.5, 0.5)
    const shown = converter('rgb')({ mode: 'p3', r: 52 / 255, g: 230 / 255, b: 50 / 255 })
    ;[shown.r, shown.g, shown.b].forEach((value, k) => expect(Math.abs(seen[k]! - 255 * Math.max(0, value))).toBeLessThan(45))
    expect(seen[0]).toBe(0)
    // One that shows more gets them all.
    const devtools = await page.context().newCDPSession(page)
    await devtools.send('Emulation.setEmulatedMedia', { features: [{ name: 'color-gamut', value: 'p3' }] })
    await page.reload()
    await settled(page)
    // The rain keeps out of what was read, and so does that of the command line.
    await appears(page, '[data-testid=picture][data-read=true]')
    const wide = await page.evaluate(() => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]')!
      const { data } = canvas.getContext('2d')!.getImageData(canvas.width / 2, canvas.height / 2, 1, 1, { colorSpace: 'display-p3' })
      return [...data]
    })
    expect(wide[0]).toBeGreaterThan(20)
    expect(Math.abs(wide[1]! - 230)).toBeLessThanOrEqual(1)
    await devtools.detach()
    await page.getByRole('link', { name: 'Export' }).click()
    expect(await page.getByRole('button', { name: 'Display-P3' }).getAttribute('aria-pressed')).toBe('true')
    const plain = await sharp(await exportedFile(page, 'PNG'), { ignoreIcc: true })
      .ensureAlpha()
      .raw()
      .toBuffer()
    expect(plain.equals(Buffer.from(codes))).toBe(true)
    await page.getByRole('link', { name: /Workbench/ }).click()
    await addEffect(page, 'Near', 'Rain')
    await saveRecipe(page, join(folder, 'meadow.json'))
    await page.getByRole('link', { name: 'Export' }).click()
    await writeFile(join(folder, 'meadow.png'), bytes)
    const main = fileURLToPath(new URL('../server/dist/welkinar.js', import.meta.url))
    const args = ['--photo', join(folder, 'meadow.png'), '--recipe', join(folder, 'meadow.json'), '--out', join(folder, 'out.png')]
    for (const space of ['sRGB', 'Display-P3']) {
      await page.getByRole('button', { name: space }).click()
      const ours = await exportedFile(page, 'PNG')
      await run('node', [main, 'render', '--overwrite', ...args, '--colours', space.toLowerCase()])
      expect((await readFile(join(folder, 'out.png'))).equals(ours)).toBe(true)
    }
  })

  it.each([
    ['shot.dng', 'sRGB'],
    ['scan.tif', 'Display-P3'],
  ])('%s opens, and is written as a TIFF of 16 bits in %s with the pixels of the command line', async (name, space) => {
    const deep = Uint16Array.from({ length: 3 * shape.width * shape.height }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % shape.width, Math.floor(i / 3 / shape.width)]
      return Math.round(65535 * light(x, y, i % 3))
    })
    const raw = { ...shape, channels: 3 as const }
    const bytes =
      name === 'shot.dng'
        ? dngOf({ ...shape, pattern: [0, 1, 1, 2], compressed: true, light })
        : await sharp(deep, { raw }).toColourspace('rgb16').tiff({ compression: 'lzw', tile: true }).toBuffer()
    await writeFile(join(folder, name), bytes)
    await page.goto(page.url().replace(/\/scene.*|\/$/, '/'))
    await shelfReady(page)
    await dropPhoto(page, bytes, name, name === 'shot.dng' ? '' : 'image/tiff')
    await saveRecipe(page, join(folder, 'recipe.json'))
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: 'TIFF', exact: true }).click()
    await page.getByRole('button', { name: '16 bit' }).click()
    await page.getByRole('button', { name: space }).click()
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Make the TIFF file' }).click()
    const ours = await readFile(await (await waiting).path())
    const main = fileURLToPath(new URL('../server/dist/welkinar.js', import.meta.url))
    const out = join(folder, 'out.tif')
    const args = ['--photo', join(folder, name), '--recipe', join(folder, 'recipe.json'), '--out', out]
    await run('node', [main, 'render', '--overwrite', ...args, '--bits', '16', '--colours', space.toLowerCase()])
    expect((await readFile(out)).equals(ours)).toBe(true)
    expect((await sharp(ours).metadata()).depth).toBe('ushort')
  })
})
