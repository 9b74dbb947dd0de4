import { RenderPool, type RenderWorker, type Thread } from '@welkinar/core/pool'
import { wrap } from 'comlink'
import { chosenMachine } from './machine'

/** Small photos need less memory for results: so many bytes, and so many for each pixel. */
const SMALL = { least: 160e6, perPixel: 40 }

let pool: RenderPool | undefined

/** The pool of render threads, started when it is first needed. @throws Error if a thread does not start; the next call tries again */
export function renderPool(): Promise<RenderPool> {
  const { threads, memory } = chosenMachine()
  pool ??= new RenderPool({ threads, start: startThread, budget: { most: memory * 1e6, small: SMALL } })
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
