import { readFile } from 'node:fs/promises'
import { unzipSync } from 'fflate'
import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { findings } from './support/axe'
import { launch, settled, visit } from './support/browser'

describe('many photos', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  const files: { name: string; mimeType: string; buffer: Buffer }[] = []
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser, '/batch'))
    for (const [i, colour] of ['#567', '#a64', '#283', '#ccc'].entries()) {
      const noise = { type: 'gaussian' as const, mean: 90 + 20 * i, sigma: 20 }
      const buffer = await sharp({ create: { width: 300, height: 200, channels: 3, background: colour, noise } })
        .png()
        .toBuffer()
      files.push({ name: `photo “${i + 1}”.png`, mimeType: 'image/png', buffer })
    }
    files.push({ name: 'no photo.png', mimeType: 'image/png', buffer: Buffer.from('nothing') })
  })
  afterAll(() => browser.close())

  const states = () => page.locator('[data-state]').evaluateAll((rows) => rows.map((row) => row.getAttribute('data-state')))
  const choose = async (label: string, option: string, within = page.getByRole('group', { name: 'File 1' })) => {
    await within.getByRole('combobox', { name: label }).click()
    await page.getByRole('option', { name: option, exact: true }).click()
  }
  const addRecipe = async (name: string) => {
    await page.getByRole('button', { name: /^(Choose|Add) a recipe$/ }).click()
    await page.getByRole('menuitem', { name, exact: true }).click()
  }

  it('asks for photos and a recipe, says what the files will be called, and has no finding', async () => {
    await page.getByRole('button', { name: 'Choose photos first' }).waitFor()
    await page.getByLabel('Photo files').setInputFiles(files)
    await page.getByText('5 photos').waitFor()
    await page.getByRole('button', { name: 'Choose a recipe first' }).waitFor()
    await addRecipe('Quiet snow')
    await choose('Format', 'PNG')
    await page.getByRole('textbox', { name: 'Names' }).fill('{number} {name} {recipe}')
    await page.getByText('The first will be “1 photo “1” Quiet snow.png”.').waitFor()
    expect(await findings(page)).toEqual([])
  })

  it('makes a file of each; one that cannot be opened is named, and the others are made', async () => {
    await page.getByRole('button', { name: 'Add a file' }).click()
    await choose('Format', 'PNG', page.getByRole('group', { name: 'File 2' }))
    await page.getByRole('textbox', { name: 'Longer side of file 2' }).fill('150')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Make 10 files' }).click()
    await page.getByText('8 of 10 made').waitFor({ timeout: 40_000 })
    await expect.poll(states).toEqual([...Array.from({ length: 8 }, () => 'done'), 'failed', 'failed'])
    expect(await page.getByText('“no photo.png” cannot be opened').count()).toBe(2)
    expect(await findings(page)).toEqual([])
  })

  it('the files are saved as one zip, with the pixels that the Workbench exports', async () => {
    const waiting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save 8 files as a zip' }).click()
    const entries = unzipSync(await readFile(await (await waiting).path()))
    expect(Object.keys(entries)).toHaveLength(8)
    const sizes = await Promise.all(Object.values(entries).map(async (bytes) => (await sharp(bytes).metadata()).width))
    expect(sizes).toEqual([300, 150, 300, 150, 300, 150, 300, 150])
    const made = entries['1 photo “1” Quiet snow.png']!
    await page.getByRole('button', { name: 'Look at 1 photo “1” Quiet snow.png' }).click()
    await page.getByRole('img', { name: /^After/ }).waitFor()
    await page.getByRole('button', { name: 'Open as a scene' }).click()
    await page.waitForURL(/\/scene\//)
    await settled(page)
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: 'PNG', exact: true }).click()
    const exporting = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    const exported = await readFile(await (await exporting).path())
    const pixels = (bytes: Uint8Array) => sharp(bytes).raw().toBuffer()
    expect((await pixels(exported)).equals(await pixels(made))).toBe(true)
  })

  it('is there after a reload, goes on where it was paused, and makes nothing twice', async () => {
    await page.goto(`${inject('address')}/batch`)
    await page.getByText('8 of 10 made').waitFor()
    await page.getByRole('button', { name: 'End the run' }).click()
    await page.getByRole('button', { name: 'End it' }).click()
    // The files that were asked for are remembered.
    await page.getByRole('textbox', { name: 'Longer side of file 2' }).waitFor()
    await page.getByLabel('Photo files').setInputFiles(files.slice(0, 4))
    await addRecipe('Harbour drizzle')
    await addRecipe('Last light')
    await page.getByRole('button', { name: 'Make 16 files' }).click()
    await page.getByText(/[1-9] of 16 made/).waitFor({ timeout: 30_000 })
    await page.reload()
    await page.getByRole('button', { name: 'Go on' }).waitFor()
    const before = (await states()).filter((state) => state === 'done').length
    expect(before).toBeGreaterThan(0)
    const { page: other } = await sameProfile(page)
    await page.getByRole('button', { name: 'Go on' }).click()
    await page.getByRole('button', { name: 'Pause' }).waitFor()
    // A second tab says so and makes nothing.
    await other.goto(`${inject('address')}/batch`)
    await other.getByRole('button', { name: 'Go on' }).click()
    await other.getByText('Another tab makes the files of this run.').or(other.getByText('16 of 16 made')).first().waitFor()
    await page.getByText('16 of 16 made').waitFor({ timeout: 40_000 })
    await other.getByText('16 of 16 made').waitFor()
    await other.close()
    expect(complaints.filter((one) => !one.includes('ERR_'))).toEqual([])
  })

  it('a recipe brings itself from its page', async () => {
    await page.getByRole('button', { name: 'End the run' }).click()
    await page.getByRole('button', { name: 'End it' }).click()
    await page.getByRole('button', { name: 'End the run' }).waitFor({ state: 'detached' })
    await page.goto(`${inject('address')}/recipes`)
    await page.getByRole('button', { name: 'More about Storm front' }).click()
    await page.getByRole('menuitem', { name: 'Lay it on many photos' }).click()
    await page.getByRole('button', { name: 'Without Storm front' }).waitFor()
  })
})

async function sameProfile(page: Page): Promise<{ page: Page }> {
  return { page: await page.context().newPage() }
}
