import { hostname } from 'node:os'
import { UserProblem } from '@welkinar/core'
import { Queue, QueueEvents, UnrecoverableError, Worker, type Job } from 'bullmq'
import { Redis } from 'ioredis'
import { CallProblem } from '../callProblem'
import { engine, type Carried, type FileResult } from '../runs/plan'
import { GIVEN_UP, MOST_LOST, type Ended, type JobQueue, type Work } from './jobQueue'
import type { QueueStatus } from './queueStatus'

/** Goes before everything that is kept in Redis. */
const PREFIX = 'welkinar'
/** How long Redis may take to answer at the beginning, ms. */
const PATIENCE = 5000
/** How often what has not been heard of is asked for, ms, and how many at once. */
const SWEEP = { every: 2000, most: 200 }
/** Failures that are told of. */
const FAILURES = 20
/** The oldest Redis that has the commands that are needed. */
const LEAST_VERSION = [6, 2] as const

interface Timing {
  /** How long a worker may be silent until its job is another's, ms. */
  readonly lease: number
}

/** The queue that several machines share, on Redis. Only workers of the same engine take its jobs: others would give other pixels. */
export class RedisQueue implements JobQueue {
  private constructor(
    private readonly redis: Redis,
    private readonly queue: Queue<Carried, readonly FileResult[]>,
    private readonly timing: Timing,
  ) {}

  /** @throws CallProblem if there is no Redis at the address, or it cannot be used */
  static async open(url: string, timing: Timing = { lease: 30_000 }): Promise<RedisQueue> {
    const redis = connect(url)
    try {
      await answers(redis)
    } catch (error) {
      redis.disconnect()
      throw error instanceof UserProblem ? error : new CallProblem(`Redis at ${shown(url)} cannot be used: ${(error as Error).message}.`)
    }
    const name = `run-${await engine()}`
    const queue = new Queue<Carried, readonly FileResult[]>(name, { connection: redis, prefix: PREFIX, skipVersionCheck: true })
    queue.on('error', () => undefined)
    return new RedisQueue(redis, queue, timing)
  }

  async follow(jobs: readonly Carried[], onEnd: (job: Carried, ended: Ended) => void): Promise<void> {
    const open = new Map(jobs.map((job) => [idOf(job), job]))
    // A blocking connection of its own.
    const connection = this.another()
    const events = new QueueEvents(this.queue.name, { connection, prefix: PREFIX })
    events.on('error', () => undefined)
    let finish = (): void => undefined
    const done = new Promise<void>((resolve) => (finish = resolve))
    const end = (id: string, ended: Ended): void => {
      const job = open.get(id)
      if (!job) return
      open.delete(id)
      onEnd(job, ended)
      if (open.size === 0) finish()
    }
    events.on('completed', ({ jobId, returnvalue }) => end(jobId, { results: returnvalue as unknown as readonly FileResult[] }))
    events.on('failed', ({ jobId, failedReason }) => end(jobId, { problem: problemOf(failedReason) }))
    let sweeping = false
    const sweep = setInterval(() => {
      if (sweeping) return
      sweeping = true
      void this.sweep(open, end)
        .catch(() => undefined)
        .finally(() => (sweeping = false))
    }, SWEEP.every)
    try {
      await this.forget(jobs)
      await this.add(jobs)
      if (jobs.length > 0) await done
    } finally {
      clearInterval(sweep)
      await events.close().catch(() => undefined)
      connection.disconnect()
    }
  }

  async serve(slots: readonly Work[]): Promise<() => Promise<void>> {
    const free = [...slots]
    const work = async (job: Job<Carried, readonly FileResult[]>): Promise<readonly FileResult[]> => {
      const slot = free.pop()!
      try {
        const results = await slot(job.data)
        // What cannot be made is a failure of the queue too, for whoever looks at it.
        if (results.every(({ what }) => what === 'failed')) throw new UserProblem(results[0]?.words.join(' ') ?? 'It made nothing.')
        return results
      } catch (error) {
        if (error instanceof UserProblem) throw new UnrecoverableError(error.message)
        throw error
      } finally {
        free.push(slot)
      }
    }
    const { lease } = this.timing
    const connection = this.another()
    const worker = new Worker<Carried, readonly FileResult[]>(this.queue.name, work, {
      connection,
      name: `${hostname().replace(/[^\w.-]/g, '-')}-${process.pid}`,
      prefix: PREFIX,
      concurrency: slots.length,
      lockDuration: lease,
      stalledInterval: lease,
      // The third loss gives it up.
      maxStalledCount: MOST_LOST - 1,
      skipVersionCheck: true,
      metrics: { maxDataPoints: 60 },
    })
    worker.on('error', () => undefined)
    await worker.waitUntilReady()
    return async () => {
      await worker.close()
      connection.disconnect()
    }
  }

  /** What the queue is at. @throws if Redis does not answer */
  async status(): Promise<QueueStatus> {
    const counts = await this.queue.getJobCounts('waiting', 'active', 'delayed', 'completed', 'failed')
    const count = (state: string): number => counts[state] ?? 0
    const [completed, failed] = [await this.queue.getMetrics('completed', 0, 0), await this.queue.getMetrics('failed', 0, 0)]
    const failures = await this.queue.getFailed(0, FAILURES - 1)
    return {
      waiting: count('waiting') + count('delayed'),
      active: count('active'),
      made: completed.meta.count,
      failed: failed.meta.count,
      perMinute: (completed.data[0] ?? 0) + (failed.data[0] ?? 0),
      workers: await this.workers(),
      failures: failures.map(({ data, failedReason }) => ({
        photo: 'photo' in data ? data.photo : `${data.run}, number ${data.index + 1}`,
        words: problemOf(failedReason),
      })),
    }
  }

  /** Names of those who take jobs now. */
  async workers(): Promise<readonly string[]> {
    const clients = await this.queue.getWorkers()
    return [...new Set(clients.map(({ rawname = '', addr = '' }) => rawname.split(':w:')[1] ?? addr))].toSorted()
  }

  async close(): Promise<void> {
    await this.queue.close().catch(() => undefined)
    this.redis.disconnect()
  }

  /** A connection besides, for who waits in it. */
  private another(): Redis {
    const redis = this.redis.duplicate()
    redis.on('error', () => undefined)
    return redis
  }

  /** What ended in an earlier call is asked for anew; whether there is anything to do its worker finds out. */
  private async forget(jobs: readonly Carried[]): Promise<void> {
    for (const job of jobs) {
      const before = await this.queue.getJob(idOf(job))
      if (before && ((await before.isCompleted().catch(() => false)) || (await before.isFailed().catch(() => false)))) await before.remove()
    }
  }

  private async add(jobs: readonly Carried[]): Promise<void> {
    try {
      await this.queue.addBulk(
        jobs.map((data) => ({
          name: 'photo',
          data,
          opts: {
            jobId: idOf(data),
            // A process that has died is a lost lease like another.
            attempts: MOST_LOST,
            removeOnComplete: { age: 3600 },
            removeOnFail: { age: 24 * 3600 },
          },
        })),
      )
    } catch (error) {
      const { message } = error as Error
      throw new UserProblem(
        message.startsWith('OOM')
          ? 'Redis has no room left for the jobs; its maxmemory is reached.'
          : `Redis did not take the jobs: ${message}.`,
      )
    }
  }

  /** Asks for what may have ended while nobody listened, and hands in anew what Redis has lost. */
  private async sweep(open: ReadonlyMap<string, Carried>, end: (id: string, ended: Ended) => void): Promise<void> {
    for (const [id, job] of [...open].slice(0, SWEEP.most)) {
      const there = await this.queue.getJob(id)
      if (!there) await this.add([job])
      else if (await there.isCompleted()) end(id, { results: there.returnvalue })
      else if (await there.isFailed()) end(id, { problem: problemOf(there.failedReason) })
    }
  }
}

/** BullMQ takes a colon in ids for its own. */
function idOf({ run, index }: Carried): string {
  return `${run}.${index}`
}

function problemOf(reason: string): string {
  return /stalled|process of the job has ended/i.test(reason) ? GIVEN_UP : reason
}

function connect(url: string): Redis {
  if (!URL.canParse(url) || !/^rediss?:$/.test(new URL(url).protocol))
    throw new CallProblem(`“${shown(url)}” is no address of Redis; those are redis://host:6379.`)
  const redis = new Redis(url, { maxRetriesPerRequest: null, lazyConnect: true, retryStrategy: (times) => Math.min(times * 100, 2000) })
  redis.on('error', () => undefined)
  return redis
}

/** Waits until Redis answers. @throws CallProblem if it does not, or is too old */
async function answers(redis: Redis): Promise<void> {
  const { host, port } = redis.options
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new CallProblem(`Redis at ${host}:${port} does not answer.`)), PATIENCE)
  })
  const refused = new Promise<never>((_, reject) => {
    redis.once('error', ({ code }: NodeJS.ErrnoException) => {
      if (code === 'ECONNREFUSED' || code === 'ENOTFOUND') reject(new CallProblem(`Redis at ${host}:${port} does not answer.`))
    })
  })
  const info = await Promise.race([redis.info('server'), late, refused]).finally(() => clearTimeout(timer))
  const [major = 0, minor = 0] = (/redis_version:(\d+)\.(\d+)/.exec(info) ?? []).slice(1).map(Number)
  if (major < LEAST_VERSION[0] || (major === LEAST_VERSION[0] && minor < LEAST_VERSION[1])) {
    throw new CallProblem(`Redis at ${host}:${port} is version ${major}.${minor}; ${LEAST_VERSION.join('.')} or later is needed.`)
  }
}

/** An address without what is secret in it. */
function shown(url: string): string {
  return url.replace(/\/\/[^@/]*@/, '//')
}
