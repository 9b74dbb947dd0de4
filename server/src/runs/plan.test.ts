import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { builtInRecipes, makeBuiltIn, writeBundle } from '@welkinar/core/recipes'
import { noMarks } from '@welkinar/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sha256 } from '../sha256'
import { storeAt } from '../stores/openStore'
import type { Store } from '../stores/store'
import { nameKey, Notes } from './notes'
import { carried, engine, jobOf, readPlan, storePlan, type Job, type Plan } from './plan'
import { readRecipe, recipeOf } from './recipeInput'

let folder: string
let store: Store
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'welkinar-plan-'))
  store = await storeAt(folder)
})
afterAll(() => rm(folder, { recursive: true }))

const run = '0123456789abcdef'

async function planned(changes: object = {}): Promise<Plan> {
  const outputs: Plan['outputs'] = [{ ending: 'png', format: 'png', bits: 8 }]
  const options = { scale: 1, quality: 90, colours: 'srgb', place: 'keep', reading: 'yes', reduce: false, overwrite: false } as const
  return { format: 'welkinar-run', engine: await engine(), recipe: 'built-in:last-light', outputs, ...options, ...changes }
}

describe('what a queue carries of a job', () => {
  // A letter of Hebrew takes two bytes in UTF-8; a name of a file at most 255 bytes.
  it.each([20, 125, 400, 4000])('is at most a kilobyte with a path of %i letters, and all of it comes back', async (letters) => {
    const name = 'ש'.repeat(letters)
    const job: Job = { run, index: letters, store: store.address, photo: `/photos/${name}.jpg`, names: [`${name.slice(0, 125)}.png`] }
    const what = await carried(store, job)
    expect(Buffer.byteLength(JSON.stringify(what))).toBeLessThanOrEqual(1024)
    expect(await jobOf(store, what)).toEqual(job)
  })

  it.each([
    { photo: 5 },
    { photo: '' },
    { names: [] },
    { run: '../../etc' },
    { index: -1 },
    { names: ['../a.png'] },
    { names: ['/a.png'] },
    { names: ['b/../../a.png'] },
  ])('is checked: %j', async (change) => {
    const job = { run, index: 0, store: store.address, photo: 'a.png', names: ['a.png'], ...change } as Job
    await expect(jobOf(store, job)).rejects.toThrow('is damaged, or of another version.')
  })
})

describe('the plan of a run', () => {
  it('comes back as it was stored', async () => {
    await storePlan(store, run, await planned())
    expect(await readPlan(store, run)).toEqual(await planned())
  })

  it.each([
    [{ engine: '9.9.9-abc' }, /^The run was planned by Welkinar 9\.9\.9-abc; this is /],
    [{ recipe: '../../secret' }, /is damaged, or of another version/],
    [{ scale: 400 }, /is damaged, or of another version/],
    [{ outputs: [] }, /is damaged, or of another version/],
  ])('is refused with %j', async (change, words) => {
    await storePlan(store, run, await planned(change))
    await expect(readPlan(store, run)).rejects.toThrow(words)
  })

  it('is laid with the recipe that it was planned with, and no other', async () => {
    const photo = { width: 300, height: 200 }
    const bundleOf = (index: number) =>
      writeBundle({ recipes: [makeBuiltIn(builtInRecipes[index]!, { photo, marks: noMarks })], pictures: new Map() })
    await writeFile(join(folder, 'r.welkinar'), bundleOf(0))
    const recipe = await readRecipe(join(folder, 'r.welkinar'))
    const bundle = await recipe.bundle()
    expect(await (await recipeOf(await recipe.key(), bundle)).key()).toBe(await recipe.key())
    await expect(recipeOf(await recipe.key(), bundleOf(1))).rejects.toThrow('The recipe of the run is another than it was planned with.')
  })
})

describe('the notes of a folder', () => {
  const made = (number: number) => ({ out: 'a.png', photo: '../in/a.jpg', key: `key ${number}`, file: `file ${number}` })

  it('know a file by its hash, the last ones of each name, and what a photo was called', async () => {
    const notes = new Notes(await storeAt(join(folder, 'notes'), true))
    for (let i = 0; i < 12; i++) await notes.note(made(i))
    expect(await notes.of('a.png', 'file 11')).toEqual(made(11))
    expect(await notes.of('a.png', 'file 5')).toEqual(made(5))
    expect(await notes.of('a.png', 'file 0')).toBeUndefined()
    expect(await notes.of('b.png', 'file 11')).toBeUndefined()
    expect((await notes.names()).get(nameKey('../in/a.jpg', 'png'))).toBe('a.png')
  })

  it('take over the journal of earlier versions, and read nothing from what is torn', async () => {
    const at = join(folder, 'earlier')
    await mkdir(join(at, 'runs', 'notes'), { recursive: true })
    await writeFile(join(at, 'run.jsonl'), `${JSON.stringify(made(1))}\n{"out":"torn`)
    await writeFile(join(at, 'runs', 'notes', `${sha256('b.png').slice(0, 32)}.json`), '[{"out":"b.png"')
    const notes = new Notes(await storeAt(at))
    expect([...(await notes.names()).values()]).toEqual(['a.png'])
    expect(await notes.of('a.png', 'file 1')).toEqual(made(1))
    expect(await readFile(join(at, 'run.jsonl'), 'utf8')).toContain('torn')
  })
})
