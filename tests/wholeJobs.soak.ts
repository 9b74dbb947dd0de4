import { fileURLToPath } from 'node:url'
import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { addEffect, choose, drawn, dropPhoto, launch, openStep, settled, shelfReady, visit } from './support/browser'
import { drag, fittedPhoto, shownPhoto, view } from './support/photo'

// Whole jobs in the order of practice (common practice, no source), each from a photo that is dropped in. With WELKINAR_SHOW_JOBS a folder gets pictures of before and after.

const size = { width: 1500, height: 1000 }
const demo = (name: string) => fileURLToPath(new URL(`../demo/photos/${name}.jpg`, import.meta.url))
const shown = process.env['WELKINAR_SHOW_JOBS']

describe('a whole job', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
  })
  afterAll(async () => {
    await browser.close()
    expect(complaints).toEqual([])
  })
  beforeEach(async () => {
    await page.goto(new URL('/', page.url()).href)
    await shelfReady(page)
  })

  const start = async (name: string): Promise<void> => {
    const bytes = await sharp(demo(name)).resize(size.width, size.height, { fit: 'fill' }).jpeg({ quality: 92 }).toBuffer()
    await dropPhoto(page, bytes, `${name}.jpg`, 'image/jpeg')
  }
  const look = async (name: string): Promise<void> => {
    if (!shown) return
    await settled(page)
    await page.screenshot({ path: `${shown}/${name}.png` })
  }
  const shot = () => shownPhoto(page, size)
  const onPhoto = async (...places: readonly (readonly [number, number])[]) => {
    const { at } = await fittedPhoto(page, size)
    return places.map(([x, y]) => at(x, y))
  }
  const number = (name: string) => page.getByRole('complementary').getByRole('textbox', { name, exact: true }).first()
  const type = async (name: string, text: string): Promise<void> => {
    await number(name).fill(text)
    await number(name).press('Enter')
  }
  const addMask = async (kind: string): Promise<void> => {
    await openStep(page, 'Where')
    await choose(page, page.getByRole('region', { name: 'Where' }).getByRole('button', { name: 'Add a mask' }), kind)
  }
  const show = (name: string) => page.getByRole('group', { name: 'Show' }).getByRole('button', { name }).click()
  const turnOver = async (): Promise<void> => {
    await page.getByRole('region', { name: 'Where' }).getByLabel('Invert').click()
  }
  /** Goes around something freehand. */
  const goAround = async (...corners: readonly (readonly [number, number])[]): Promise<void> => {
    await page.getByRole('button', { name: 'Outline freehand' }).click()
    const [first, ...rest] = await onPhoto(...corners, corners[0]!)
    await drag(page, first!, ...rest)
  }
  /** The photo without anything. */
  const bareShot = async () => {
    await page.getByRole('button', { name: 'Before', exact: true }).click()
    await drawn(page)
    const colours = await shot()
    await page.getByRole('button', { name: 'After', exact: true }).click()
    await drawn(page)
    return colours
  }
  /** How far the picture is from the photo, in codes of the channel that differs most. */
  const changeNow = async () => {
    const [now, bare] = [await shot(), await bareShot()]
    return (x: number, y: number) => apart(now(x, y), bare(x, y))
  }
  const apart = (a: readonly number[], b: readonly number[]): number => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)))

  it('soft focus that stays sharp at a painted place, whose mask is seen', async () => {
    await start('moored-skiff')
    await addEffect(page, 'Finish', 'Soft focus', 'Dream bloom')
    await addMask('Brush')
    await type('Size', '260')
    await type('Level', '100')
    await type('Flow', '100')
    await drag(page, ...((await onPhoto([640, 640], [760, 660], [880, 640])) as [never]))
    await show('Grey')
    const mask = await shot()
    expect(mask(760, 655)[0]).toBeLessThan(25)
    expect(mask(200, 200)[0]).toBeGreaterThan(250)
    await look('1 mask')
    await show('Picture')
    await look('1 after')
    const change = await changeNow()
    expect(change(760, 655)).toBeLessThan(6)
    let most = 0
    for (let x = 100; x < 1400; x += 20) for (let y = 500; y < 600; y += 10) most = Math.max(most, change(x, y))
    expect(most).toBeGreaterThan(15)
  })

  it('fog of two clouds in the colour of a highlight, behind a wall that was gone around', async () => {
    await start('survey-hut')
    await look('2 before')
    await addEffect(page, 'Middle', 'Fog')
    await openStep(page, 'Colour')
    await page.getByRole('button', { name: 'Tint: Pick from the photo' }).click()
    const tint = page.getByRole('textbox', { name: 'Tint, written as six hexadecimal digits' })
    const before = await tint.inputValue()
    const bare = await bareShot()
    const [highlight] = await onPhoto([700, 300])
    await page.mouse.move(highlight!.x, highlight!.y)
    await page.mouse.click(highlight!.x, highlight!.y)
    await expect.poll(() => tint.inputValue()).not.toBe(before)
    const picked = Buffer.from((await tint.inputValue()).slice(1), 'hex')
    expect(apart([...picked], bare(700, 300))).toBeLessThan(12)
    for (const [scale, turn, seed] of [
      ['900', '0', '3'],
      ['320', '25', '8'],
    ] as const) {
      await addMask('Cloud')
      const where = page.getByRole('region', { name: 'Where' })
      for (const [label, value] of Object.entries({ Scale: scale, Rotation: turn, Seed: seed, Cover: '75' })) {
        const field = where.getByRole('textbox', { name: label, exact: true })
        await field.fill(value)
        await field.press('Enter')
      }
    }
    const fogged = await changeNow()
    await addMask('Outline')
    await goAround([480, 420], [950, 420], [950, 760], [480, 760])
    // It takes the wall out: what is drawn after others is subtracted.
    await look('2 after')
    expect(await page.getByRole('list', { name: 'Masks' }).getByRole('listitem').count()).toBe(3)
    const change = await changeNow()
    const wall = [580, 650, 720, 790, 860].flatMap((x) => [480, 560, 640].map((y) => [x, y] as const))
    expect(Math.max(...wall.map((at) => change(...at)))).toBeLessThan(3)
    expect(Math.max(...wall.map((at) => fogged(...at)))).toBeGreaterThan(10)
    expect(Math.max(...[150, 300, 1100, 1250, 1400].map((x) => change(x, 560)))).toBeGreaterThan(10)
  })

  it('a glow line with its halo, light on what is around it, and a part hidden behind something', async () => {
    await start('ship-lantern')
    await look('3 before')
    await addEffect(page, 'Near', 'Glow line', 'Neon tube')
    await openStep(page, 'Pattern')
    await page.getByRole('button', { name: 'Remove line 1' }).click()
    await page.getByRole('button', { name: 'Draw a line' }).click()
    for (const at of await onPhoto([150, 700], [620, 760], [1400, 560])) await page.mouse.click(at.x, at.y)
    await page.keyboard.press('Enter')
    await page.getByText('Line 1, 3 corners').waitFor()
    await look('3 line')
    const first = await changeNow()
    expect(first(385, 730)).toBeGreaterThan(60)
    expect(first(385, 742)).toBeGreaterThan(8)
    expect(first(912, 685)).toBeGreaterThan(20)
    await openStep(page, 'Shape')
    await type('Spill', '0')
    const without = await shot()
    await type('Spill', '150')
    const spilt = await shot()
    expect(apart(spilt(385, 800), without(385, 800))).toBeGreaterThan(2)
    // The line goes on behind the lantern.
    await addMask('Outline')
    await goAround([735, 300], [1085, 300], [1085, 930], [735, 930])
    await turnOver()
    await openStep(page, 'Mix')
    await look('3 after')
    const change = await changeNow()
    expect(change(912, 685)).toBeLessThan(4)
    expect(change(385, 730)).toBeGreaterThan(60)
    expect(change(1240, 602)).toBeGreaterThan(40)
  })

  it('sparkles of three sizes on a ring', async () => {
    await start('ship-lantern')
    await addEffect(page, 'Near', 'Sparkles', 'Glints on metal')
    await openStep(page, 'Pattern')
    const places = page.getByRole('group', { name: 'Places of the glints' })
    await places.getByRole('button', { name: 'Remove all' }).click()
    await places.getByRole('button', { name: 'Place glints' }).click()
    const ring = [
      [834, 150],
      [1014, 150],
      [924, 58],
    ] as const
    for (const at of await onPhoto(...ring)) await page.mouse.click(at.x, at.y)
    await places.getByText('3 glints placed').waitFor()
    await places.getByRole('button', { name: 'Place glints' }).click()
    for (const [index, percent] of ['60', '130', '260'].entries()) {
      await page.getByRole('button', { name: new RegExp(`^Glint ${index + 1}\\.`) }).click()
      const one = places.getByRole('group', { name: `Glint ${index + 1}` }).getByRole('textbox', { name: 'Size' })
      await one.fill(percent)
      await one.press('Enter')
      await expect.poll(async () => parseInt(await one.inputValue())).toBe(Number(percent))
    }
    await look('4 after')
    const change = await changeNow()
    const lit = ring.map(([x, y]) => {
      let count = 0
      for (let dx = -75; dx <= 75; dx++) for (let dy = -56; dy <= 56; dy++) if (change(x + dx, y + dy) > 12) count++
      return count
    })
    expect(lit[0]).toBeGreaterThan(20)
    expect(lit[1]! / lit[0]!).toBeGreaterThan(1.5)
    expect(lit[2]! / lit[1]!).toBeGreaterThan(1.5)
  })

  it('fire that burns, from noise', async () => {
    await start('ferry-quay')
    await addEffect(page, 'Middle', 'Custom field', 'Fire')
    await look('5 fire')
    await openStep(page, 'Pattern')
    expect(parseFloat(await number('Moves').inputValue())).toBeGreaterThan(0)
    const still = await view(page)
    await page.getByRole('button', { name: 'Play' }).click()
    await expect.poll(() => view(page)).not.toBe(still)
    const first = await view(page)
    await expect.poll(() => view(page)).not.toBe(first)
    await page.getByRole('button', { name: 'Rest' }).click()
    await expect.poll(() => view(page)).toBe(still)
    // Red at its edges, yellow within.
    const seen = await shot()
    const colours: number[][] = []
    for (let x = 300; x < 1200; x += 20) for (let y = 620; y < 980; y += 20) colours.push(seen(x, y))
    expect(colours.some(([r, g, b]) => r! > 200 && g! > 150 && b! < 160)).toBe(true)
    expect(colours.some(([r, g]) => r! > 60 && r! > 2 * g!)).toBe(true)
  })

  it('soft focus of a dark and a bright copy, held to tones by a curve that is drawn', async () => {
    await start('headland')
    await look('6 before')
    await addEffect(page, 'Finish', 'Soft focus', 'Dark and light')
    await openStep(page, 'Shape')
    await page.getByRole('combobox', { name: 'Detail comes back' }).click()
    await page.getByRole('option', { name: 'With Amount and Where of the effect' }).click()
    await openStep(page, 'Where')
    const more = page.getByRole('button', { name: /^More about mask/ })
    for (let count = await more.count(); count > 0; count--) await choose(page, more.first(), 'Remove')
    const everywhere = await view(page)
    await addMask('Luminosity')
    await page.getByRole('button', { name: 'Free', exact: true }).click()
    const points = page.getByRole('slider', { name: /^Point \d/ })
    // Shadows are left as they are.
    for (const index of [0, 1]) {
      await points.nth(index).focus()
      for (let i = 0; i < 12; i++) await page.keyboard.press('Shift+ArrowDown')
      expect(await points.nth(index).getAttribute('aria-valuenow')).toBe('0')
    }
    await show('Grey')
    await look('6 mask')
    await show('Picture')
    await look('6 after')
    expect(await view(page)).not.toBe(everywhere)
    const [now, bare] = [await shot(), await bareShot()]
    let [dark, bright] = [0, 0]
    for (let x = 20; x < 1480; x += 20) {
      for (let y = 20; y < 980; y += 20) {
        const [r = 0, g = 0, b = 0] = bare(x, y)
        const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b
        const change = apart(now(x, y), bare(x, y))
        if (luma < 50) dark = Math.max(dark, change)
        if (luma > 140) bright = Math.max(bright, change)
      }
    }
    expect(dark).toBeLessThan(6)
    expect(bright).toBeGreaterThan(8)
  })
})
