import { mkdir, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { newEffect, noMarks, type Effect, type Recipe } from '@welkinar/core'
import { builtInRecipes, makeBuiltIn, writeBundle } from '@welkinar/core/recipes'
import type { Page } from 'playwright-core'
import sharp from 'sharp'
import { layRecipe, openPhoto, settled, watchBlocks } from './browserTimes'
import { limitRow, ratioRow, type Row } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import { recipeText } from './recipeText'
import { runNode, welkinarCommand } from './runNode'
import { inChromium } from './inChromium'
import { mixedStack } from './stackRows'

const size = { width: WIDTH, height: HEIGHT }
const six = { width: 3000, height: 2000 }
const THREADS = 2
const TRIALS = 24
const PHOTOS = 100

/** From one picture to many: sheets of variants and recipes in Chromium, folders by the command line. */
export async function manyRows(folder: string, photo: string): Promise<Row[]> {
  return [...(await sheetRows(photo)), ...(await folderRows(folder, photo))]
}

async function sheetRows(photo: string): Promise<Row[]> {
  return inChromium(async (browser, address) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true })
    const page = await context.newPage()
    await page.goto(address)
    await page.getByRole('link', { name: 'Open Last crossing, heavy rain' }).waitFor({ timeout: 60_000 })
    await openPhoto(page, photo)
    await page.evaluate(watchBlocks)
    await layRecipe(page, mixedStack(size, 8))
    const trials = await trialTimes(page)
    const recipes = await recipeTimes(page)
    return [
      limitRow(`${TRIALS} Trials of 24 MP, lowest of eight mixed effects varied: all in sight coarse`, trials.coarse, 700),
      limitRow('the same: all of the sheet exact', trials.exact, 4000),
      limitRow('longest time that the page was blocked meanwhile', trials.blocked, 50),
      limitRow('page of 60 recipes on a 24 MP photo: those in sight, exact', recipes.inSight, 1500),
      limitRow('the same: all of them, while one goes through the list', recipes.all, 12_000),
      limitRow('longest time that the page was blocked meanwhile, recipes', recipes.blocked, 50),
    ]
  })
}

/** How wide canvases are that have been drawn on; 300 is the width that the standard gives an empty one. */
const EMPTY = 300

function widths(page: Page, cards: string): Promise<number[]> {
  return page.evaluate(
    ([selector, empty]) =>
      [...document.querySelectorAll<HTMLCanvasElement>(`${selector} canvas`)].map(({ width, height }) =>
        width === empty && height === 150 ? 0 : width,
      ),
    [cards, EMPTY] as const,
  )
}

/** The first moment at which so many pictures are there, and all of them satisfy. */
async function until(page: Page, cards: string, count: number, isEnough: (width: number) => boolean): Promise<number> {
  for (;;) {
    const found = await widths(page, cards)
    if (found.length >= count && found.every(isEnough)) return performance.now()
    await page.waitForTimeout(15)
  }
}

async function blockedSince(page: Page, work: () => Promise<void>): Promise<number> {
  await page.evaluate(() => ((window as unknown as { blocks: number[] }).blocks.length = 0))
  await work()
  return page.evaluate(() => Math.max(0, ...(window as unknown as { blocks: number[] }).blocks))
}

/** Amounts of the lowest effect, 24 of them. */
async function trialTimes(page: Page): Promise<{ coarse: number; exact: number; blocked: number }> {
  await page
    .getByRole('region', { name: 'Depth line' })
    .getByRole('button', { name: /^Haze, Blue distance/ })
    .first()
    .click()
  await settled(page)
  await page.waitForTimeout(3000)
  await page.getByRole('link', { name: 'Trials' }).click()
  const choose = async (label: string, option: string): Promise<void> => {
    await page.getByRole('region', { name: 'Vary' }).getByRole('combobox', { name: label }).click()
    await page.getByRole('option', { name: option, exact: true }).click()
  }
  await choose('What', 'Amount')
  const count = page.getByRole('textbox', { name: 'Vary: how many' })
  await count.fill(String(TRIALS))
  const times = { coarse: 0, exact: 0 }
  const blocked = await blockedSince(page, async () => {
    const began = performance.now()
    await count.press('Enter')
    await page.waitForFunction((wanted) => document.querySelectorAll('[data-trial]').length === wanted, TRIALS)
    const inSight = await page.evaluate(() => document.querySelectorAll('[data-trial] canvas').length)
    times.coarse = (await until(page, '[data-trial]', Math.max(1, inSight), (width) => width > 0)) - began
    await page.locator('[data-trial]').last().scrollIntoViewIfNeeded()
    times.exact = (await until(page, '[data-trial]', TRIALS, (width) => width >= EMPTY)) - began
  })
  await page.getByRole('link', { name: /Workbench/ }).click()
  await settled(page)
  return { ...times, blocked }
}

/** Thirty built-in recipes, and as many of one's own, of which nothing is known from the others. */
async function recipeTimes(page: Page): Promise<{ inSight: number; all: number; blocked: number }> {
  const own = builtInRecipes.map((one) => {
    const recipe = makeBuiltIn(one, { photo: size, marks: noMarks })
    // Another seed is another pattern; what has none is another radius, or at least another strength.
    const effects = recipe.effects.map((effect) => {
      const numbers = effect.controls.pattern as Record<string, unknown>
      const changed = Object.entries(numbers).map(([key, value]) => [key, key === 'seed' ? Number(value) + 1 : value])
      return {
        ...effect,
        controls: { ...effect.controls, pattern: Object.fromEntries(changed) },
        mix: { ...effect.mix, amount: effect.mix.amount * 0.9 },
      }
    })
    return { ...recipe, name: `${recipe.name}, own`, effects } as Recipe
  })
  await page.getByRole('link', { name: 'Recipes' }).click()
  const cards = page.locator('[data-recipe]')
  await cards.first().waitFor()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Open files' }).click()
  const buffer = Buffer.from(writeBundle({ recipes: own, pictures: new Map() }))
  await (await chooser).setFiles({ name: 'own.welkinar', mimeType: 'application/zip', buffer })
  await page.getByText(`${own.length} recipes are among your own now.`).waitFor()
  await page.getByRole('link', { name: /Workbench/ }).click()
  await settled(page)
  await page.waitForTimeout(3000)
  const count = own.length + builtInRecipes.length
  const times = { inSight: 0, all: 0 }
  const blocked = await blockedSince(page, async () => {
    const began = performance.now()
    await page.getByRole('link', { name: 'Recipes' }).click()
    await page.locator('[data-recipe] canvas').first().waitFor({ state: 'attached' })
    const isExact = (width: number): boolean => width >= 180
    times.inSight = (await until(page, '[data-recipe]', 6, isExact)) - began
    for (let i = 0; i < count; i += 4) await cards.nth(i).scrollIntoViewIfNeeded()
    await cards.last().scrollIntoViewIfNeeded()
    times.all = (await until(page, '[data-recipe]', count, isExact)) - began
  })
  return { ...times, blocked }
}

/** A folder of photos with a veil, against the same steps with sharp; a folder of small ones, and ten times as many. */
async function folderRows(folder: string, photo: string): Promise<Row[]> {
  const photos = join(folder, 'many')
  await mkdir(photos, { recursive: true })
  const picture = await sharp(photo).resize(six.width, six.height, { fit: 'fill' }).raw().toBuffer({ resolveWithObject: true })
  for (let i = 0; i < PHOTOS; i++) {
    // Other photos each, which a cache cannot know.
    picture.data[i] = 255 - (picture.data[i] ?? 0)
    await sharp(picture.data, { raw: picture.info })
      .jpeg({ quality: 90 })
      .toFile(join(photos, `photo ${i}.jpg`))
  }
  const veil = newEffect(six, { kind: 'softFocus', look: 'veil', id: 'one' })
  Object.assign(veil.controls.shape, { detail: 0 })
  const out = join(folder, 'made')
  const script = fileURLToPath(new URL('./sharpMany.js', import.meta.url))
  const ours = await batch(folder, `${photos}/*.jpg`, [veil], six, out)
  await mkdir(join(folder, 'theirs'), { recursive: true })
  const theirs = await runNode([script, photos, join(folder, 'theirs'), String(THREADS)])
  if (theirs.failure !== undefined) throw new Error(theirs.failure)
  const row = ratioRow(
    `${PHOTOS} photos of 6 MP, soft focus, 2 threads`,
    { ours: ours.ms, other: theirs.ms },
    'the same steps with sharp',
    1.2,
    FOLDER_LIMIT,
  )
  const growth = await growthRow(folder)
  return [{ ...row, memory: ours.memory }, growth]
}

const FOLDER_LIMIT =
  'a photo is opened and written by one thread while the other waits, a third of the time; the blur is of 32-bit floats to the end of the kernel, that of sharp of 8 bits and cut short'

async function growthRow(folder: string): Promise<Row> {
  const [few, many] = [100, 1000]
  const photos = join(folder, 'small')
  await mkdir(photos, { recursive: true })
  for (let i = 0; i < many; i++) {
    const noise = { type: 'gaussian' as const, mean: 100 + (i % 50), sigma: 20 }
    await sharp({ create: { width: 300, height: 200, channels: 3, background: '#000', noise } })
      .png()
      .toFile(join(photos, `${String(i).padStart(4, '0')}.png`))
  }
  const rain = [newEffect({ width: 300, height: 200 }, { kind: 'rain', id: 'one' })]
  const small = { width: 300, height: 200 }
  const first = await batch(folder, `${photos}/00*.png`, rain, small, join(folder, 'few'))
  const all = await batch(folder, `${photos}/*.png`, rain, small, join(folder, 'all'))
  const ratio = all.ms / first.ms
  return {
    work: `${many} photos of 0.06 MP against ${few}`,
    ours: all.ms,
    other: { name: `${few} photos`, ms: first.ms },
    memory: all.memory,
    reach: '≤ 10.5 ×',
    within: ratio <= 10.5,
    remark: `memory ${(first.memory / 1e6).toFixed(0)} and ${(all.memory / 1e6).toFixed(0)} MB`,
  }
}

async function batch(folder: string, photos: string, effects: Effect[], size: { width: number; height: number }, out: string) {
  await rm(out, { recursive: true, force: true })
  const recipe = join(folder, 'many.json')
  await writeFile(recipe, recipeText('Many', size, effects))
  const paths = ['--photos', photos, '--recipe', recipe, '--out', out, '--formats', 'jpg', '--reading', 'no']
  const run = await runNode([welkinarCommand, 'batch', ...paths, '--threads', String(THREADS), '--json'])
  if (run.failure !== undefined) throw new Error(run.failure)
  return run
}
