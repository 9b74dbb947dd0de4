import { execFile, spawn } from 'node:child_process'
import { once } from 'node:events'
import { appendFile, mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { newEffect } from '@welkinar/core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { partName } from './stores/outputFile'

// The built command line, as a person calls it.

const main = fileURLToPath(new URL('../dist/welkinar.js', import.meta.url))
const [width, height] = [96, 64]

interface Report {
  readonly made: number
  readonly unchanged: number
  readonly failed: number
  readonly files: readonly { readonly photo: string; readonly out: string; readonly what: string; readonly words: readonly string[] }[]
}

let folder: string
const at = (...parts: string[]) => join(folder, ...parts)

function call(...args: string[]): Promise<{ readonly code: number; readonly out: string; readonly error: string }> {
  return new Promise((resolve) => {
    execFile('node', [main, ...args], { cwd: folder }, (error, stdout, stderr) =>
      resolve({ code: error ? Number(error.code) : 0, out: stdout, error: stderr.trim() }),
    )
  })
}

/** Runs a batch, and gives what it says. */
async function batch(...args: string[]): Promise<Report & { readonly code: number }> {
  const { code, out, error } = await call('batch', '--json', '--threads', '1', '--recipe', 'rain.json', ...args)
  if (!out) throw new Error(error)
  return { ...(JSON.parse(out) as Report), code }
}

const photo = (red: number) =>
  sharp({ create: { width, height, channels: 3, background: { r: red, g: 80, b: 90 } } })
    .png()
    .toBuffer()

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'welkinar-batch-'))
  const effects = [newEffect({ width, height }, { kind: 'rain', look: 'downpour', id: 'a' })]
  await writeFile(
    at('rain.json'),
    JSON.stringify({ format: 'welkinar-recipe', version: 1, name: 'Rain', madeFor: { width, height }, effects }),
  )
  await mkdir(at('in', 'more'), { recursive: true })
  const names = ['a 2.png', 'a 10.png', "it's “so”.png", 'שלום.png', `${'long'.repeat(50)}.png`, 'more/a 2.png']
  for (const [index, name] of names.entries()) await writeFile(at('in', name), await photo(40 + 20 * index))
  await writeFile(at('in', 'letter.png'), 'no picture')
})
afterAll(() => rm(folder, { recursive: true }))

describe('many photos', () => {
  it('each get a file of its own name; one that cannot be opened is named, and the others are made', async () => {
    const report = await batch('--photos', 'in/**/*.png', '--out', 'out', '--formats', 'png,jpg')
    expect(report).toMatchObject({ code: 1, made: 12, unchanged: 0, failed: 2 })
    expect(report.files.filter(({ what }) => what === 'failed').map(({ photo: name, words }) => [name, ...words])).toEqual([
      ['in/letter.png', expect.stringContaining('letter.png')],
      ['in/letter.png', expect.stringContaining('letter.png')],
    ])
    // Numbers by their value; of two that would get one name the second has a number.
    const outs = report.files.map(({ out }) => out)
    expect(outs.indexOf('a 2.png')).toBeLessThan(outs.indexOf('a 10.png'))
    expect(outs).toEqual(expect.arrayContaining(['a 2.png', 'a 2-2.png', 'a 2.jpg', 'שלום.jpg', "it's “so”.png"]))
    expect((await readdir(at('out'))).toSorted()).toEqual(
      [...new Set(report.files.filter(({ what }) => what === 'made').map(({ out }) => out)), 'runs'].toSorted(),
    )
  })

  it('have the same bytes as one by one', async () => {
    expect((await call('render', '--photo', 'in/a 10.png', '--recipe', 'rain.json', '--out', 'one.png')).code).toBe(0)
    expect(Buffer.compare(await readFile(at('one.png')), await readFile(at('out', 'a 10.png')))).toBe(0)
  })

  it('are not made again: only what changed is, and what is gone or was touched; names stay', async () => {
    await writeFile(at('in', 'a 10.png'), await photo(222))
    await rm(at('out', 'a 2.jpg'))
    await appendFile(at('out', 'a 2-2.png'), 'touched')
    const report = await batch('--photos', 'in/**/*.png', '--out', 'out', '--formats', 'png,jpg')
    const made = report.files.filter(({ what }) => what === 'made').map(({ out }) => out)
    expect(made.toSorted()).toEqual(['a 10.jpg', 'a 10.png', 'a 2.jpg'])
    // What somebody has changed is theirs, unless that is asked for.
    expect(report.files.find(({ out }) => out === 'a 2-2.png')?.words).toEqual([
      expect.stringContaining('is there already; --overwrite replaces it.'),
    ])
    const again = await batch('--photos', 'in/**/*.png', '--out', 'out', '--formats', 'png,jpg', '--overwrite')
    expect(again.files.filter(({ what }) => what === 'made').map(({ out }) => out)).toEqual(['a 2-2.png'])
  })

  it('are all made anew with another recipe or other options', async () => {
    expect(await batch('--photos', 'in/a*.png', '--out', 'out', '--bits', '16')).toMatchObject({ code: 0, made: 2, unchanged: 0 })
    expect(await batch('--photos', 'in/a*.png', '--out', 'out', '--bits', '16')).toMatchObject({ code: 0, made: 0, unchanged: 2 })
  })

  it('are not those of the folder that is written to, though it lies among them', async () => {
    expect(await batch('--photos', 'in/**/a*.png', '--out', 'in/done')).toMatchObject({ made: 3 })
    expect(await batch('--photos', 'in/**/a*.png', '--out', 'in/done')).toMatchObject({ made: 0, unchanged: 3 })
    await rm(at('in', 'done'), { recursive: true })
  })

  it('a file of somebody else stays, and is said', async () => {
    await mkdir(at('theirs'))
    await writeFile(at('theirs', 'a 2.png'), 'theirs')
    const report = await batch('--photos', 'in/a 2.png', '--out', 'theirs')
    expect(report).toMatchObject({ code: 1, failed: 1 })
    expect(await readFile(at('theirs', 'a 2.png'), 'utf8')).toBe('theirs')
  })

  it('are the same run from another folder; a photo that is named outright may look like a pattern', async () => {
    await writeFile(at('in', 'b[1].png'), await photo(7))
    expect(await batch('--photos', 'in/b[1].png', 'in/a 2.png', '--out', 'from')).toMatchObject({ code: 0, made: 2 })
    expect(await batch('--photos', at('in', 'b[1].png'), at('in', 'a 2.png'), '--out', at('from'))).toMatchObject({
      code: 0,
      made: 0,
      unchanged: 2,
    })
    expect((await readdir(at('from'))).toSorted()).toEqual(['a 2.png', 'b[1].png', 'runs'])
  })

  it('that were noted and not put in their place are made; what was put there before is known', async () => {
    await batch('--photos', 'in/a 2.png', '--out', 'noted')
    const note = join(at('noted', 'runs', 'notes'), (await readdir(at('noted', 'runs', 'notes')))[0]!)
    const [made] = JSON.parse(await readFile(note, 'utf8')) as object[]
    // As if a run had ended between the two.
    await writeFile(note, JSON.stringify([made, { ...made, key: 'of other options', file: 'never put there' }]))
    expect(await batch('--photos', 'in/a 2.png', '--out', 'noted')).toMatchObject({ code: 0, made: 0, unchanged: 1 })
    await rm(at('noted', 'a 2.png'))
    expect(await batch('--photos', 'in/a 2.png', '--out', 'noted')).toMatchObject({ code: 0, made: 1 })
  })

  it('are told of one by one as lines of JSON, if that is asked for', async () => {
    const { out } = await call('batch', '--progress', '--threads', '1', '--recipe', 'rain.json', '--photos', 'in/a*.png', '--out', 'told')
    const lines = out.trim().split('\n')
    expect(lines.slice(0, -1).map((line) => JSON.parse(line) as object)).toMatchObject([
      { step: 'file', done: 1, of: 2, out: 'a 2.png', what: 'made' },
      { step: 'file', done: 2, of: 2, out: 'a 10.png', what: 'made' },
    ])
    expect(lines.at(-1)).toBe('2 made, 0 unchanged, 0 failed.')
  })

  it('a run that is killed leaves whole files only, and the next one makes the rest', async () => {
    await mkdir(at('many'))
    for (let i = 0; i < 12; i++) await writeFile(at('many', `${i}.png`), await photo(i))
    const run = spawn('node', [main, 'batch', '--threads', '1', '--photos', 'many/*.png', '--recipe', 'rain.json', '--out', 'killed'], {
      cwd: folder,
    })
    // After the third line.
    let lines = 0
    for await (const chunk of run.stdout) {
      lines += String(chunk).split('\n').length - 1
      if (lines >= 3) break
    }
    run.kill('SIGKILL')
    await once(run, 'exit')
    const there = (await readdir(at('killed'))).filter((name) => name.endsWith('.png') && !name.startsWith('.'))
    for (const name of there) expect((await sharp(at('killed', name)).stats()).channels.length, name).toBeGreaterThan(2)
    // As if it had been killed while it wrote; no process has this number.
    await writeFile(at('killed', partName('5.png', 4_194_999)), 'half')
    const report = await batch('--photos', 'many/*.png', '--out', 'killed')
    expect((await readdir(at('killed'))).filter((name) => name.endsWith('.part'))).toEqual([])
    expect(report.code).toBe(0)
    expect(report.made + report.unchanged).toBe(12)
    expect(report.unchanged).toBeGreaterThanOrEqual(3)
    expect(await batch('--photos', 'many/*.png', '--out', 'killed')).toMatchObject({ code: 0, made: 0, unchanged: 12 })
  })
})

describe('a call that cannot be carried out', () => {
  it.each([
    [['--photos', 'in/*.gif', '--out', 'o'], 2, /^--photos names no file: “in\/\*\.gif”\.$/],
    [['--photos', 'in/a*.png', 'in/*.gif', '--out', 'o'], 2, /^--photos names no file: “in\/\*\.gif”\.$/],
    [['--photos', 'in/a*.png', '--out', 'o', '--formats', 'tga'], 2, /^--formats are endings: \.png or \.jpg/],
    [['--photos', 'in/a*.png', '--out', 'rain.json'], 2, /^“rain\.json” cannot be made: it is a file\.$/],
    [['--photos', 'in/a*.png'], 2, /^Required option '--out <folder>' not specified\./],
    [['--photos', 'in/gone.png', '--out', 'o'], 1, /^1 of 1 files could not be made/],
  ] as const)('%j ends with %i and one line', async (args, code, words) => {
    const ended = await call('batch', '--recipe', 'rain.json', ...args)
    expect(ended.code).toBe(code)
    expect(ended.error).toMatch(words)
  })
})
