import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { testCodecs } from '../../test-support/codecs'
import { randomNumbers } from '../../test-support/pictures'
import { parseMarks } from '../model/marksFile'
import { parseRecipe, stackFor } from '../model/recipe'
import { UserProblem } from '../model/userProblem'
import { sceneGraph } from '../render/sceneGraph'
import { openPhoto } from './openPhoto'

/** More in the soak (`npm run soak`). */
const FILES = Number(process.env['WELKINAR_BAD_FILES'] ?? 300)

/** Small files of every format that is read, in several ways of writing each. */
async function samples(): Promise<{ name: string; bytes: Uint8Array }[]> {
  const noise = { type: 'gaussian' as const, mean: 120, sigma: 40 }
  const plain = () => sharp({ create: { width: 96, height: 64, channels: 3 as const, background: '#000', noise } })
  const clear = () => sharp({ create: { width: 40, height: 30, channels: 4 as const, background: { r: 9, g: 99, b: 200, alpha: 0.5 } } })
  const made: Record<string, Promise<Buffer>> = {
    'plain.jpg': plain().jpeg({ quality: 80 }).withMetadata({ orientation: 6 }).toBuffer(),
    'progressive.jpg': plain().jpeg({ progressive: true, chromaSubsampling: '4:4:4' }).toBuffer(),
    'grey.jpg': plain().greyscale().jpeg().toBuffer(),
    'plain.png': plain().png().toBuffer(),
    'clear.png': clear().png({ progressive: true }).toBuffer(),
    'palette.png': plain().png({ palette: true }).toBuffer(),
    'deep.png': plain().toColourspace('rgb16').png().toBuffer(),
    'plain.webp': plain().webp().toBuffer(),
    'lossless.webp': clear().webp({ lossless: true }).toBuffer(),
    'plain.avif': plain().avif({ effort: 0 }).toBuffer(),
  }
  return Promise.all(Object.entries(made).map(async ([name, bytes]) => ({ name, bytes: new Uint8Array(await bytes) })))
}

/** A file with bytes changed, cut off, taken out, doubled or swapped. */
function mutated(bytes: Uint8Array, random: () => number): Uint8Array {
  const at = (): number => Math.floor(random() * bytes.length)
  const copy = bytes.slice()
  const kind = Math.floor(random() * 6)
  if (kind === 0) for (let i = 0; i < 1 + random() * 20; i++) copy[at()] = Math.floor(random() * 256)
  // The header, where sizes and offsets stand.
  if (kind === 1)
    for (let i = 0; i < 1 + random() * 4; i++) copy[Math.floor(random() * Math.min(160, bytes.length))] = Math.floor(random() * 256)
  if (kind === 2) return copy.subarray(0, at())
  const [from, to] = [at(), at()].sort((a, b) => a - b) as [number, number]
  if (kind === 3) return Uint8Array.from([...copy.subarray(0, from), ...copy.subarray(to)])
  if (kind === 4) return Uint8Array.from([...copy.subarray(0, to), ...copy.subarray(from)])
  if (kind === 5) copy.set(bytes.subarray(to, to + (to - from)).slice(), from)
  return copy
}

describe('files that are damaged', () => {
  let files: { name: string; bytes: Uint8Array }[]
  beforeAll(async () => {
    files = await samples()
    // The decoders say in passing what they made up for.
    vi.spyOn(console, 'error').mockReturnValue(undefined)
  })

  it('are opened, or said to be damaged; nothing else happens', async () => {
    const random = randomNumbers(Number(process.env['WELKINAR_BAD_FILES'] ? Date.now() : 5))
    let [opened, refused, slowest] = [0, 0, 0]
    const memory = process.memoryUsage().rss
    for (let i = 0; i < FILES; i++) {
      const { name, bytes } = files[i % files.length]!
      const bad = mutated(bytes, random)
      const started = performance.now()
      try {
        const { full } = await openPhoto(bad, name, testCodecs)
        expect(full.pixels.byteLength).toBe(full.width * full.height * (full.format === 'rgba8' ? 4 : 6))
        opened++
      } catch (error) {
        expect(error, `${name}, ${i}`).toBeInstanceOf(UserProblem)
        expect((error as Error).message).toContain(`“${name}”`)
        refused++
      }
      slowest = Math.max(slowest, performance.now() - started)
    }
    // What was not hurt opens after all that.
    for (const { name, bytes } of files) expect((await openPhoto(bytes, name, testCodecs)).full.width, name).toBeGreaterThan(20)
    // However many there were: a decoder that keeps what a damaged file made it take would show here.
    const grown = process.memoryUsage().rss - memory
    expect(grown).toBeLessThan(400e6)
    expect(opened).toBeGreaterThan(FILES / 20)
    expect(refused).toBeGreaterThan(FILES / 4)
    if (process.env['WELKINAR_BAD_FILES'])
      console.log(`${opened} opened, ${refused} refused, the slowest in ${slowest.toFixed(0)} ms, ${Math.round(grown / 1e6)} MB more`)
  }, 3_600_000)

  it('recipes and marks are read, or said to be wrong; what is read has a graph', () => {
    const folder = fileURLToPath(new URL('../../../demo/photos/', import.meta.url))
    const texts = readdirSync(folder).filter((name) => /\.(recipe|marks)\.json$/.test(name))
    const random = randomNumbers(8)
    const photo = { id: 'p', width: 600, height: 400 }
    for (let i = 0; i < FILES; i++) {
      const name = texts[i % texts.length]!
      const bad = new TextDecoder().decode(mutatedText(readFileSync(`${folder}${name}`), random))
      try {
        if (name.includes('.marks.')) parseMarks(bad, name)
        else sceneGraph({ photo, ...stackFor(parseRecipe(bad, name), photo) })
      } catch (error) {
        expect(error).toBeInstanceOf(UserProblem)
      }
    }
  }, 3_600_000)
})

/** As a person would spoil it too: digits become others, words lose letters; or the file is mutated. */
function mutatedText(bytes: Uint8Array, random: () => number): Uint8Array {
  if (random() < 0.3) return mutated(bytes, random)
  const copy = bytes.slice()
  for (let k = 0; k < 1 + random() * 3; k++) {
    const at = Math.floor(random() * copy.length)
    const digit = copy.findIndex((code, i) => i >= at && code >= 48 && code <= 57)
    if (digit >= 0) copy[digit] = '0123456789-.e"'.charCodeAt(Math.floor(random() * 14))
  }
  return copy
}
