import { createHash } from 'node:crypto'
import { existsSync } from 'node:fs'
import { mkdir, readFile } from 'node:fs/promises'
import { basename, extname, join, relative, resolve, sep } from 'node:path'
import { UserProblem } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { glob, isDynamicPattern } from 'tinyglobby'
import { version } from '../../package.json'
import { kernelsPath } from '../modulePaths'
import { CallProblem } from './callProblem'
import { readInput } from './inputFile'
import { Journal } from './journal'
import { clearLeftovers, OutputFile } from './outputFile'
import { readRecipe, type RecipeInput } from './recipeInput'
import { poolFor, renderPicture } from './renderFile'
import type { RenderTask } from './renderOptions'

/** What `welkinar batch` is asked for: a task for each photo and ending, with these in common. */
export interface BatchTask extends Omit<RenderTask, 'photo' | 'out' | 'format' | 'bits' | 'marks' | 'region'> {
  /** Files, or patterns of their names. */
  readonly photos: readonly string[]
  /** Folder to write to. */
  readonly out: string
  /** Endings of the files that are made of each photo, with what they say. */
  readonly outputs: readonly (Pick<RenderTask, 'format' | 'bits'> & { readonly ending: string })[]
  /** Whether the report is one value of JSON. */
  readonly json: boolean
}

/** How it went with one file. */
interface Result {
  readonly photo: string
  readonly out: string
  readonly what: 'made' | 'unchanged' | 'failed'
  /** Why not, or what else is to be said. */
  readonly words: readonly string[]
}

const JOURNAL = 'run.jsonl'

/**
 * Lays a recipe on many photos. What was made before, of the same photo and all else the same, is not made again; one that fails leaves the others. Says how it went with each.
 * @throws CallProblem if there is nothing to do; UserProblem with the number of those that failed
 */
export async function renderBatch(task: BatchTask): Promise<void> {
  const recipe = await readRecipe(task.recipe)
  const shared = await keyOfRun(task, recipe)
  await mkdir(task.out, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    throw new CallProblem(`“${task.out}” cannot be made: ${error.code === 'EEXIST' ? 'it is a file' : error.code}.`)
  })
  const photos = await photosOf(task)
  await clearLeftovers(task.out)
  const journal = await Journal.open(join(task.out, JOURNAL))
  const names = namesFor(photos, task, journal)
  const pool = await poolFor(task)
  const results: Result[] = []
  try {
    for (const photo of photos) {
      for (const output of task.outputs) {
        const { ending } = output
        const result = await oneFile({ task, output, photo, out: names.get(`${photo} ${ending}`) ?? '', recipe, shared, journal, pool })
        results.push(result)
        if (task.progress) console.log(JSON.stringify({ step: 'file', done: results.length, of: names.size, ...result }))
        else if (!task.json) console.log(inWords(result))
      }
    }
  } finally {
    pool.dispose()
  }
  const count = (what: Result['what']): number => results.filter((one) => one.what === what).length
  const sum = { made: count('made'), unchanged: count('unchanged'), failed: count('failed') }
  console.log(
    task.json ? JSON.stringify({ ...sum, files: results }, null, 2) : `${sum.made} made, ${sum.unchanged} unchanged, ${sum.failed} failed.`,
  )
  if (sum.failed > 0) throw new UserProblem(`${sum.failed} of ${results.length} files could not be made; the others are there.`)
}

interface OneFile {
  readonly task: BatchTask
  readonly output: BatchTask['outputs'][number]
  readonly photo: string
  readonly out: string
  readonly recipe: RecipeInput
  /** Stands for all that the files of a run have in common. */
  readonly shared: string
  readonly journal: Journal
  readonly pool: RenderPool
}

async function oneFile({ task, output, photo, out, recipe, shared, journal, pool }: OneFile): Promise<Result> {
  const words: string[] = []
  const path = join(task.out, out)
  try {
    const bytes = await readInput(photo)
    const key = sha256(`${shared} ${output.ending} ${output.bits} ${sha256(bytes)}`)
    const before = journal.of(out, await sha256Of(path))
    if (before?.key === key) return { photo, out, what: 'unchanged', words }
    // A file that runs of this folder have made, and nobody has touched since, may be made anew.
    const file = await OutputFile.begin(path, task.overwrite || before !== undefined, { 'the photo': photo, 'the recipe': task.recipe })
    try {
      const picture = await renderPicture(
        { ...task, ...output, photo, out: path, progress: false },
        { recipe, bytes, isNextComing: true },
        pool,
        (notice) => words.push(notice),
      )
      await journal.note({ out, photo: fromFolder(task, photo), key, file: sha256(new Uint8Array(await picture.arrayBuffer())) })
      await file.finish(picture)
      return { photo, out, what: 'made', words }
    } catch (error) {
      await file.discard()
      throw error
    }
  } catch (error) {
    const reason =
      error instanceof UserProblem ? error.message : `Something went wrong: ${error instanceof Error ? error.message : String(error)}`
    return { photo, out, what: 'failed', words: [...words, reason] }
  }
}

function inWords({ photo, out, what, words }: Result): string {
  const head = what === 'failed' ? `failed     ${photo}` : `${what.padEnd(10)} ${out}`
  return [head, ...words.map((one) => `           ${one}`)].join('\n')
}

/**
 * The photos in the order of their names, numbers by their value; of a pattern none of those that lie in the folder that is written to.
 * @throws CallProblem if a pattern names none
 */
async function photosOf({ photos, out }: BatchTask): Promise<readonly string[]> {
  const found = await Promise.all(
    photos.map(async (one) => {
      // What is there, or is no pattern, is meant as it is written; if it is missing that is said of it, as of a photo that cannot be read.
      if (existsSync(one) || !isDynamicPattern(one)) return [one]
      const all = await glob(one.split(sep).join('/'), { expandDirectories: false })
      const apart = all.filter((path) => relative(resolve(out), resolve(path)).startsWith('..'))
      if (apart.length === 0) throw new CallProblem(`--photos names no file: “${one}”.`)
      return apart
    }),
  )
  return [...new Set(found.flat())].toSorted(new Intl.Collator('en', { numeric: true }).compare)
}

/** The path of a photo from the folder that is written to, so that a run is the same from wherever it is called. */
function fromFolder({ out }: BatchTask, photo: string): string {
  return relative(resolve(out), resolve(photo))
}

/** A name for each file, of its own: what an earlier run has called it, else as the photo is called, with a number where two would get one. */
function namesFor(photos: readonly string[], task: BatchTask, journal: Journal): ReadonlyMap<string, string> {
  const taken = new Set(journal.taken.map((name) => name.toLowerCase()))
  const names = new Map<string, string>()
  for (const photo of photos) {
    for (const { ending } of task.outputs) {
      const stem = basename(photo, extname(photo))
      let name = journal.nameOf(fromFolder(task, photo), ending)
      for (let number = 1; name === undefined; number++) {
        const wanted = `${number === 1 ? stem : `${stem}-${number}`}.${ending}`
        if (!taken.has(wanted.toLowerCase())) name = wanted
      }
      taken.add(name.toLowerCase())
      names.set(`${photo} ${ending}`, name)
    }
  }
  return names
}

/** Stands for recipe, its pictures, options and the version of what computes. */
async function keyOfRun({ scale, quality, colours, place, reading, reduce }: BatchTask, recipe: RecipeInput): Promise<string> {
  const options = { scale, quality, colours, place, reading, reduce, version }
  return sha256(JSON.stringify([await recipe.key(), options, await sha256Of(kernelsPath())]))
}

function sha256(bytes: Uint8Array | string): string {
  return createHash('sha256').update(bytes).digest('hex')
}

/** Undefined for what is not there. */
async function sha256Of(path: string): Promise<string | undefined> {
  return readFile(path).then(sha256, () => undefined)
}
