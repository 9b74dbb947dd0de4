import { RenderPool, type RenderWorker } from '@welkinar/core/pool'
import { wrap } from 'comlink'

const MOST_THREADS = 6

let pool: Promise<RenderPool> | undefined

/** The pool of render threads, started when it is first needed. */
export function renderPool(): Promise<RenderPool> {
  pool ??= startPool(Math.max(1, Math.min(MOST_THREADS, navigator.hardwareConcurrency || 2)))
  return pool
}

async function startPool(threads: number): Promise<RenderPool> {
  const workers = await Promise.all(Array.from({ length: threads }, startThread))
  const remotes = workers.map((worker) => wrap<RenderWorker>(worker))
  return new RenderPool(remotes, () => workers.forEach((worker) => worker.terminate()))
}

function startThread(): Promise<Worker> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./renderThread.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', () => resolve(worker), { once: true })
    worker.addEventListener('error', (event) => reject(new Error(`A render thread did not start: ${event.message}`)), {
      once: true,
    })
  })
}
