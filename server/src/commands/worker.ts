import { hostname } from 'node:os'
import { RedisQueue } from '../queue/redisQueue'
import type { Carried } from '../runs/plan'
import { jobProcesses, type BatchTask } from './batch'

/** What `welkinar worker` is asked for. */
export interface WorkerTask extends Pick<BatchTask, 'jobs' | 'threads' | 'memory' | 'progress'> {
  readonly redis: string
  /** How long the worker may be silent until its job is another's, seconds. */
  readonly lease: number
}

/**
 * Takes jobs from a queue on Redis until a signal ends it; what is worked on then is brought to its end, unless a second signal comes.
 * @throws CallProblem if the queue cannot be used
 */
export async function runWorker(task: WorkerTask): Promise<void> {
  const { progress } = task
  const queue = await RedisQueue.open(task.redis, { lease: task.lease * 1000 })
  const processes = jobProcesses(task)
  const say = (what: object): void => {
    if (progress) console.log(JSON.stringify(what))
  }
  const stop = await queue.serve(
    processes.map((one) => async (job: Carried) => {
      const { run, index } = job
      const working = one.run(job)
      say({ step: 'taken', run, index, ...('photo' in job ? { photo: job.photo } : {}), process: await one.pid() })
      const results = await working
      say({ step: 'done', run, index, results })
      return results
    }),
  )
  say({ step: 'waiting' })
  if (!progress) console.log(`Worker of ${hostname()}: waiting for jobs, ${processes.length} at the same time. Ctrl C ends it.`)
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
      // The second one ends it at once.
      process.removeAllListeners(signal)
      process.once(signal, resolve)
    }
  })
  await stop()
  await Promise.all(processes.map((one) => one.end()))
  await queue.close()
}
