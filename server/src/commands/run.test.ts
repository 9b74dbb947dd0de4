import { execFileSync } from 'node:child_process'
import { mkdir, mkdtemp, readdir, readFile, rm, symlink, link, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { OutputFile } from '../stores/outputFile'
import { run } from './run'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'welkinar-call-'))
  const recipe = { format: 'welkinar-recipe', version: 2, name: 'R', madeFor: { width: 9, height: 9 }, effects: [], groups: [], pinned: [] }
  await writeFile(join(folder, 'empty.json'), JSON.stringify(recipe))
  await writeFile(join(folder, 'newer.json'), JSON.stringify({ ...recipe, version: 3, minor: 99 }))
  await writeFile(join(folder, 'photo.jpg'), 'the photo')
  await writeFile(join(folder, 'there.png'), 'what was there')
  await mkdir(join(folder, 'folder.png'))
  await link(join(folder, 'photo.jpg'), join(folder, 'other-name.jpg'))
  await symlink(join(folder, 'photo.jpg'), join(folder, 'points-to-it.jpg'))
  execFileSync('mkfifo', [join(folder, 'pipe.jpg')])
})
afterAll(() => rm(folder, { recursive: true }))

const paths = ['photo', 'recipe', 'out', 'marks']

function render(options: Readonly<Record<string, string | true>>): ReturnType<typeof run> {
  const args = Object.entries(options).flatMap(([name, value]) =>
    value === true ? [`--${name}`] : [`--${name}`, paths.includes(name) ? join(folder, value) : value],
  )
  return run(['render', ...args])
}

const asked = { photo: 'photo.jpg', recipe: 'empty.json', out: 'o.png' }

describe('a call that cannot be carried out as it is given', () => {
  it.each([
    [{ recipe: 'empty.json', out: 'o.png' }, /^Required option '--photo <file>' not specified\./],
    [{ ...asked, size: '3' }, /^Unknown option '--size'\./],
    [{ ...asked, scale: '2' }, /scale <part>' argument '2' is invalid\. It is a number from 0\.001 to 1\./],
    [{ ...asked, scale: '' }, /It is a number from 0\.001 to 1\./],
    [{ ...asked, quality: 'best' }, /It is a number from 1 to 100\./],
    [{ ...asked, memory: '8' }, /It is a number from 16 to 1000000\./],
    [{ ...asked, threads: '0' }, /It is a number from 1 to 64\./],
    [{ ...asked, region: '1,2,3' }, /It is x,y,width,height in photo px/],
    [{ ...asked, region: '-5,-5,-10,20' }, /It is x,y,width,height in photo px, width and height above 0\./],
    [{ ...asked, colours: 'wide' }, /Allowed choices are srgb, display-p3\./],
    [{ ...asked, reading: 'maybe' }, /Allowed choices are yes, no\./],
    [{ ...asked, out: 'o.tga' }, /^--out ends in \.png or \.jpg or \.webp or \.avif or \.tif;/],
    [{ ...asked, bits: '12' }, /^--bits of PNG is 8 or 16; “12” came\.$/],
    [{ ...asked, out: 'o.jpg', bits: '16' }, /^--bits of JPEG is 8; “16” came\.$/],
    [{ ...asked, out: 'no/such/folder.png' }, /folder\.png” cannot be written: there is no such folder\.$/],
    [{ ...asked, out: 'folder.png' }, /cannot be written: it is a folder\.$/],
    [{ ...asked, out: 'there.png' }, /there\.png” is there already; --overwrite replaces it\.$/],
    [{ ...asked, out: 'photo.jpg', overwrite: true }, /photo\.jpg” is the photo itself; give another name to --out\.$/],
    [{ ...asked, out: 'other-name.jpg', overwrite: true }, /other-name\.jpg” is the photo itself/],
    [{ ...asked, out: 'points-to-it.jpg', overwrite: true }, /points-to-it\.jpg” is the photo itself/],
    [{ ...asked, out: 'pipe.jpg' }, /cannot be written: it is no file\.$/],
  ] as const)('%j ends with 2 and one line, and nothing is touched', async (options, message) => {
    const ended = await render(options)
    expect(ended.message).toMatch(message)
    expect(ended.code).toBe(2)
    expect(ended.message!.split('\n')).toHaveLength(1)
    expect(await readFile(join(folder, 'photo.jpg'), 'utf8')).toBe('the photo')
    expect(await readFile(join(folder, 'there.png'), 'utf8')).toBe('what was there')
    expect((await readdir(folder)).filter((name) => name.startsWith('.') || name === 'o.png')).toEqual([])
  })

  it('nor without a command, or with one that does not exist', async () => {
    expect(await run([])).toMatchObject({ code: 2, message: 'Say what to do; welkinar --help tells what there is.' })
    expect(await run(['paint'])).toMatchObject({ code: 2, message: "Unknown command 'paint'. --help tells what there is." })
  })
})

describe('work that cannot be done', () => {
  it.each([
    [{ ...asked, photo: 'gone.jpg' }, /gone\.jpg” cannot be read: there is no such file\.$/],
    [{ ...asked, photo: 'folder.png' }, /folder\.png” cannot be read: it is a folder\.$/],
    [{ ...asked, photo: 'pipe.jpg' }, /pipe\.jpg” cannot be read: it is no file\.$/],
    [{ ...asked, recipe: 'photo.jpg' }, /^“photo\.jpg” is not a recipe: it is not valid JSON\.$/],
    [{ ...asked, recipe: 'newer.json' }, /^“newer\.json” was made by a newer Welkinar: it has version 3\.99, /],
  ] as const)('%j ends with 1 and one line, and leaves nothing', async (options, message) => {
    expect(await render(options)).toEqual({ code: 1, message: expect.stringMatching(message) as string })
    expect((await readdir(folder)).filter((name) => name.startsWith('.') || name === 'o.png')).toEqual([])
  })
})

it.each([
  [['--help'], /render/],
  [['render', '--help'], /--reduce[^]*--overwrite|--overwrite[^]*--reduce/],
  [['--version'], /^\d+\.\d+\.\d+/],
])('%j says what there is, and ends with 0', async (args, words) => {
  const said = vi.spyOn(process.stdout, 'write').mockReturnValue(true)
  try {
    expect(await run(args)).toEqual({ code: 0 })
    expect(said.mock.calls.map(([text]) => String(text)).join('')).toMatch(words)
  } finally {
    said.mockRestore()
  }
})

describe('a file that is written', () => {
  it('replaces what was there only when it is whole, and only if it may', async () => {
    const place = join(folder, 'there.png')
    const half = await OutputFile.begin(place, true, {})
    const broken = {
      stream: () => new Blob(['new']).stream().pipeThrough(new TransformStream({ flush: () => Promise.reject(new Error('torn')) })),
    }
    await expect(half.finish(broken as unknown as Blob)).rejects.toThrow('cannot be written')
    expect(await readFile(place, 'utf8')).toBe('what was there')
    const whole = await OutputFile.begin(place, true, {})
    expect(await readFile(place, 'utf8')).toBe('what was there')
    await whole.finish(new Blob(['what ', 'came']))
    expect(await readFile(place, 'utf8')).toBe('what came')
    await writeFile(place, 'what was there')
  })

  it('does not replace what came there meanwhile, nor a link instead of what it leads to', async () => {
    const place = join(folder, 'late.png')
    const late = await OutputFile.begin(place, false, {})
    await writeFile(place, 'somebody else’s')
    await expect(late.finish(new Blob(['mine']))).rejects.toThrow('late.png” has come there meanwhile; --overwrite replaces it.')
    expect(await readFile(place, 'utf8')).toBe('somebody else’s')
    await symlink(place, join(folder, 'link.png'))
    await (await OutputFile.begin(join(folder, 'link.png'), true, {})).finish(new Blob(['mine']))
    expect(await readFile(place, 'utf8')).toBe('mine')
    expect((await readdir(folder)).filter((name) => name.endsWith('.part'))).toEqual([])
  })

  // A file system that is full: /dev/full is none that one can write beside, so a small one of its own is mounted where that is allowed.
  it('that finds no room leaves what was there', async (context) => {
    const small = join(folder, 'small')
    await mkdir(small)
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=64k', 'tmpfs', small], { stdio: 'ignore' })
    } catch {
      return context.skip()
    }
    try {
      const place = join(small, 'a.png')
      await writeFile(place, 'what was there')
      const file = await OutputFile.begin(place, true, {})
      await expect(file.finish(new Blob([new Uint8Array(200_000)]))).rejects.toThrow('a.png” cannot be written: there is no room left.')
      expect(await readFile(place, 'utf8')).toBe('what was there')
      expect(await readdir(small)).toEqual(['a.png'])
    } finally {
      execFileSync('umount', [small])
    }
  })
})
