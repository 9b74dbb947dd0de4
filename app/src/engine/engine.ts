import { RenderPool, type RenderWorker, type Thread } from '@welkinar/core/pool'
import { wrap } from 'comlink'

const MOST_THREADS = 16
/** Memory that all threads together keep results in, bytes. */
const BUDGET = { most: 768e6, small: { least: 160e6, perPixel: 40 } }

let pool: RenderPool | undefined

/** The pool of render threads, started when it is first needed. @throws Error if a thread does not start; the next call tries again */
export function renderPool(): Promise<RenderPool> {
  const threads = Math.max(1, Math.min(MOST_THREADS, navigator.hardwareConcurrency || 2))
  pool ??= new RenderPool({ threads, start: startThread, budget: BUDGET })
  return pool.started()
}

function startThread(): Promise<Thread> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./renderThread.ts', import.meta.url), { type: 'module' })
    const failed = (event: ErrorEvent): void => reject(new Error(`A render thread did not start: ${event.message}`))
    worker.addEventListener('error', failed, { once: true })
    worker.addEventListener(
      'message',
      () => {
        worker.removeEventListener('error', failed)
        resolve({
          worker: wrap<RenderWorker>(worker),
          onEnd: (report) => worker.addEventListener('error', ({ message }) => report(message)),
          end: () => worker.terminate(),
        })
      },
      { once: true },
    )
  })
}
