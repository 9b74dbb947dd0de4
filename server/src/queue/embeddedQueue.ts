import { appendFile, readFile, rm } from 'node:fs/promises'
import { UserProblem } from '@welkinar/core'
import { ProcessDied } from '../runs/jobProcess'
import type { Carried } from '../runs/plan'
import { GIVEN_UP, MOST_LOST, type Ended, type JobQueue, type Work } from './jobQueue'

/** A line of the journal: a job was taken, or it has ended. */
interface Line {
  readonly job: string
  readonly is: 'taken' | 'ended'
}

/**
 * A queue inside one process. A journal of JSON lines remembers what was taken and never ended, so that a photo that ends even this process is given up when the same run has begun
 * anew often enough; with the end of a run it goes.
 */
export class EmbeddedQueue implements JobQueue {
  private readonly waiting: Carried[] = []
  private readonly lost = new Map<string, number>()
  private readonly ends = new Map<string, (ended: Ended) => void>()
  private wake: (() => void)[] = []
  private stopped = false

  private constructor(private readonly path: string | undefined) {}

  /** @param path of the journal; without it nothing is remembered */
  static async open(path: string | undefined): Promise<EmbeddedQueue> {
    const queue = new EmbeddedQueue(path)
    const text = path === undefined ? '' : await readFile(path, 'utf8').catch(() => '')
    for (const { job, is } of text.split('\n').flatMap(lineOf)) {
      queue.lost.set(job, is === 'taken' ? (queue.lost.get(job) ?? 0) + 1 : 0)
    }
    return queue
  }

  async follow(jobs: readonly Carried[], onEnd: (job: Carried, ended: Ended) => void): Promise<void> {
    const all = jobs.map(
      (job) =>
        new Promise<void>((resolve) => {
          this.ends.set(nameOf(job), (ended) => {
            this.ends.delete(nameOf(job))
            onEnd(job, ended)
            resolve()
          })
        }),
    )
    this.waiting.push(...jobs)
    this.wakeAll()
    await Promise.all(all)
    if (this.path !== undefined) await rm(this.path, { force: true })
  }

  serve(slots: readonly Work[]): Promise<() => Promise<void>> {
    const working = slots.map((work) => this.loop(work))
    return Promise.resolve(async () => {
      this.stopped = true
      this.wakeAll()
      await Promise.all(working)
    })
  }

  close(): Promise<void> {
    return Promise.resolve()
  }

  private async loop(work: Work): Promise<void> {
    while (!this.stopped) {
      const job = this.waiting.shift()
      if (job) await this.one(job, work)
      else await new Promise<void>((resolve) => this.wake.push(resolve))
    }
  }

  private async one(job: Carried, work: Work): Promise<void> {
    const name = nameOf(job)
    const end = (ended: Ended): void => this.ends.get(name)?.(ended)
    if ((this.lost.get(name) ?? 0) >= MOST_LOST) return end({ problem: GIVEN_UP })
    try {
      await this.write({ job: name, is: 'taken' })
      const results = await work(job)
      await this.write({ job: name, is: 'ended' })
      end({ results })
    } catch (error) {
      if (error instanceof ProcessDied) {
        this.lost.set(name, (this.lost.get(name) ?? 0) + 1)
        // Behind the others: what goes well is not to wait for it.
        this.waiting.push(job)
        this.wakeAll()
        return
      }
      end({ problem: error instanceof UserProblem ? error.message : `Something went wrong: ${String(error)}` })
    }
  }

  private wakeAll(): void {
    const sleeping = this.wake
    this.wake = []
    sleeping.forEach((wake) => wake())
  }

  private async write(line: Line): Promise<void> {
    // A journal that cannot be written is worth no lost run.
    if (this.path !== undefined) await appendFile(this.path, `${JSON.stringify(line)}\n`).catch(() => undefined)
  }
}

function nameOf({ run, index }: Carried): string {
  return `${run}:${index}`
}

/** A torn line is none. */
function lineOf(text: string): Line[] {
  try {
    const { job, is } = JSON.parse(text) as Partial<Line>
    return typeof job === 'string' && (is === 'taken' || is === 'ended') ? [{ job, is }] : []
  } catch {
    return []
  }
}
