import { UserProblem } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { relative } from 'node:path'
import { sha256 } from '../sha256'
import { readAt, storeAt } from '../stores/openStore'
import { isBucket, type Store } from '../stores/store'
import { Notes } from './notes'
import { bundlePath, jobOf, readPlan, type Carried, type FileResult, type Job, type Plan } from './plan'
import { recipeOf, type RecipeInput } from './recipeInput'
import { renderPicture, type PictureTask } from './renderFile'

/** A run that is worked on: its plan, and what stands for all that its files have in common. */
interface OpenRun {
  readonly store: Store
  readonly plan: Plan
  readonly recipe: RecipeInput
  readonly key: string
}

/** Runs that a process works on at the same time, and holds the recipes of. */
const MOST_RUNS = 4

/** Makes the files of jobs, one job after another. */
export class FileMaker {
  private readonly runs = new Map<string, Promise<OpenRun>>()

  constructor(private readonly pool: RenderPool) {}

  /**
   * Makes what a job asks for. What was made before, of the same photo and all else the same, is not made again.
   * @throws UserProblem if the run itself cannot be read; what is wrong with one file is said of it
   */
  async make(what: Carried): Promise<readonly FileResult[]> {
    const run = await this.open(what)
    const job = await jobOf(run.store, what)
    const results: FileResult[] = []
    for (const [index] of run.plan.outputs.entries()) results.push(await this.one(run, job, index))
    return results
  }

  private open({ run, store }: Carried): Promise<OpenRun> {
    const at = `${store}/${run}`
    const opened = this.runs.get(at) ?? openRun(store, run)
    this.runs.delete(at)
    this.runs.set(at, opened)
    if (this.runs.size > MOST_RUNS) this.runs.delete([...this.runs.keys()][0]!)
    // What could not be read is tried again with the next job.
    opened.catch(() => this.runs.delete(at))
    return opened
  }

  private async one({ store, plan, recipe, key: shared }: OpenRun, { photo, names }: Job, index: number): Promise<FileResult> {
    const words: string[] = []
    const { ending, format, bits } = plan.outputs[index]!
    const out = names[index] ?? ''
    const notes = new Notes(store)
    try {
      const bytes = await readAt(photo)
      const key = sha256(`${shared} ${ending} ${bits} ${sha256(bytes)}`)
      const before = await notes.of(out, await store.hashOf(out))
      if (before?.key === key) return { photo, out, what: 'unchanged', words }
      // A file that runs have made there, and nobody has touched since, may be made anew.
      const file = await store.begin(out, { overwrite: plan.overwrite || before !== undefined, inputs: { 'the photo': photo } })
      try {
        const { scale, quality, colours, place, reading, reduce } = plan
        const task = { photo, format, bits, scale, quality, colours, place, reading, reduce, progress: false } as PictureTask
        const picture = await renderPicture(task, { recipe, bytes, isNextComing: true }, this.pool, (notice) => words.push(notice))
        await notes.note({ out, photo: fromStore(store, photo), key, file: sha256(new Uint8Array(await picture.arrayBuffer())) })
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
}

/** A photo as the store knows it: of a file the path from the folder, so that a run is the same from wherever it is called. */
export function fromStore({ address }: Store, photo: string): string {
  return isBucket(address) || isBucket(photo) ? photo : relative(address, photo)
}

async function openRun(address: string, run: string): Promise<OpenRun> {
  const store = await storeAt(address)
  const plan = await readPlan(store, run)
  const bundle = bundlePath(plan)
  const recipe = await recipeOf(plan.recipe, bundle === undefined ? undefined : await store.read(bundle))
  const { scale, quality, colours, place, reading, reduce } = plan
  const options = { scale, quality, colours, place, reading, reduce, engine: plan.engine }
  return { store, plan, recipe, key: sha256(JSON.stringify([await recipe.key(), options])) }
}
