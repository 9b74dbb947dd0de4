import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { evaluatorFor } from '../core/test-support/pictures'
import { loadKernels } from '../core/test-support/kernels'
import { planeOf } from '../core/test-support/masks'
import { lampFieldNode } from '../core/src/operations/light/lamp/lamp'
import { everything } from '../core/test-support/sampled'
import { findings } from './support/axe'
import { addEffect, canvasPixel, dragBy, launch, settled, shelfReady, visit } from './support/browser'
import { throughSvgFilter } from './support/svgFilter'

// Light made in the interface as a person would.

let browser: Browser
let page: Page
let complaints: string[]
beforeAll(async () => {
  browser = await launch()
})
afterAll(() => browser.close())

async function openScene(name: string): Promise<void> {
  ;({ page, complaints } = await visit(browser))
  await shelfReady(page)
  await page.getByRole('link', { name: `Open ${name}` }).click()
  await settled(page)
}

const step = (name: string) => page.getByRole('button', { name: new RegExp(`\\d${name}`) })
const type = async (label: string, value: string, within = page.getByRole('complementary')) => {
  const field = within.getByRole('textbox', { name: label, exact: true }).first()
  await field.fill(value)
  await field.press('Enter')
}
const pictureBox = async () => (await page.locator('[data-testid=picture]').boundingBox())!
/** A menu that is fading still catches what is tapped. */
const menuClosed = () => expect.poll(() => page.getByRole('menu').count()).toBe(0)
/** Taps places given as parts of the view. */
const tap = async (...places: readonly (readonly [number, number])[]) => {
  const box = await pictureBox()
  for (const [x, y] of places) await page.mouse.click(box.x + x * box.width, box.y + y * box.height)
}
const brightness = async (x: number, y: number) => (await canvasPixel(page, x, y)).reduce((sum, value) => sum + value, 0)
/** Mean of a small patch, so that no grain decides. */
const patch = async (x: number, y: number) => {
  await settled(page)
  const values = await Promise.all([-0.008, 0, 0.008].flatMap((dx) => [-0.008, 0, 0.008].map((dy) => brightness(x + dx, y + dy))))
  return values.reduce((sum, value) => sum + value, 0) / values.length
}

describe('a subject glow', () => {
  it.runIf(everything)('goes from an outline to a tinted halo with spill, a part of it hidden behind something', async () => {
    await openScene('Moorings at midnight')
    await addEffect(page, 'Near', 'Subject glow', 'Rim of light')
    await settled(page)
    const before = await patch(0.592, 0.3)
    const warmth = async () => {
      await settled(page)
      const [red = 0, , blue = 0] = await canvasPixel(page, 0.586, 0.31)
      return red - blue
    }
    const cool = await warmth()
    await step('Pattern').click()
    const subject = page.getByRole('group', { name: 'Subject' })
    // It begins at what is bright about the focal point and is no sky.
    for (const left of [2, 1, 0]) {
      await subject.getByRole('button', { name: 'More about mask 1' }).click()
      await page.getByRole('menuitem', { name: 'Remove' }).click()
      await expect.poll(() => subject.getByRole('button', { name: /^More about mask/ }).count()).toBe(left)
      await menuClosed()
    }
    await subject.getByText(/^What glows/).waitFor()
    await subject.getByRole('button', { name: 'Add a mask' }).click()
    await page.getByRole('menuitem', { name: 'Outline' }).click()
    await menuClosed()
    await page.getByRole('button', { name: 'Draw outline' }).waitFor()
    await tap([0.4, 0.2], [0.58, 0.2], [0.58, 0.42], [0.4, 0.42])
    await page.keyboard.press('Enter')
    await expect.poll(() => patch(0.592, 0.3)).toBeGreaterThan(before + 12)
    // The subject itself stays; the tint and the spill are chosen.
    await step('Colour').click()
    await page.getByRole('button', { name: 'Balance its colours' }).click()
    await page.getByRole('group', { name: 'Balance' }).getByRole('textbox', { name: 'Blue' }).last().fill('-80')
    await page.keyboard.press('Enter')
    await type('Spill', '40')
    await settled(page)
    await expect.poll(warmth).toBeGreaterThan(cool + 25)
    // Something in front hides the right part.
    const lit = await patch(0.592, 0.3)
    await step('Where').click()
    await page.getByRole('region', { name: 'Where' }).getByRole('button', { name: 'Add a mask' }).click()
    await page.getByRole('menuitem', { name: 'Outline' }).click()
    await page.getByRole('button', { name: 'Draw outline' }).waitFor()
    await tap([0.583, 0.1], [0.8, 0.1], [0.8, 0.6], [0.583, 0.6])
    await page.keyboard.press('Enter')
    await page.getByRole('region', { name: 'Where' }).getByLabel('Invert').click()
    await expect.poll(() => patch(0.592, 0.3)).toBeLessThan(lit - 8)
    expect(complaints).toEqual([])
  })
})

describe('a sunburst', () => {
  it('is placed with a lens and drawn weakly meanwhile, comes behind silhouettes, and is faded', async () => {
    await openScene('Low sun, passing shower')
    await addEffect(page, 'Far', 'Sunburst', 'Rays through haze')
    await settled(page)
    await step('Pattern').click()
    const handle = page.getByRole('button', { name: /^Origin\. Arrow keys/ })
    const from = (await handle.boundingBox())!
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
    await page.mouse.down()
    await page.mouse.move(from.x + 60, from.y - 100, { steps: 5 })
    await page.getByTestId('lens').waitFor()
    await settled(page)
    const weak = await patch(0.55, 0.3)
    await page.mouse.up()
    expect(await page.getByTestId('lens').count()).toBe(0)
    await expect.poll(() => patch(0.55, 0.3)).toBeGreaterThan(weak + 8)
    // It followed the sun until it was moved.
    expect(await page.getByRole('combobox', { name: 'Origin' }).first().textContent()).toBe('A place of its own')
    await step('Where').click()
    await page.getByText('Behind silhouettes').first().waitFor()
    // The hill is dark, and stays so without front spill.
    await type('Hold', '100', page.getByRole('region', { name: 'Where' }))
    const hill = await patch(0.1, 0.55)
    await page.keyboard.down('b')
    await settled(page)
    const bareHill = await patch(0.1, 0.55)
    await page.keyboard.up('b')
    expect(Math.abs(hill - bareHill)).toBeLessThan(60)
    const strong = await patch(0.55, 0.3)
    await step('Mix').click()
    await page.getByText(/Nothing newly clipped|Clips:/).waitFor()
    await type('Amount', '15')
    await expect.poll(() => patch(0.55, 0.3)).toBeLessThan(strong - 8)
    expect(complaints).toEqual([])
  })

  it('says what is wrong with a number that is none, and keeps the old one', async () => {
    await step('Pattern').click()
    const rotation = page.getByRole('textbox', { name: 'Rotation' })
    const before = await rotation.inputValue()
    await rotation.fill('NaN')
    await page.getByText('A number is needed here.').waitFor()
    await rotation.press('Escape')
    expect(await rotation.inputValue()).toBe(before)
    const count = page.getByRole('textbox', { name: 'Count' })
    await count.fill('1000')
    await page.getByText('Between 0 and 360, please.').waitFor()
    await count.press('Escape')
  })
})

describe('sparkles', () => {
  it('are found on the bright spots of the photo, placed by hand, and taken away again', async () => {
    await openScene('Last crossing, heavy rain')
    await addEffect(page, 'Near', 'Sparkles', 'Glints on metal')
    await step('Pattern').click()
    const places = page.getByRole('group', { name: 'Places of the glints' })
    await places.getByText('3 glints placed').waitFor()
    await places.getByRole('textbox', { name: 'How many are to be found' }).fill('12')
    await page.keyboard.press('Enter')
    await places.getByRole('button', { name: 'Find glints' }).click()
    await places.getByText('12 glints placed').waitFor()
    // The lamp of the quay is the brightest spot there is.
    const handles = page.getByRole('button', { name: /^Glint \d+\. Arrow keys/ })
    await expect.poll(() => handles.count()).toBe(12)
    await places.getByRole('button', { name: 'Place glints' }).click()
    await tap([0.5, 0.2], [0.7, 0.25])
    await places.getByText('14 glints placed').waitFor()
    await places.getByRole('button', { name: 'Place glints' }).click()
    await dragBy(page, handles.last(), 30, 20)
    await places.getByRole('button', { name: 'Remove all' }).click()
    await places.getByText('0 glints placed').waitFor()
    await page.keyboard.press('Control+z')
    await places.getByText('14 glints placed').waitFor()
    expect(complaints).toEqual([])
  })
})

describe('a glow line', () => {
  it('is drawn as a curve on the photo and removed', async () => {
    await openScene('Moorings at midnight')
    await addEffect(page, 'Near', 'Glow line', 'Warm trail')
    await step('Pattern').click()
    await page.getByRole('button', { name: 'Remove line 1' }).click()
    const before = await patch(0.4, 0.15)
    await page.getByRole('button', { name: 'Draw a line' }).click()
    await tap([0.3, 0.15])
    await page.keyboard.press('Enter')
    await page.getByText('A line needs two corners: tap one more.').waitFor()
    await tap([0.5, 0.15])
    await page.keyboard.press('Enter')
    await page.getByText('Line 1, 2 corners').waitFor()
    await expect.poll(() => patch(0.4, 0.15)).toBeGreaterThan(before + 40)
    expect(complaints).toEqual([])
  })
})

describe('the Field studio', () => {
  it('makes a starburst from noise, and it is in the scene', async () => {
    await openScene('Low sun, passing shower')
    await addEffect(page, 'Middle', 'Custom field', 'Scan lines')
    await step('Pattern').click()
    await page.getByRole('link', { name: 'Open the Field studio' }).click()
    await page.getByRole('heading', { name: 'Field studio' }).waitFor()
    const choose = async (label: string, value: string) => {
      await page.getByRole('combobox', { name: label }).click()
      await page.getByRole('option', { name: value }).click()
    }
    await choose('Made from', 'Noise, smooth')
    await choose('Tiling', 'Seamless at the sides of the photo')
    await type('Across', '80')
    await type('Down', '100000')
    const add = async (operation: string) => {
      await page.getByRole('button', { name: 'Add an operation' }).click()
      await page.getByRole('menuitem', { name: operation }).click()
      await page.getByRole('listitem', { name: operation }).waitFor()
    }
    await add('Levels')
    await type('Black point', '40', page.getByRole('listitem', { name: 'Levels' }))
    await type('White point', '62', page.getByRole('listitem', { name: 'Levels' }))
    await add('Polar wrap')
    await page.getByRole('img', { name: 'Histogram of the field' }).waitFor()
    await page.getByRole('img', { name: 'Spectrum of the field' }).waitFor()
    expect(await findings(page)).toEqual([])
    // Rays: along a circle the field goes up and down many times, along a ray it hardly changes.
    const field = page.getByRole('img', { name: 'The field', exact: true })
    const variation = () =>
      field.evaluate((canvas) => {
        const { width, height } = canvas as HTMLCanvasElement
        const context = (canvas as HTMLCanvasElement).getContext('2d')!
        const { data } = context.getImageData(0, 0, width, height)
        const at = (angle: number, r: number) =>
          data[4 * (Math.round(0.502 * height - r * Math.sin(angle)) * width + Math.round(0.541 * width + r * Math.cos(angle)))] ?? 0
        let [around, along] = [0, 0]
        for (let i = 0; i < 180; i++) {
          const angle = (2 * Math.PI * i) / 180
          around += Math.abs(at(angle, 180) - at(angle + (2 * Math.PI) / 180, 180))
          along += Math.abs(at(angle, 180) - at(angle, 186))
        }
        return { around, along }
      })
    const raylike = async () => {
      const { around, along } = await variation()
      return around > 2000 && along < 0.35 * around
    }
    await expect.poll(raylike).toBe(true)
    await page.getByRole('link', { name: /Workbench/ }).click()
    await settled(page)
    await page.getByRole('button', { name: /^Custom field, Scan lines/ }).waitFor()
    expect(complaints).toEqual([])
  })

  it('says so when there is no such field', async () => {
    await page.goto(`${new URL(page.url()).origin}${new URL(page.url()).pathname}/field/none`)
    await page.getByText('This scene has no custom field of that address.').waitFor()
  })
})

describe('the cone of a lamp', () => {
  // feSpotLight of W3C Filter Effects Module Level 1, as Chromium draws it: nothing beyond limitingConeAngle. It has no fall-off with distance, so only where it ends is compared.
  it.each([
    { x: 60, y: 90, height: 80, toX: 130, toY: 100, outer: 18 },
    { x: 100, y: 20, height: 60, toX: 90, toY: 110, outer: 30 },
  ])('ends where that of feSpotLight ends: $outer degrees', async ({ x, y, height, toX, toY, outer }) => {
    const size = { width: 200, height: 160 }
    const light = `<feSpotLight x="${x}" y="${y}" z="${height}" pointsAtX="${toX}" pointsAtY="${toY}" pointsAtZ="0" specularExponent="1" limitingConeAngle="${outer}"/>`
    const primitive = `<feFlood flood-color="#000" result="flat"/><feDiffuseLighting in="flat" surfaceScale="0" diffuseConstant="1" lighting-color="#fff">${light}</feDiffuseLighting>`
    const theirs = await throughSvgFilter(page, primitive, { ...size, bytes: new Array<number>(size.width * size.height * 4).fill(255) })
    const ours = planeOf(
      evaluatorFor(await loadKernels()),
      lampFieldNode({ x, y, height, toX, toY, inner: outer, outer, falloff: 0 }),
      size,
    )
    let [same, inside] = [0, 0]
    ours.forEach((value, i) => {
      if (value > 0.5) inside++
      if (value > 0.5 === theirs[4 * i]! > 8) same++
    })
    expect(inside).toBeGreaterThan(1500)
    // A pixel wide along the rim may fall to either side.
    expect(same / ours.length).toBeGreaterThan(0.985)
  })
})
