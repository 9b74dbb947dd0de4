import { RenderPool, type MemoryBudget, type RenderWorker, type Thread } from '@welkinar/core/pool'
import { wrap } from 'comlink'

const MOST_THREADS = 6
/** Memory that all threads together keep results in, bytes. */
const BUDGET = { usual: 640e6, most: 960e6, small: { least: 80e6, perPixel: 24 } }

let pool: RenderPool | undefined

/** The pool of render threads, started when it is first needed. @throws Error if a thread does not start; the next call tries again */
export function renderPool(): Promise<RenderPool> {
  const threads = Math.max(1, Math.min(MOST_THREADS, navigator.hardwareConcurrency || 2))
  const { usual, most, small } = BUDGET
  const budgetOf = (share: number): MemoryBudget => ({
    usual: usual * share,
    most: most * share,
    small: { least: small.least * share, perPixel: small.perPixel * share },
  })
  pool ??= new RenderPool({ threads, start: (share) => startThread(budgetOf(share / threads)) })
  return pool.started()
}

function startThread(budget: MemoryBudget): Promise<Thread> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./renderThread.ts', import.meta.url), { type: 'module', name: JSON.stringify(budget) })
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
