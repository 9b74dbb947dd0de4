import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { inject } from 'vitest'
import { sampled } from '../core/test-support/sampled'
import type { Browser, Page } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  addEffect,
  canvasPixel,
  canvasRow,
  choose,
  drawn,
  dropPhoto,
  exported,
  launch,
  openStep,
  saved,
  settled,
  shelfReady,
  visit,
} from './support/browser'
import { changeScene, restore, storedIn, type Dump } from './support/database'

const fixture = async <T>(name: string): Promise<T> =>
  JSON.parse(await readFile(new URL(`./fixtures/${name}`, import.meta.url), 'utf8')) as T
const sha256 = (pixels: Buffer): string => createHash('sha256').update(pixels).digest('hex')

/** A picture of an earlier version and that reduced to 48 × 32 px, red, green, blue in base 64: the engine may differ a little (docs/decisions.md). */
interface Earlier {
  readonly width: number
  readonly height: number
  readonly reduced: string
}

/** Codes by which the reduced picture differs most from what it was. */
async function greatestDifference(pixels: Buffer, { width, height, reduced }: Earlier): Promise<number> {
  const found = await sharp(pixels, { raw: { width, height, channels: 3 } })
    .resize(48, 32, { fit: 'fill', kernel: 'linear' })
    .raw()
    .toBuffer()
  const before = Buffer.from(reduced, 'base64')
  return Math.max(...found.map((code, i) => Math.abs(code - before[i]!)))
}

/** A small photo: dark at the left, bright at the right, so that masks by tones can be told from each other. */
function ramp(width = 480, height = 320): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 3)
  for (let i = 0; i < width * height; i++) pixels.fill(Math.round((255 * (i % width)) / (width - 1)), 3 * i, 3 * i + 3)
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer()
}

async function openRamp(page: Page, name = 'ramp'): Promise<void> {
  if (!page.url().endsWith('/')) await page.goto(`${inject('address')}/`)
  await shelfReady(page)
  await dropPhoto(page, await ramp(), `${name}.png`)
}

const dial = (page: Page, label: string) => page.getByRole('textbox', { name: label, exact: true }).first()

async function type(page: Page, label: string, text: string): Promise<void> {
  await dial(page, label).fill(text)
  await page.keyboard.press('Enter')
}

/** The number of effects that a scene shows after it is opened anew. */
async function effectsAfterReload(page: Page): Promise<number> {
  await saved(page)
  await page.reload()
  await settled(page)
  return page.getByRole('region', { name: 'Depth line' }).locator('[aria-roledescription^=effect]').count()
}

describe('nothing an artist makes is lost', () => {
  let browser: Browser
  let page: Page
  let complaints: string[]
  beforeAll(async () => {
    browser = await launch()
    ;({ page, complaints } = await visit(browser))
    await openRamp(page)
  })
  afterAll(() => browser.close())

  it('a decimal typed for a whole number is refused with a word, and the scene opens again', async () => {
    await addEffect(page, 'Near', 'Rain', 'Downpour')
    await type(page, 'Depth layers', '2.5')
    await page.getByText('A whole number, please.').waitFor()
    await page.keyboard.press('Escape')
    for (const text of ['0', '1e99', 'four', '']) {
      await dial(page, 'Depth layers').fill(text)
      expect(await dial(page, 'Depth layers').getAttribute('aria-invalid')).toBe('true')
    }
    await page.keyboard.press('Escape')
    await type(page, 'Depth layers', '3')
    await addEffect(page, 'Middle', 'Fog')
    await openStep(page, 'Pattern')
    await type(page, 'Banks', '1.5')
    expect(await effectsAfterReload(page)).toBe(2)
    await page.getByRole('button', { name: /^Rain,/ }).click()
    expect(await dial(page, 'Depth layers').inputValue()).toBe('3')
  })

  const seeded = [
    ['Lamp', 'Shape'],
    ['Reflection', 'Shape'],
  ] as const
  it.each(sampled(seeded))('another seed of %s is a seed, and the scene opens again', async (kind, step) => {
    if (kind === 'Lamp') await addEffect(page, 'Near', 'Lamp')
    else await choose(page, page.getByRole('button', { name: 'More about Rain' }).first(), 'Reflect in the water')
    await openStep(page, step)
    const before = await dial(page, 'Seed').inputValue()
    await page.getByRole('button', { name: 'Another seed' }).click()
    const after = await dial(page, 'Seed').inputValue()
    expect(after).not.toBe(before)
    expect(await effectsAfterReload(page)).toBe(kind === 'Lamp' ? 3 : 4)
    await page.getByRole('button', { name: new RegExp(`^${kind},`) }).click()
    await openStep(page, step)
    expect(await dial(page, 'Seed').inputValue()).toBe(after)
  })

  it('the Export screen makes the file after a reload, with a depth picture and a mask picture', async () => {
    const grey = await sharp({ create: { width: 48, height: 32, channels: 3, background: '#777' } })
      .png()
      .toBuffer()
    const give = async (button: string, name: string): Promise<void> => {
      const choosing = page.waitForEvent('filechooser')
      await page.getByRole('button', { name: button }).click()
      await (await choosing).setFiles({ name, mimeType: 'image/png', buffer: grey })
    }
    await page.keyboard.press('g')
    await give('Import a depth map', 'depth.png')
    await page.getByRole('img', { name: 'Distances: near is white, far is black' }).waitFor()
    await page.getByRole('button', { name: 'Done' }).click()
    await page.getByRole('button', { name: /^Rain,/ }).click()
    await openStep(page, 'Where')
    await choose(page, page.getByRole('button', { name: 'Add a mask' }), 'Picture')
    await give('Choose a picture', 'mask.png')
    await page.getByText('mask.png').first().waitFor()
    await saved(page)
    await page.getByRole('link', { name: 'Export' }).click()
    const before = sha256(await exported(page))
    await page.reload()
    expect(sha256(await exported(page))).toBe(before)
    await page.getByRole('link', { name: '← Workbench' }).click()
    await settled(page)
  })

  it('the Export screen shows what is on the screen, also before it is saved', async () => {
    await page.getByRole('button', { name: /^Fog,/ }).click()
    await type(page, 'Amount', '7')
    await page.getByRole('link', { name: 'Export' }).click()
    const less = sha256(await exported(page))
    await page.getByRole('link', { name: '← Workbench' }).click()
    await settled(page)
    await page.keyboard.press('Control+z')
    await settled(page)
    await page.getByRole('link', { name: 'Export' }).click()
    expect(sha256(await exported(page))).not.toBe(less)
    await page.getByRole('link', { name: '← Workbench' }).click()
  })

  describe('a region of an effect', () => {
    beforeAll(async () => {
      await openRamp(page, 'region')
      await addEffect(page, 'Far', 'Haze', 'Grey day')
      await addEffect(page, 'Near', 'Subject glow', 'Rim of light')
      await openStep(page, 'Pattern')
      // Its own masks go, so that the mask by tones is alone.
      const first = page.getByRole('button', { name: 'More about mask 1' })
      for (let left = await page.getByRole('button', { name: /^More about mask/ }).count(); left > 0; left--)
        await choose(page, first, 'Remove')
      await choose(page, page.getByRole('button', { name: 'Add a mask' }), 'Luminosity')
    })

    const show = async (name: string): Promise<void> => {
      await page.getByRole('group', { name: 'Show' }).getByRole('button', { name, exact: true }).click()
      await settled(page)
    }

    it('is seen on the photo as grey, one mask or all', async () => {
      await show('Grey')
      const row = await canvasRow(page, 0.5)
      // Brights: as dark as the photo at the left, as bright at the right.
      expect(row.at(-1)! - row[0]!).toBeGreaterThan(90)
      await choose(page, page.getByRole('button', { name: 'Add a mask' }), 'Luminosity')
      // What is taken from the photo grows with each mask, unless that is changed.
      await page.getByRole('combobox', { name: 'How mask 2 joins' }).click()
      await page.getByRole('option', { name: /^Subtract/ }).click()
      await settled(page)
      const all = await canvasRow(page, 0.5)
      await page.getByRole('group', { name: 'Which masks are shown' }).getByRole('button', { name: 'One' }).click()
      await settled(page)
      expect(await canvasRow(page, 0.5)).toEqual(row)
      expect(all).not.toEqual(row)
      await page.keyboard.press('Control+z')
      await page.keyboard.press('Control+z')
      await page.getByRole('group', { name: 'Which masks are shown' }).getByRole('button', { name: 'All' }).click()
      await show('Picture')
    })

    it('is tried in pictures that differ', async () => {
      await page
        .getByRole('button', { name: /highlights/ })
        .first()
        .click()
      await page.getByRole('button', { name: 'Try them in pictures' }).click()
      const pictures = page.getByRole('group', { name: /Quick choices/ }).locator('canvas')
      await expect.poll(() => pictures.count()).toBe(15)
      const contents = () => pictures.evaluateAll((all) => new Set(all.map((canvas) => (canvas as HTMLCanvasElement).toDataURL())).size)
      await expect.poll(contents).toBe(15)
    })

    it('is held without', async () => {
      const at = () => canvasPixel(page, 0.3, 0.5)
      const before = await at()
      const without = page.getByRole('button', { name: 'Hold to see it without its mask' })
      await without.dispatchEvent('pointerdown')
      await settled(page)
      const bare = await at()
      await without.dispatchEvent('pointerup')
      await settled(page)
      expect(bare).not.toEqual(before)
      expect(await at()).toEqual(before)
    })

    it('pins what lies beneath the effect, and nothing else', async () => {
      await page.getByRole('combobox', { name: 'Tones from' }).click()
      await page.getByRole('option', { name: 'Pin what lies beneath now' }).click()
      await saved(page)
      const [scene] = (await storedIn(page, 'scenes')).filter(({ document }) => (document as { name: string }).name === 'region')
      const { pinned, effects } = scene!['document'] as { pinned: { effects: { kind: string }[] }[]; effects: { kind: string }[] }
      expect(effects.map(({ kind }) => kind)).toEqual(['haze', 'subjectGlow'])
      expect(pinned.map((state) => state.effects.map(({ kind }) => kind))).toEqual([['haze']])
    })

    it('gives masks to other lists, and takes them', async () => {
      await choose(page, page.getByRole('button', { name: 'More about mask 1' }), 'Copy to Grey day')
      await page.getByText('The mask was copied to Grey day.').waitFor()
      await page.getByRole('button', { name: /^Haze,/ }).click()
      await openStep(page, 'Where')
      await choose(page, page.getByRole('button', { name: 'More about mask 1' }), 'Copy to Subject of Rim of light')
      await page.getByText('The mask was copied to Subject of Rim of light.').waitFor()
    })
  })

  describe('in two tabs', () => {
    let other: Page
    beforeAll(async () => {
      await openRamp(page, 'shared')
      other = await page.context().newPage()
      await other.goto(page.url())
      await settled(other)
    })
    afterAll(() => other.close())

    const cards = (tab: Page) => tab.getByRole('region', { name: 'Depth line' }).locator('[aria-roledescription^=effect]')

    it('the second sees the scene live and cannot change it', async () => {
      await other.getByText('This scene is open in another tab.').waitFor()
      await addEffect(page, 'Near', 'Rain', 'Downpour')
      await saved(page)
      await expect.poll(() => cards(other).count()).toBe(1)
      await addEffect(other, 'Near', 'Snow')
      await other.getByText('This scene is being changed in another tab.').waitFor()
      expect(await cards(other).count()).toBe(1)
      await other.getByRole('alert').getByRole('button', { name: 'Close' }).click()
      // Nor what was read from its photo.
      await other.keyboard.press('g')
      await other.getByRole('button', { name: 'Read again' }).click()
      await other.getByText('This scene is being changed in another tab.').waitFor()
      await other.getByRole('alert').getByRole('button', { name: 'Close' }).click()
      await other.keyboard.press('g')
    })

    it('the second goes on, with everything that was done, also the steps', async () => {
      await type(page, 'Amount', '33')
      await other.getByRole('button', { name: 'Go on here' }).click()
      await page.getByText('This scene is open in another tab.').waitFor()
      await expect.poll(() => other.getByRole('button', { name: 'Undo' }).isEnabled()).toBe(true)
      await expect.poll(() => dial(other, 'Amount').inputValue()).toContain('33')
      await addEffect(other, 'Near', 'Snow')
      await saved(other)
      await expect.poll(() => cards(page).count()).toBe(2)
      for (let i = 0; i < 3; i++) await other.keyboard.press('Control+z')
      await saved(other)
      await expect.poll(() => cards(page).count()).toBe(0)
    })

    it('a scene that is open is not deleted or renamed from the Shelf of another', async () => {
      await page.goto(`${inject('address')}/`)
      await shelfReady(page)
      await choose(page, page.getByRole('button', { name: 'More about shared' }), 'Delete')
      await page.getByText('This scene is open in another tab; close it there first.').waitFor()
      await page.getByRole('alert').getByRole('button', { name: 'Close' }).click()
      expect(await page.getByRole('heading', { name: 'shared' }).count()).toBe(1)
    })

    it('a tab that is closed gives the scene back', async () => {
      await other.close()
      await page.getByRole('link', { name: 'Open shared' }).click()
      await settled(page)
      expect(await page.getByText('This scene is open in another tab.').count()).toBe(0)
    })
  })

  describe('a database from an earlier version', () => {
    it('opens with the same pictures and the same steps', async () => {
      const dump = await fixture<Dump & { readonly pictures: Record<string, Earlier> }>('earlierDatabase.json')
      await page.goto(`${inject('address')}/`)
      await shelfReady(page)
      await restore(page, dump)
      for (const [id, picture] of Object.entries(dump.pictures)) {
        await page.goto(`${inject('address')}/scene/${id}`)
        await settled(page)
        await page.getByRole('link', { name: 'Export' }).click()
        const pixels = await exported(page)
        expect(await greatestDifference(pixels, picture), id).toBeLessThanOrEqual(3)
        await page.getByRole('link', { name: '← Workbench' }).click()
        await settled(page)
        // All that was done goes back to the bare photo, and comes again.
        const undo = page.getByRole('button', { name: 'Undo' })
        while (await undo.isEnabled()) await undo.click()
        const redo = page.getByRole('button', { name: 'Redo' })
        const { position } = dump.scenes.find((scene) => scene['id'] === id) as { position: number }
        for (let i = 0; i < position; i++) await redo.click()
        await page.getByRole('link', { name: 'Export' }).click()
        expect(sha256(await exported(page)), `${id}, done again`).toBe(sha256(pixels))
      }
    })

    it('a damaged document opens with as little changed as can be, says so, and keeps what was stored as a file', async () => {
      await page.goto(`${inject('address')}/`)
      await changeScene(page, 'Of version 1', {
        'document.effects.0.controls.pattern.layers': 2.5,
        'document.effects.1.controls.pattern.surprise': 1,
      })
      await page.reload()
      await page.getByRole('link', { name: 'Open Of version 1', exact: true }).click()
      await page.getByText(/could not be read: Depth layers was 2.5 and is 3 now; “surprise” was not known/).waitFor()
      await settled(page)
      await page.getByRole('link', { name: 'Shelf' }).click()
      const waiting = page.waitForEvent('download')
      const aside = page.getByRole('region', { name: 'Set aside' })
      await aside.getByRole('button', { name: 'Save the version of Of version 1 as a file' }).click()
      const kept = JSON.parse(await readFile(await (await waiting).path(), 'utf8')) as { document: object; history: object[] }
      expect(JSON.stringify(kept.document)).toContain('"layers":2.5')
      expect(kept.history.length).toBe(2)
      await aside.getByRole('button', { name: 'Delete the version of Of version 1' }).click()
      await aside.waitFor({ state: 'detached' })
      await page.getByRole('button', { name: 'Undo' }).click()
      await aside.getByRole('button', { name: 'Open the version of Of version 1' }).click()
      await settled(page)
      expect(await page.getByRole('region', { name: 'Depth line' }).locator('[aria-roledescription^=effect]').count()).toBe(2)
      await page.getByRole('link', { name: 'Shelf' }).click()
    })

    it('a document that cannot be read opens as it was last opened', async () => {
      await changeScene(page, 'Of version 1', { 'document.marks': 5 })
      await page.reload()
      await page.getByRole('link', { name: 'Open Of version 1', exact: true }).click()
      await page.getByText(/it is shown as it was before/).waitFor()
      expect(await page.getByRole('region', { name: 'Depth line' }).locator('[aria-roledescription^=effect]').count()).toBe(2)
    })

    it('a damaged history is left out, and the scene opens', async () => {
      await page.goto(`${inject('address')}/`)
      await shelfReady(page)
      const scene = (await storedIn(page, 'scenes')).find(({ document }) => (document as { name: string }).name === 'harbour')!
      await page.evaluate(
        (sceneId) =>
          new Promise<void>((resolve) => {
            indexedDB.open('welkinar').onsuccess = (event) => {
              const { result } = event.target as IDBOpenDBRequest
              const history = result.transaction('history', 'readwrite').objectStore('history')
              history.delete([sceneId, 3]).onsuccess = () => resolve()
            }
          }),
        scene['id'] as string,
      )
      await page.getByRole('link', { name: 'Open harbour' }).click()
      await settled(page)
      await page.getByText(/the steps that led to it are not whole/).waitFor()
      expect(await page.getByRole('button', { name: 'Undo' }).isEnabled()).toBe(false)
      await type(page, 'Amount', '20')
      await saved(page)
    })

    it('a photo that is gone is said to be', async () => {
      await page.goto(`${inject('address')}/`)
      await shelfReady(page)
      await changeScene(page, 'harbour', { 'document.photo.id': 'lost' })
      await page.getByRole('link', { name: 'Open harbour' }).click()
      await page.getByText('The photo of this scene is no longer in this browser’s storage.').waitFor()
    })
  })

  // Its photo was dropped twice: its record says no more that it was reduced. Written by the build of commit 752015b.
  it('both scenes of a photo over the limit open, also where an earlier build lost how it was read', async () => {
    const dump = await fixture<Dump>('reducedTwice.json')
    await page.goto(`${inject('address')}/`)
    await shelfReady(page)
    await restore(page, dump)
    const scenes = dump.scenes.filter(({ document }) => (document as { name: string }).name === 'big')
    expect(scenes).toHaveLength(2)
    for (const { id } of scenes) {
      await page.goto(`${inject('address')}/scene/${String(id)}`)
      await settled(page)
    }
  })

  it('a scene of a newer build is shown as far as it is known, and cannot be changed', async () => {
    await page.goto(`${inject('address')}/`)
    await shelfReady(page)
    await changeScene(page, 'small', { 'document.version': 3, 'document.minor': 77, 'document.effects.0.kind': 'meteors' })
    await page.reload()
    await page.getByRole('link', { name: 'Open small' }).click()
    await settled(page)
    await page.getByText('This scene was made by a newer Welkinar.').waitFor()
    expect(await page.getByRole('region', { name: 'Depth line' }).locator('[aria-roledescription^=effect]').count()).toBe(1)
    await page.getByRole('button', { name: /^Snow,/ }).click()
    await type(page, 'Amount', '12')
    await page.getByText('this one can only show it').waitFor()
    const stored = (await storedIn(page, 'scenes')).find(({ document }) => (document as { name: string }).name === 'small')!
    expect((stored['document'] as { minor: number }).minor).toBe(77)
  })

  it('complained about nothing', () => {
    expect(complaints).toEqual([])
  })

  it('scenes that are opened one after another at once: the last one is shown, and what is changed in it is stored', async () => {
    await page.goto(`${inject('address')}/`)
    await shelfReady(page)
    const addresses = await page
      .getByRole('link', { name: /^Open (First light|Morning like silk|Snow before)/ })
      .evaluateAll((links) => links.map((link) => link.getAttribute('href')!))
    expect(addresses).toHaveLength(3)
    const last = addresses[1]!
    // As with the browser's own buttons, each some frames after the one before, which is not there yet.
    for (const [frames, address] of [
      [0, 0],
      [1, 1],
      [4, 2],
      [0, 0],
      [12, 1],
    ] as const) {
      for (let frame = 0; frame < frames; frame++) await drawn(page)
      await page.evaluate((to) => {
        history.pushState(null, '', to)
        dispatchEvent(new PopStateEvent('popstate', { state: null }))
      }, addresses[address]!)
    }
    await settled(page)
    const name = page.getByRole('textbox', { name: 'Name of the scene' })
    expect(new URL(page.url()).pathname).toBe(last)
    await name.fill('The last one')
    await name.press('Enter')
    await saved(page)
    await page.reload()
    await settled(page)
    expect(await name.inputValue()).toBe('The last one')
    expect(await page.getByText(/read only/).count()).toBe(0)
    await page.keyboard.press('Control+z')
    await saved(page)
  })

  it('code of one panel that is gone leaves all else as it is, and is loaded once all is stored', async () => {
    await page.goto(`${inject('address')}/`)
    await shelfReady(page)
    await page.route(/DistanceProfile-.*\.js/, (route) => route.fulfill({ status: 404, body: 'There is nothing here.' }))
    await page.getByRole('link', { name: 'Open First light on the inlet' }).click()
    await settled(page)
    await page.getByRole('button', { name: 'Marks', exact: true }).click()
    await page.getByRole('alert').getByText('This panel could not be loaded').waitFor()
    const cards = page.getByRole('region', { name: 'Depth line' }).getByRole('button', { name: /, off$/ })
    expect(await cards.count()).toBe(0)
    await page.keyboard.press('o')
    await cards.waitFor()
    await page.unroute(/DistanceProfile-.*\.js/)
    await Promise.all([page.waitForEvent('load'), page.getByRole('button', { name: 'Save and load anew' }).click()])
    await settled(page)
    await cards.waitFor()
    await page.keyboard.press('Control+z')
  })

  it('code that loads late and is gone asks to load the page anew', async () => {
    await page.goto(`${inject('address')}/`)
    await shelfReady(page)
    await page.route(/FieldStudioPage-.*\.js/, (route) => route.fulfill({ status: 404, body: 'There is nothing here.' }))
    await page.getByRole('link', { name: 'Open small' }).click()
    await settled(page)
    await page.goto(`${page.url()}/field/any`)
    await page.getByText('it was renewed since this page was opened').waitFor()
    await page.unroute(/FieldStudioPage-.*\.js/)
    await page.getByRole('button', { name: 'Load this page anew' }).click()
    await page.getByText('it was renewed since this page was opened').waitFor({ state: 'detached' })
  })
})

describe('the page', () => {
  it('is the same by its name as by its address, and only files with a hash stay for ever', async () => {
    const address = inject('address')
    for (const path of ['/', '/index.html', '/scene/any']) {
      const response = await fetch(address + path)
      expect(response.headers.get('cache-control'), path).toBe('no-cache')
      const nonce = /nonce-([^']+)'/.exec(response.headers.get('content-security-policy') ?? '')?.[1]
      expect(await response.text(), path).toContain(`content="${nonce}"`)
    }
    const page = await (await fetch(address)).text()
    const asset = /src="(\/assets\/[^"]+)"/.exec(page)?.[1]
    expect((await fetch(address + asset)).headers.get('cache-control')).toContain('immutable')
    expect((await fetch(`${address}/icon.svg`)).headers.get('cache-control')).not.toContain('immutable')
    expect((await fetch(`${address}/assets/none.js`)).status).toBe(404)
    // RFC 9110, 9.3.2: HEAD answers as GET does.
    expect((await fetch(`${address}/scene/any`, { method: 'HEAD' })).status).toBe(200)
    expect((await fetch(`${address}/assets/none.js`, { method: 'HEAD' })).status).toBe(404)
  })
})
