import { once } from 'node:events'
import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import { RenderPool, type MemoryBudget, type RenderWorker, type Thread } from '@welkinar/core/pool'
import { wrap, type Remote } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'

/** Memory that all threads together keep results in, bytes. */
const BUDGET: MemoryBudget = { usual: 192e6, most: 768e6 }
/** A thread that has less than this computes again for each tile what its tiles share. */
const LEAST_MEMORY = 96e6

/** As many threads as there are cores, and as have the memory that they need. */
function threadsFor(mostMemory: number): number {
  return Math.max(1, Math.min(availableParallelism(), Math.floor(mostMemory / LEAST_MEMORY)))
}

interface NodePoolOptions {
  /** The bundled worker; default: beside this file. */
  readonly script?: URL
  readonly stallSeconds?: number
  /** Most that results of all threads may take, bytes. */
  readonly mostMemory?: number
}

/**
 * A pool of worker threads.
 * @param asked how many; all memory is divided among them. Default: as many as there are cores, and memory for
 */
export async function createNodePool(asked?: number, options: NodePoolOptions = {}): Promise<RenderPool> {
  const { script = new URL('./worker.js', import.meta.url), stallSeconds, mostMemory = BUDGET.most } = options
  const threads = asked ?? threadsFor(mostMemory)
  const start = (share: number): Promise<Thread> =>
    startThread(script, { usual: (share * Math.min(BUDGET.usual, mostMemory)) / threads, most: (share * mostMemory) / threads })
  return new RenderPool({ threads, start, ...(stallSeconds === undefined ? {} : { stallSeconds }) }).started()
}

async function startThread(script: URL, budget: MemoryBudget): Promise<Thread> {
  const worker = new Worker(script, { workerData: { budget } })
  await once(worker, 'message')
  return {
    worker: wrap<RenderWorker>(nodeEndpoint(worker)) as Remote<RenderWorker>,
    onEnd(report) {
      worker.on('error', (error) => report(error.message))
      worker.on('exit', (code) => report(`The thread ended with ${code}.`))
    },
    end: () => void worker.terminate(),
  }
}
