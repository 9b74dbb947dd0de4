import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'
import type { Browser } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { wasmCodecs } from '../core/src/codecs/codecs'
import { RenderWorker } from '../core/src/pool/renderWorker'
import { everything } from '../core/test-support/sampled'
import { demoNames, launch, settled, shelfReady, visit } from './support/browser'
import looksOfVersion2 from './fixtures/looksOfVersion2.json'
import { everyKind } from './support/everyKind'

/** The page's half of the comparison as one script. */
async function bundled(): Promise<string> {
  const entry = fileURLToPath(new URL('./support/everyKindInPage.ts', import.meta.url))
  const { outputFiles } = await build({ entryPoints: [entry], bundle: true, write: false, format: 'iife', external: ['fs', 'path'] })
  return outputFiles[0]!.text
}

// The rendering contract: the same scene gives the same bytes in Chromium and in Node. Both plan and draw; only the script of the thread differs.
/** Looks that start otherwise since: brighter, with air left, or elsewhere; what they were then is tested as a recipe. */
const OTHER_SINCE =
  /^(rain, Drizzle|snow, (First flakes|Snowstorm)|dust|haze, Clearer air|sparkles|glowLine|subjectGlow|lamp|catchLights|lightPool|softFocus|customField, (Fire|Lightning)), /

describe('Chromium and Node', () => {
  let browser: Browser
  beforeAll(async () => {
    browser = await launch()
  })
  afterAll(() => browser.close())

  it(`draw the same bytes for ${everything ? 'every starting look' : 'a look'} of every kind`, async () => {
    const { page } = await visit(browser)
    await shelfReady(page)
    // A scene starts the threads, if the Shelf has not yet.
    const started = page.workers()[0] ?? page.waitForEvent('worker', { timeout: 40_000 })
    await page.getByRole('link', { name: `Open ${demoNames[0]}` }).click()
    const thread = await started
    await settled(page)
    await page.evaluate(await bundled())
    // In the soak each look at all scales and phases.
    const whole = everything
    const inPage = await page.evaluate(([script, all]) => globalThis.everyKindOf(script, all), [thread.url(), whole] as const)
    const path = createRequire(import.meta.url).resolve('@welkinar/kernels/kernels.wasm')
    const noCodecs = wasmCodecs(() => Promise.reject(new Error('No file is opened here.')))
    const here = await everyKind(await RenderWorker.create(await WebAssembly.compile(await readFile(path)), noCodecs), whole)
    expect(Object.keys(here).length).toBeGreaterThan(whole ? 70 : 35)
    expect(inPage).toEqual(here)
    // What these looks were drawn as when scenes and recipes became version 2, as far as the engine may differ from then (docs/decisions.md).
    const known: Record<string, readonly number[]> = looksOfVersion2.means
    for (const [name, { means }] of Object.entries(here).filter(([look]) => !OTHER_SINCE.test(look))) {
      const off = (known[name] ?? means).map((mean, i) => Math.abs(mean - means[i]!))
      expect(Math.max(...off), name).toBeLessThan(1.5)
    }
    // Pictures that were all alike would be equal too.
    expect(new Set(Object.values(here).map(({ hash }) => hash)).size).toBeGreaterThan(0.8 * Object.keys(here).length)
  }, 240_000)
})
