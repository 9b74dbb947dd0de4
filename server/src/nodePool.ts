import { once } from 'node:events'
import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import { RenderPool, type RenderWorker, type Thread } from '@welkinar/core/pool'
import { wrap, type Remote } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'

/** Memory that all threads together keep results in, bytes. */
const BUDGET = 768e6
/** As many as a page takes at the most; more where they are asked for. */
const MOST_THREADS = 16

interface NodePoolOptions {
  /** The bundled worker; default: beside this file. */
  readonly script?: URL
  readonly stallSeconds?: number
  /** Most that results of all threads may take, bytes. */
  readonly mostMemory?: number
}

/**
 * A pool of worker threads.
 * @param asked how many. Default: as many as there are cores
 */
export async function createNodePool(asked?: number, options: NodePoolOptions = {}): Promise<RenderPool> {
  const { script = new URL('./worker.js', import.meta.url), stallSeconds, mostMemory = BUDGET } = options
  const threads = asked ?? Math.min(MOST_THREADS, availableParallelism())
  const start = (): Promise<Thread> => startThread(script)
  return new RenderPool({ threads, start, budget: { most: mostMemory }, ...(stallSeconds === undefined ? {} : { stallSeconds }) }).started()
}

async function startThread(script: URL): Promise<Thread> {
  const worker = new Worker(script, { resourceLimits: { maxYoungGenerationSizeMb: 8 } })
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
