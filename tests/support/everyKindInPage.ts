import './withoutEval'
import type { RenderWorker } from '@welkinar/core/pool'
import { wrap, type Remote } from 'comlink'
import { everyKind } from './everyKind'

declare global {
  var everyKindOf: (script: string, whole: boolean) => Promise<Awaited<ReturnType<typeof everyKind>>>
}

/** Draws every kind in the page, in a thread of the application's own. @param script address of its worker */
globalThis.everyKindOf = async (script, whole) => {
  const worker = new Worker(script, { type: 'module', name: JSON.stringify({ usual: 2e8, most: 2e8 }) })
  await new Promise((resolve) => worker.addEventListener('message', resolve, { once: true }))
  const thread: Remote<RenderWorker> = wrap<RenderWorker>(worker)
  try {
    return await everyKind(thread, whole)
  } finally {
    worker.terminate()
  }
}
