import { mkdir } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { basename, extname, join, resolve } from 'node:path'
import { UserProblem } from '@welkinar/core'
import { EmbeddedQueue } from '../queue/embeddedQueue'
import type { Ended, JobQueue } from '../queue/jobQueue'
import { JobProcess, type ProcessLimits } from '../runs/jobProcess'
import { fromStore } from '../runs/makeFiles'
import { nameKey, Notes } from '../runs/notes'
import { photosOf } from '../runs/photos'
import { bundlePath, carried, engine, storePlan, type FileResult, type Job, type Plan } from '../runs/plan'
import { readRecipe } from '../runs/recipeInput'
import { sha256 } from '../sha256'
import { goesWithSignal } from '../stores/outputFile'
import { storeAt } from '../stores/openStore'
import { isBucket, type Store } from '../stores/store'
import type { RenderTask } from './renderOptions'

/** What `welkinar batch` is asked for: a task for each photo and ending, with these in common. */
export interface BatchTask extends Omit<RenderTask, 'photo' | 'out' | 'format' | 'bits' | 'marks' | 'region'> {
  /** Files, addresses in an object storage, or patterns of either. */
  readonly photos: readonly string[]
  /** Folder, or part of a bucket, to write to. */
  readonly out: string
  /** Endings of the files that are made of each photo, with what they say. */
  readonly outputs: Plan['outputs']
  /** Photos that are worked on here at the same time. */
  readonly jobs: number
  /** Address of the Redis whose workers do it; without it this machine does. */
  readonly redis?: string
  /** Whether the report is one value of JSON. */
  readonly json: boolean
}

/**
 * Lays a recipe on many photos. What was made before, of the same photo and all else the same, is not made again; one that fails leaves the others. Says how it went with each.
 * @throws CallProblem if there is nothing to do; UserProblem with the number of those that failed
 */
export async function renderBatch(task: BatchTask): Promise<void> {
  const recipe = await readRecipe(task.recipe)
  const bundle = await recipe.bundle()
  const store = await storeAt(task.out, true)
  const photos = await photosOf(task.photos, store)
  const { scale, quality, colours, place, reading, reduce, overwrite, outputs } = task
  const options = { scale, quality, colours, place, reading, reduce, overwrite, outputs }
  const plan: Plan = { format: 'welkinar-run', engine: await engine(), recipe: bundle ? await recipe.key() : task.recipe, ...options }
  const run = sha256(JSON.stringify([plan, store.address, photos])).slice(0, 16)
  const names = namesFor(photos, outputs, store, await new Notes(store).names())
  const jobs = photos.map((photo, index): Job => {
    return { run, index, store: store.address, photo: isBucket(photo) ? photo : resolve(photo), names: names[index]! }
  })
  const path = bundlePath(plan)
  if (bundle && path) {
    const file = await store.begin(path, { overwrite: true })
    await file.finish(new Blob([bundle]))
  }
  await storePlan(store, run, plan)
  const said = new Report(task, photos.length * outputs.length)
  await withQueue(task, store, run, async (queue) => {
    const queued = await Promise.all(jobs.map((job) => carried(store, job)))
    await queue.follow(queued, ({ index }, ended) => said.add(index, resultsOf(jobs[index]!, photos[index]!, ended)))
  })
  said.end()
}

/** Gives a queue that is worked on, by this machine or by others. */
async function withQueue(task: BatchTask, store: Store, run: string, use: (queue: JobQueue) => Promise<void>): Promise<void> {
  if (task.redis !== undefined) {
    // Loaded where it is wanted.
    const { RedisQueue } = await import('../queue/redisQueue')
    const queue = await RedisQueue.open(task.redis)
    try {
      if ((await queue.workers()).length === 0)
        console.error('No worker of this version takes jobs there yet; the photos wait for one (welkinar worker).')
      await use(queue)
    } finally {
      await queue.close()
    }
    return
  }
  const journal = isBucket(store.address) ? undefined : join(store.address, 'runs', `${run}.queue.jsonl`)
  if (journal !== undefined) await mkdir(join(store.address, 'runs'), { recursive: true })
  const queue = await EmbeddedQueue.open(journal)
  // A person who ends a run has not been ended by a photo.
  const stays = journal === undefined ? undefined : goesWithSignal(journal)
  const processes = jobProcesses(task)
  const stop = await queue.serve(processes.map((one) => (job) => one.run(job)))
  try {
    await use(queue)
  } finally {
    stays?.()
    await stop()
    await Promise.all(processes.map((one) => one.end()))
  }
}

/** Most that results of all threads may take, bytes. */
const MEMORY = 768e6
/** More threads than this are not taken by themselves. */
const MOST_THREADS = 16

/** As many processes as there are jobs at the same time; what threads and memory there are they share. */
export function jobProcesses({ jobs, threads, memory }: Pick<BatchTask, 'jobs' | 'threads' | 'memory'>): JobProcess[] {
  const all = threads ?? Math.min(MOST_THREADS, availableParallelism())
  const limits: ProcessLimits = {
    threads: Math.max(1, Math.floor(all / jobs)),
    memory: (memory === undefined ? MEMORY : memory * 1e6) / jobs,
  }
  return Array.from({ length: jobs }, () => new JobProcess(limits))
}

function resultsOf(job: Job, photo: string, ended: Ended): readonly FileResult[] {
  if ('results' in ended) return ended.results.map((result) => ({ ...result, photo }))
  return job.names.map((out) => ({ photo, out, what: 'failed', words: [ended.problem] }))
}

/** What is said of a run: of each file when it is there, and of all in the end. */
class Report {
  private readonly results = new Map<number, readonly FileResult[]>()
  private done = 0

  constructor(
    private readonly task: Pick<BatchTask, 'json' | 'progress'>,
    private readonly of: number,
  ) {}

  add(index: number, results: readonly FileResult[]): void {
    this.results.set(index, results)
    for (const result of results) {
      this.done++
      if (this.task.progress) console.log(JSON.stringify({ step: 'file', done: this.done, of: this.of, ...result }))
      else if (!this.task.json) console.log(inWords(result))
    }
  }

  /** @throws UserProblem with the number of those that failed */
  end(): void {
    const files = [...this.results].toSorted(([a], [b]) => a - b).flatMap(([, results]) => results)
    const count = (what: FileResult['what']): number => files.filter((one) => one.what === what).length
    const sum = { made: count('made'), unchanged: count('unchanged'), failed: count('failed') }
    console.log(
      this.task.json ? JSON.stringify({ ...sum, files }, null, 2) : `${sum.made} made, ${sum.unchanged} unchanged, ${sum.failed} failed.`,
    )
    if (sum.failed > 0) throw new UserProblem(`${sum.failed} of ${files.length} files could not be made; the others are there.`)
  }
}

function inWords({ photo, out, what, words }: FileResult): string {
  const head = what === 'failed' ? `failed     ${photo}` : `${what.padEnd(10)} ${out}`
  return [head, ...words.map((one) => `           ${one}`)].join('\n')
}

/**
 * Names for the files of each photo, each of its own: what an earlier run has called them, else as the photo is called, with a number where two would get one.
 * @param before by photo and ending
 */
function namesFor(photos: readonly string[], outputs: Plan['outputs'], store: Store, before: ReadonlyMap<string, string>): string[][] {
  const taken = new Set([...before.values()].map((name) => name.toLowerCase()))
  return photos.map((photo) => {
    const stem = basename(photo, extname(photo))
    return outputs.map(({ ending }) => {
      let name = before.get(nameKey(fromStore(store, photo), ending))
      for (let number = 1; name === undefined; number++) {
        const wanted = `${number === 1 ? stem : `${stem}-${number}`}.${ending}`
        if (!taken.has(wanted.toLowerCase())) name = wanted
      }
      taken.add(name.toLowerCase())
      return name
    })
  })
}
