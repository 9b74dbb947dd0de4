import { availableParallelism } from 'node:os'
import { once } from 'node:events'
import { Worker } from 'node:worker_threads'
import { RenderPool, type RenderWorker } from '@welkinar/core/pool'
import { wrap, type Remote } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'

/**
 * A pool of worker threads.
 * @param threads default: one for each core
 * @param script the bundled worker; default: beside this file
 */
export async function createNodePool(
  threads = availableParallelism(),
  script = new URL('./worker.js', import.meta.url),
): Promise<RenderPool> {
  const workers = await Promise.all(Array.from({ length: threads }, () => startWorker(script)))
  const remotes = workers.map((worker) => wrap<RenderWorker>(nodeEndpoint(worker)) as Remote<RenderWorker>)
  return new RenderPool(remotes, () => workers.forEach((worker) => void worker.terminate()))
}

async function startWorker(script: URL): Promise<Worker> {
  const worker = new Worker(script)
  await once(worker, 'message')
  return worker
}
