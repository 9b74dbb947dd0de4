import { readFile } from 'node:fs/promises'
import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findings } from './support/axe'
import { addEffect, dropPhoto, launch, shelfReady, visit } from './support/browser'

/** Frames of a file as Chromium's own decoder gives them, reduced to their bytes, and how long each stands, µs. */
function decoded(page: Page, file: Buffer): Promise<{ durations: (number | null)[]; frames: string[] }> {
  return page.evaluate(async (base64) => {
    const data = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
    const decoder = new ImageDecoder({ data, type: 'image/png' })
    await decoder.tracks.ready
    const frames: string[] = []
    const durations: (number | null)[] = []
    for (let frameIndex = 0; frameIndex < (decoder.tracks.selectedTrack?.frameCount ?? 0); frameIndex++) {
      const { image } = await decoder.decode({ frameIndex })
      const canvas = new OffscreenCanvas(image.displayWidth, image.displayHeight)
      const context = canvas.getContext('2d')!
      context.drawImage(image, 0, 0)
      const { data: pixels } = context.getImageData(0, 0, canvas.width, canvas.height)
      frames.push(btoa(Array.from(pixels, (code) => String.fromCharCode(code)).join('')))
      durations.push(image.duration)
      image.close()
    }
    return { durations, frames }
  }, file.toString('base64'))
}

describe('a picture that moves', () => {
  let browser: Browser
  let page: Page
  beforeAll(async () => {
    browser = await launch()
    ;({ page } = await visit(browser))
    await shelfReady(page)
    const photo = sharp({ create: { width: 240, height: 160, channels: 3, background: '#345' } })
    await dropPhoto(page, await photo.png().toBuffer(), 'still.png')
  })
  afterAll(() => browser.close())

  const make = async () => {
    const waiting = page.waitForEvent('download', { timeout: 60_000 })
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    return readFile(await (await waiting).path())
  }
  const moving = () => page.getByRole('switch', { name: 'As a picture that moves' })

  it('is not offered where nothing moves', async () => {
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: 'Make the PNG file' }).waitFor()
    expect(await moving().count()).toBe(0)
    await page.getByRole('link', { name: /Workbench/ }).click()
  })

  it('begins with the still, comes round without a seam, and lasts as long as was asked for', async () => {
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await page.getByRole('link', { name: 'Export' }).click()
    const still = await make()
    await moving().click()
    await page.getByRole('textbox', { name: 'Comes round in' }).fill('2')
    await page.getByRole('textbox', { name: 'Frames a second' }).fill('8')
    await page.keyboard.press('Enter')
    await page.getByText('16 frames.').waitFor()
    expect(await findings(page)).toEqual([])
    const { durations, frames } = await decoded(page, await make())
    expect(durations).toEqual(Array.from({ length: 16 }, () => 125_000))
    const pixels = frames.map((frame) => Buffer.from(frame, 'base64'))
    const bare = await sharp(still).ensureAlpha().raw().toBuffer()
    expect(pixels[0]!.equals(bare)).toBe(true)
    const off = (one: Buffer, other: Buffer) => one.reduce((sum, code, i) => sum + Math.abs(code - other[i]!), 0) / one.length
    const steps = pixels.slice(1).map((frame, i) => off(pixels[i]!, frame))
    expect(Math.min(...steps)).toBeGreaterThan(0.5)
    expect(off(pixels.at(-1)!, pixels[0]!)).toBeLessThanOrEqual(1.1 * Math.max(...steps))
  })
})
