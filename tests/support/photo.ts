import type { Page } from 'playwright-core'
import sharp from 'sharp'
import { canvasPixel, settled } from './browser'

/** A place on the screen, css px. */
export interface Place {
  readonly x: number
  readonly y: number
}

interface Size {
  readonly width: number
  readonly height: number
}

/** A PNG of colours: red, green, blue at each photo px. */
export function pngOf({ width, height }: Size, colourAt: (x: number, y: number) => readonly number[]): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 3)
  for (let i = 0; i < width * height; i++) pixels.set(colourAt(i % width, Math.floor(i / width)), 3 * i)
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer()
}

/** Css px of a photo px while the photo is fitted, and what a photo px measures there. */
export async function fittedPhoto(
  page: Page,
  { width, height }: Size,
): Promise<{ at(x: number, y: number): Place; readonly zoom: number }> {
  const box = (await page.locator('[data-testid=picture]').boundingBox())!
  const zoom = Math.min((box.width - 16) / width, (box.height - 16) / height)
  return {
    zoom,
    at: (x, y) => ({ x: box.x + box.width / 2 + (x - width / 2) * zoom, y: box.y + box.height / 2 + (y - height / 2) * zoom }),
  }
}

/** RGB that the view shows at a photo px. */
export async function seenOnPhoto(page: Page, size: Size, x: number, y: number): Promise<number[]> {
  await settled(page)
  const box = (await page.locator('[data-testid=picture]').boundingBox())!
  const at = (await fittedPhoto(page, size)).at(x, y)
  return (await canvasPixel(page, (at.x - box.x) / box.width, (at.y - box.y) / box.height)).slice(0, 3)
}

/** The whole view as it is shown, without what lies over it. */
export async function view(page: Page): Promise<string> {
  await settled(page)
  return page.locator('[data-testid=picture]').evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL())
}

/** What the view shows now, to be looked at in many places. */
export async function shownPhoto(page: Page, size: Size): Promise<(x: number, y: number) => number[]> {
  const url = await view(page)
  const { data, info } = await sharp(Buffer.from(url.slice(url.indexOf(',') + 1), 'base64'))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const box = (await page.locator('[data-testid=picture]').boundingBox())!
  const { at } = await fittedPhoto(page, size)
  return (x, y) => {
    const place = at(x, y)
    const [column, row] = [((place.x - box.x) / box.width) * info.width, ((place.y - box.y) / box.height) * info.height].map(
      Math.round,
    ) as [number, number]
    return [...data.subarray(3 * (row * info.width + column), 3 * (row * info.width + column) + 3)]
  }
}

/** Drags along a way. */
export async function drag(page: Page, from: Place, ...way: readonly Place[]): Promise<void> {
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  for (const to of way) await page.mouse.move(to.x, to.y, { steps: 5 })
  await page.mouse.up()
}
