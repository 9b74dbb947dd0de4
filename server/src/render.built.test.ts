import { execFile, spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { cutOutId, inColourId, newEffect, parseRecipe, type Effect } from '@welkinar/core'
import { builtInRecipes, writeBundle } from '@welkinar/core/recipes'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyNth } from '../../core/test-support/sampled'

// The built command line, as a person calls it.

const main = fileURLToPath(new URL('../dist/welkinar.js', import.meta.url))
const [width, height] = [640, 420]
let folder: string

/** A picture as it was, and that reduced to 48 × 32 px, red, green, blue in base 64. */
interface Scene {
  readonly width: number
  readonly height: number
  readonly reduced: string
}

interface Outcome {
  readonly code: number
  readonly error: string
}

function render(options: Record<string, string>): Promise<Outcome> {
  const paths = ['photo', 'recipe', 'out', 'marks']
  const args = Object.entries(options).flatMap(([name, value]) => [`--${name}`, paths.includes(name) ? join(folder, value) : value])
  return new Promise((resolve) => {
    execFile('node', [main, 'render', '--overwrite', ...args], (error, _, stderr) =>
      resolve({ code: error ? Number(error.code) : 0, error: stderr.trim() }),
    )
  })
}

const recipeOf = (effects: Effect[]) =>
  JSON.stringify({ format: 'welkinar-recipe', version: 1, name: 'Rain', madeFor: { width, height }, effects })
const pixels = async (name: string) => sharp(join(folder, name)).removeAlpha().raw().toBuffer()

describe('the command line', () => {
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'welkinar-line-'))
    const noise = { type: 'gaussian' as const, mean: 120, sigma: 25 }
    await sharp({ create: { width, height, channels: 3, background: '#000', noise } })
      .png()
      .toFile(join(folder, 'photo.png'))
    await writeFile(join(folder, 'rain.json'), recipeOf([newEffect({ width, height }, { kind: 'rain', look: 'downpour', id: 'a' })]))
    await writeFile(join(folder, 'empty.json'), recipeOf([]))
    await writeFile(join(folder, 'text.jpg'), 'no picture')
    await writeFile(join(folder, 'wrong.json'), recipeOf([]).replace('"version":1', '"version":"one"'))
    // What others are compared with.
    expect(await render({ photo: 'photo.png', recipe: 'rain.json', out: 'out.png' })).toEqual({ code: 0, error: '' })
  })
  afterAll(() => rm(folder, { recursive: true }))

  it('reads marks and the depth picture beside them, and says what is wrong with them', async () => {
    const grey = await sharp({ create: { width: 64, height: 42, channels: 3, background: '#ffffff' } })
      .png()
      .toBuffer()
    await writeFile(join(folder, 'depth.png'), grey)
    const depth = { file: 'depth.png', near: 'white', nearDistance: 5, farDistance: 900, steps: 'inverse' }
    const marks = { lights: [], horizon: null, waterline: null, focal: null }
    const text = (part: object) =>
      JSON.stringify({ format: 'welkinar-marks', version: 1, madeFor: { width, height }, marks, depth, ...part })
    await writeFile(join(folder, 'marks.json'), text({}))
    await writeFile(join(folder, 'odd.json'), text({ marks: { ...marks, focal: 3 } }))
    await writeFile(join(folder, 'lost.json'), text({ depth: { ...depth, file: 'lost.png' } }))
    await writeFile(join(folder, 'haze.json'), recipeOf([newEffect({ width, height }, { kind: 'haze', look: 'grey-day', id: 'a' })]))
    const asked = { photo: 'photo.png', recipe: 'haze.json' }
    expect(await render({ ...asked, out: 'near.png', marks: 'marks.json' })).toEqual({ code: 0, error: '' })
    expect((await render({ ...asked, out: 'far.png' })).code).toBe(0)
    // At 5 m all over there is hardly any haze; level ground reaches to the horizon.
    const [photo, near, far] = await Promise.all([pixels('photo.png'), pixels('near.png'), pixels('far.png')])
    const difference = (from: Buffer) => from.reduce((sum, value, i) => sum + Math.abs(value - photo[i]!), 0)
    expect(difference(far)).toBeGreaterThan(3 * difference(near))
    expect((await render({ ...asked, out: 'o.png', marks: 'odd.json' })).error).toMatch(
      /^“odd.json” is not a valid marks file: at marks.focal/,
    )
    await writeFile(join(folder, 'outside.json'), text({ depth: { ...depth, file: '../depth.png' } }))
    const outside = await render({ ...asked, out: 'o.png', marks: 'outside.json' })
    expect(outside.code).toBe(1)
    expect(outside.error).toMatch(/^“outside.json” is not a valid marks file: at depth.file/)
    expect((await render({ ...asked, out: 'o.png', marks: 'lost.json' })).error).toMatch(/lost.png” cannot be read: there is no such file/)
  })

  // Each scene as it was drawn by version 2, as far as the engine may differ from then (docs/decisions.md); not a claim about what is right.
  it('draws the sample scenes as it did before', async () => {
    const files = fileURLToPath(new URL('../../demo/photos/', import.meta.url))
    const read = async (path: string): Promise<unknown> => JSON.parse(await readFile(path, 'utf8'))
    const { scenes } = (await read(join(files, 'scenes.json'))) as { scenes: Record<'photo' | 'recipe' | 'marks', string>[] }
    const before = (await read(fileURLToPath(new URL('../../tests/fixtures/demoScenes.json', import.meta.url)))) as Record<string, Scene>
    for (const { photo, recipe, marks } of everyNth(scenes, 4)) {
      const paths = ['--photo', join(files, photo), '--recipe', join(files, recipe), '--marks', join(files, marks)]
      await promisify(execFile)('node', [main, 'render', '--overwrite', ...paths, '--out', join(folder, 'scene.png'), '--scale', '0.2'])
      const name = recipe.replace('.recipe.json', '')
      const { width, height, reduced } = before[name]!
      const picture = sharp(join(folder, 'scene.png'))
      expect(await picture.metadata()).toMatchObject({ width, height })
      const found = await picture.removeAlpha().resize(48, 32, { fit: 'fill', kernel: 'linear' }).raw().toBuffer()
      const off = found.map((code, i) => Math.abs(code - Buffer.from(reduced, 'base64')[i]!))
      expect(Math.max(...off), name).toBeLessThanOrEqual(3)
      expect(off.reduce((sum, value) => sum + value, 0) / off.length, name).toBeLessThan(0.4)
    }
  }, 180_000)

  it('renders a recipe on a photo', async () => {
    const [before, after] = await Promise.all([pixels('photo.png'), pixels('out.png')])
    expect(after.length).toBe(before.length)
    expect(after.filter((v, i) => v !== before[i]).length).toBeGreaterThan(before.length / 50)
  })

  it('gives the photo back when the recipe is empty', async () => {
    await render({ photo: 'photo.png', recipe: 'empty.json', out: 'same.png' })
    expect((await pixels('same.png')).equals(await pixels('photo.png'))).toBe(true)
  })

  it('gives the same pixels with one thread and with three, and with hardly any memory for results', async () => {
    await render({ photo: 'photo.png', recipe: 'rain.json', out: 'one.png', threads: '1' })
    await render({ photo: 'photo.png', recipe: 'rain.json', out: 'three.png', threads: '3' })
    await render({ photo: 'photo.png', recipe: 'rain.json', out: 'little.png', memory: '16' })
    for (const other of ['three.png', 'little.png']) expect((await pixels('one.png')).equals(await pixels(other)), other).toBe(true)
  })

  it('renders a scale and a region, as the same part of the whole', async () => {
    await render({ photo: 'photo.png', recipe: 'rain.json', out: 'half.png', scale: '0.5' })
    await render({ photo: 'photo.png', recipe: 'rain.json', out: 'part.png', scale: '0.5', region: '100,40,200,120' })
    const part = await sharp(join(folder, 'half.png')).extract({ left: 50, top: 20, width: 100, height: 60 }).removeAlpha().raw().toBuffer()
    expect((await pixels('part.png')).equals(part)).toBe(true)
  })

  it('writes a PNG of 16 bits, whose steps are finer than those of 8', async () => {
    const asked = { photo: 'photo.png', recipe: 'rain.json', out: 'deep.png' }
    expect(await render({ ...asked, bits: '16' })).toEqual({ code: 0, error: '' })
    expect((await sharp(join(folder, 'deep.png')).metadata()).depth).toBe('ushort')
    const deep = await sharp(join(folder, 'deep.png')).toColourspace('rgb16').raw({ depth: 'ushort' }).toBuffer()
    const codes = new Uint16Array(deep.buffer, deep.byteOffset, deep.length / 2)
    const usual = await pixels('out.png')
    // Dithered by less than half a code.
    expect(usual.reduce((most, code, i) => Math.max(most, Math.abs(code - codes[i]! / 257)), 0)).toBeLessThan(1)
    expect(new Set(codes).size).toBeGreaterThan(3 * new Set(usual).size)
  })

  it('writes the codes of Display-P3 with its profile, in the same colours', async () => {
    const asked = { photo: 'photo.png', recipe: 'rain.json', out: 'wide.png' }
    expect(await render({ ...asked, colours: 'display-p3' })).toEqual({ code: 0, error: '' })
    const colours = async (name: string) => sharp(join(folder, name)).toColourspace('srgb').removeAlpha().raw().toBuffer()
    const [wide, narrow] = [await colours('wide.png'), await colours('out.png')]
    // Both are dithered by less than half a code.
    const off = (a: Buffer, b: Buffer) => a.reduce((sum, code, i) => sum + Math.abs(code - b[i]!), 0) / a.length
    expect(off(wide, narrow)).toBeLessThan(0.8)
    expect(off(await sharp(join(folder, 'wide.png'), { ignoreIcc: true }).removeAlpha().raw().toBuffer(), narrow)).toBeGreaterThan(2)
    expect((await sharp(join(folder, 'wide.png')).metadata()).icc).toBeDefined()
  })

  it('lays a picture over the photo that lies beside the recipe, as far as it is there, and says what is missing', async () => {
    const cut = await sharp({ create: { width: 64, height: 42, channels: 4, background: { r: 9, g: 200, b: 9, alpha: 0 } } })
      .composite([{ input: { create: { width: 32, height: 42, channels: 4, background: '#fff' } }, left: 32, top: 0 }])
      .png()
      .toBuffer()
    await writeFile(join(folder, 'cut.png'), cut)
    const file = createHash('sha256').update(cut).digest('hex')
    const overlay = newEffect({ width, height }, { kind: 'overlay', look: 'as-it-is', id: 'a' }) as Extract<Effect, { kind: 'overlay' }>
    Object.assign(overlay.controls.pattern, { x: 320, y: 210, width: 320 })
    overlay.controls.pattern.picture = { id: cutOutId(inColourId(file)), fileName: 'cut.png', width: 64, height: 42 }
    overlay.controls.shape.border = 0
    await writeFile(join(folder, 'overlay.json'), recipeOf([overlay]))
    const asked = { photo: 'photo.png', recipe: 'overlay.json', out: 'over.png' }
    expect(await render(asked)).toEqual({ code: 0, error: '' })
    const [photo, over] = await Promise.all([pixels('photo.png'), pixels('over.png')])
    const at = (picture: Buffer, x: number): number[] => [...picture.subarray(3 * (210 * width + x), 3 * (210 * width + x) + 3)]
    expect(at(over, 240)).toEqual(at(photo, 240))
    expect(at(over, 400)).toEqual([255, 255, 255])
    // In a file of recipes it lies beside nothing.
    const recipe = parseRecipe(recipeOf([overlay]), 'overlay.json')
    const bundle = writeBundle({ recipes: [recipe], pictures: new Map([[file, new Uint8Array(cut)]]) })
    await mkdir(join(folder, 'alone'))
    await writeFile(join(folder, 'alone', 'overlay.welkinar'), bundle)
    expect(await render({ ...asked, recipe: 'alone/overlay.welkinar', out: 'bundled.png' })).toEqual({ code: 0, error: '' })
    expect((await pixels('bundled.png')).equals(over)).toBe(true)
    await writeFile(join(folder, 'cut.png'), await readFile(join(folder, 'photo.png')))
    expect(await render(asked)).toEqual({
      code: 0,
      error: 'The recipe reads the picture “cut.png”; what reads it is left out. The file beside the recipe is another.',
    })
    expect((await pixels('over.png')).equals(photo)).toBe(true)
  })

  it('lays a built-in recipe, of those that it lists', async () => {
    const { stdout } = await promisify(execFile)('node', [main, 'recipes'])
    expect(stdout.trim().split('\n')).toHaveLength(builtInRecipes.length)
    const [first] = stdout.split(' ')
    const args = (recipe: string) => [
      'render',
      '--overwrite',
      '--photo',
      join(folder, 'photo.png'),
      '--recipe',
      recipe,
      '--out',
      join(folder, 'built-in.png'),
    ]
    await promisify(execFile)('node', [main, ...args(first!)])
    expect((await pixels('built-in.png')).equals(await pixels('photo.png'))).toBe(false)
    await expect(promisify(execFile)('node', [main, ...args('built-in:none')])).rejects.toMatchObject({
      code: 2,
      stderr: 'There is no built-in recipe “none”; “welkinar recipes” lists those that there are.\n',
    })
  })

  it('puts what a recipe holds by a light where it finds none in the photo, and says so', async () => {
    const sunset = newEffect({ width, height }, { kind: 'sunburst', id: 'a' })
    const anchors = [{ x: 'effects.0.controls.pattern.x', y: 'effects.0.controls.pattern.y', to: 'focal', dx: 0, dy: 0 }]
    await writeFile(join(folder, 'held.json'), JSON.stringify({ ...JSON.parse(recipeOf([sunset])), anchors }))
    const { code, error } = await render({ photo: 'photo.png', recipe: 'held.json', out: 'held.png' })
    expect([code, error]).toEqual([
      0,
      '“Sun between posts”: no centre of interest is known in this photo. It stays where the recipe has it.',
    ])
  })

  it('writes JPEG by the ending of the file', async () => {
    await render({ photo: 'photo.png', recipe: 'rain.json', out: 'out.jpg', quality: '80' })
    expect((await sharp(join(folder, 'out.jpg')).metadata()).format).toBe('jpeg')
  })

  it.each([
    [{ photo: 'text.jpg', recipe: 'rain.json', out: 'o.png' }, /^“text.jpg” cannot be opened: it is not a picture/],
    [{ photo: 'photo.png', recipe: 'wrong.json', out: 'o.png' }, /^“wrong.json” is not a valid recipe: at version, expected 3/],
    [
      { photo: 'photo.png', recipe: 'rain.json', out: 'o.png', region: '9000,9000,10,10' },
      /^--region lies outside the photo, which is 640 × 420 px\.$/,
    ],
  ])('%o ends with 1 and one clear line', async (options, message) => {
    const { code, error } = await render(options as Record<string, string>)
    expect(code).toBe(1)
    expect(error).toMatch(message)
    expect(error.split('\n')).toHaveLength(1)
  })

  it('opens a photo over the size limit smaller, if that is asked for, and says how far it is', async () => {
    await sharp({ create: { width: 9000, height: 7000, channels: 3, background: '#777' } })
      .png()
      .toFile(join(folder, 'huge.png'))
    const asked = { photo: 'huge.png', recipe: 'empty.json', out: 'reduced.png', scale: '0.1' }
    expect(await render(asked)).toEqual({ code: 1, error: expect.stringMatching(/63 megapixels.*--reduce opens it smaller\.$/) as string })
    const paths = Object.entries({ ...asked, scale: undefined }).flatMap(([name, value]) =>
      value ? [`--${name}`, join(folder, value)] : [],
    )
    const { stdout } = await promisify(execFile)('node', [main, 'render', ...paths, '--scale', '0.1', '--reduce', '--progress'])
    const lines = stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { step: string; part?: number; width?: number })
    expect(lines[0]).toEqual({ step: 'opened', width: 4500, height: 3500 })
    expect(lines.at(-1)).toEqual({ step: 'computed', part: 1 })
    expect(await sharp(join(folder, 'reduced.png')).metadata()).toMatchObject({ width: 450, height: 350 })
  })

  it('names what would take beyond reason, with what to lower, before it begins', async () => {
    const field = newEffect({ width, height }, { kind: 'customField', id: 'a' })
    Object.assign(field.controls.shape, {
      steps: Array.from({ length: 24 }, () => ({ kind: 'motion', length: 6000, angle: 30 })),
    })
    await writeFile(join(folder, 'absurd.json'), recipeOf([{ ...field, name: 'Smear' } as Effect]))
    await sharp({ create: { width: 6000, height: 4000, channels: 3, background: '#777' } })
      .png()
      .toFile(join(folder, 'full.png'))
    expect(await render({ photo: 'full.png', recipe: 'absurd.json', out: 'o.png', reading: 'no' })).toEqual({
      code: 1,
      error: expect.stringMatching(/^“Smear” is not computed: on this photo it would take about \d+ minutes; lower the length/) as string,
    })
  })

  it('that is interrupted leaves nothing, and what was there stays', async () => {
    await writeFile(join(folder, 'kept.png'), 'what was there')
    const paths = ['--photo', join(folder, 'huge.png'), '--recipe', join(folder, 'rain.json'), '--out', join(folder, 'kept.png')]
    const child = spawn('node', [main, 'render', '--overwrite', '--reduce', '--progress', ...paths])
    await once(child.stdout, 'data')
    child.kill('SIGTERM')
    const [code] = (await once(child, 'close')) as [number]
    expect(code).toBe(143)
    expect(await readFile(join(folder, 'kept.png'), 'utf8')).toBe('what was there')
    expect((await readdir(folder)).filter((name) => name.endsWith('.part'))).toEqual([])
  })
})
