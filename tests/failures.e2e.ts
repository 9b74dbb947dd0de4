import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser, BrowserContext, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, describe, expect, inject, it } from 'vitest'
import { everything } from '../core/test-support/sampled'
import { addEffect, dropPhoto, launch, launchProfile, saved, settled, shelfReady, visit } from './support/browser'
import { storedIn } from './support/database'

/** How often the browser is killed; more in the soak (`npm run soak`). */
const KILLS = Number(process.env['WELKINAR_KILLS'] ?? 1)

const amount = (page: Page) => page.getByRole('textbox', { name: 'Amount', exact: true }).first()

async function setAmount(page: Page, value: number): Promise<void> {
  await amount(page).fill(String(value))
  await page.keyboard.press('Enter')
}

async function openSmall(page: Page, name: string): Promise<void> {
  await page.goto(`${inject('address')}/`)
  await shelfReady(page)
  const photo = await sharp({ create: { width: 240, height: 160, channels: 3, background: '#567' } })
    .png()
    .toBuffer()
  await dropPhoto(page, photo, `${name}.png`)
}

describe('threads that fail', () => {
  let browser: Browser
  afterAll(() => browser.close())

  it('a thread that dies is replaced, and the picture comes', async () => {
    browser = await launch()
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    await page.addInitScript(() => {
      const threads: Worker[] = []
      Object.assign(globalThis, { threads })
      globalThis.Worker = class extends Worker {
        constructor(...made: ConstructorParameters<typeof Worker>) {
          super(...made)
          threads.push(this)
        }
      }
    })
    await openSmall(page, 'threads')
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await settled(page)
    const killed = await page.evaluate(() => {
      const { threads } = globalThis as unknown as { threads: Worker[] }
      threads.forEach((thread) => {
        thread.terminate()
        thread.dispatchEvent(new ErrorEvent('error', { message: 'killed' }))
      })
      return threads.length
    })
    await page.keyboard.press('q')
    await settled(page)
    await setAmount(page, 30)
    await settled(page)
    expect(await page.evaluate(() => (globalThis as unknown as { threads: Worker[] }).threads.length)).toBeGreaterThan(killed)
    expect(await page.getByText('could not be computed').count()).toBe(0)
    await browser.close()
  })

  /** A scene with one effect more, whose kernels get so many pages of 64 kB, as if the machine had no more. */
  async function withLittleMemory(pages: number): Promise<Page> {
    browser = await launch([`--js-flags=--wasm-max-mem-pages=${pages}`])
    const { page } = await visit(browser)
    await shelfReady(page)
    await page.getByRole('link', { name: 'Open Morning like silk' }).click()
    await settled(page)
    await addEffect(page, 'Lens', 'Light bloom')
    return page
  }

  // A whole photo pixel for pixel: for the soak.
  it.runIf(everything)('where memory is short they keep less, and all goes on', async () => {
    const page = await withLittleMemory(1200)
    await settled(page)
    await page.keyboard.press('q')
    await settled(page)
    expect(await page.getByText('could not be computed').count()).toBe(0)
    await browser.close()
  })

  it('where there is not enough memory it is said, with the effect; what can be computed goes on', async () => {
    const page = await withLittleMemory(700)
    const trouble = page.getByRole('alert').getByText(/“.+” could not be computed: there is not enough memory for it at this size\./)
    await trouble.waitFor({ timeout: 60_000 })
    await page.keyboard.press('Control+z')
    await settled(page)
    await trouble.waitFor({ state: 'detached' })
    await page.keyboard.press('Control+Shift+z')
    // And so does the export say it, and the screen stays.
    await page.getByRole('link', { name: 'Export' }).click()
    await page.getByRole('button', { name: 'Make the PNG file' }).click()
    await trouble.waitFor({ timeout: 60_000 })
    await page.getByRole('button', { name: 'Make the PNG file' }).waitFor()
  })
})

/** A small file system of its own; undefined where none can be made. */
function smallFileSystem(megabytes: number): string | undefined {
  const folder = mkdtempSync(join(tmpdir(), 'welkinar-full-'))
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', folder], { stdio: 'ignore' })
    return folder
  } catch {
    rmSync(folder, { recursive: true })
    return undefined
  }
}

describe('storage that is really full', () => {
  const folder = smallFileSystem(400)
  let context: BrowserContext | undefined
  afterAll(async () => {
    await context?.close()
    if (folder) execFileSync('umount', [folder])
  })

  // Only somebody who may mount a file system can fill one.
  it.skipIf(!folder)('is said on every screen, asks before the scene is left, and is saved by itself once there is room', async () => {
    context = await launchProfile(join(folder!, 'profile'))
    const page = context.pages()[0]!
    await openSmall(page, 'full')
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await saved(page)
    const filler = join(folder!, 'filler')
    fill(filler, folder!)
    const alert = page.getByRole('alert').getByText(/the latest changes are only on this screen/)
    // The browser's own reserve takes some changes first.
    for (let value = 10; value < 60 && (await alert.count()) === 0; value++) {
      fill(filler, folder!)
      await setAmount(page, value)
      await Promise.race([alert.waitFor(), saved(page)]).catch(() => undefined)
    }
    await alert.waitFor()
    await setAmount(page, 77)
    await page.getByRole('link', { name: 'Export' }).click()
    await alert.waitFor()
    await page
      .getByRole('button', { name: 'Make the JPEG file' })
      .or(page.getByRole('button', { name: 'Make the PNG file' }))
      .waitFor()
    await page.getByRole('link', { name: '← Workbench' }).click()
    await alert.waitFor()
    // What the browser freed meanwhile is filled again.
    fill(filler, folder!)
    await setAmount(page, 76)
    await setAmount(page, 77)
    await alert.waitFor()
    await page.getByRole('link', { name: 'Shelf' }).click()
    await page.getByRole('dialog').getByText('are not stored').waitFor()
    await page.getByRole('button', { name: 'Stay' }).click()
    // Work goes on.
    await setAmount(page, 78)
    await settled(page)
    rmSync(filler)
    await alert.waitFor({ state: 'detached', timeout: 60_000 })
    await page.locator('[data-saved=true]').waitFor({ timeout: 60_000 })
    await page.reload()
    await settled(page)
    expect(await amount(page).inputValue()).toContain('78')
    await page.keyboard.press('Control+z')
    await saved(page)
    expect(await amount(page).inputValue()).toContain('77')
  })
})

/** Fills a file system to its last block. */
function fill(file: string, folder: string): void {
  const { bavail, bsize } = statfsSync(folder)
  try {
    if (bavail > 0) writeFileSync(file, Buffer.alloc(bavail * bsize), { flag: 'a' })
  } catch (error) {
    // The browser writes too: then it is full a little sooner.
    if ((error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error
  }
}

describe('a browser that is killed', () => {
  it(`keeps every gesture that had ended a second before, ${KILLS} times`, async () => {
    const profile = mkdtempSync(join(tmpdir(), 'welkinar-kill-'))
    let context = await launchProfile(profile)
    let page = context.pages()[0]!
    await openSmall(page, 'killed')
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await saved(page)
    const address = page.url()
    let value = Number.parseInt(await amount(page).inputValue())
    for (let kill = 0; kill < KILLS; kill++) {
      const done: { readonly value: number; readonly at: number }[] = [{ value, at: 0 }]
      const end = Date.now() + 300 + Math.random() * 2200
      while (Date.now() < end) {
        value = (value % 99) + 1
        await setAmount(page, value)
        done.push({ value, at: Date.now() })
      }
      const killedAt = Date.now()
      killBrowser(profile)
      await context.close().catch(() => undefined)
      context = await launchProfile(profile)
      page = context.pages()[0]!
      await page.goto(address)
      await settled(page)
      const found = Number.parseInt(await amount(page).inputValue())
      const safe = done.findLastIndex(({ at }) => at <= killedAt - 1000)
      expect(
        done.slice(safe).map((one) => one.value),
        `kill ${kill}`,
      ).toContain(found)
      const scenes = await storedIn(page, 'scenes')
      const history = await storedIn(page, 'history')
      const { id, position } = scenes.find(({ document }) => (document as { name: string }).name === 'killed') as {
        id: string
        position: number
      }
      expect(history.filter(({ sceneId }) => sceneId === id).length).toBeGreaterThanOrEqual(position)
      value = found
    }
    await context.close()
    rmSync(profile, { recursive: true, force: true })
  }, 3_600_000)
})

/** Ends all processes of the browser with a profile, without a word to them. */
function killBrowser(profile: string): void {
  try {
    execFileSync('pkill', ['-9', '-f', `user-data-dir=${profile}`])
  } catch {
    // It was gone already.
  }
}
