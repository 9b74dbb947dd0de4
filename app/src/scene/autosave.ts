import { saveScene } from '../storage/scenes'
import { isOutOfRoom } from '../storage/database'
import { useScene } from './sceneStore'
import type { SceneHistory } from './history'
import { create } from 'zustand'

const DELAY_MS = 400

export type SaveState = 'saved' | 'saving' | 'no room' | 'failed'

/** What the last attempt to save came to. */
export const useSaveState = create<{ state: SaveState }>(() => ({ state: 'saved' }))

let lastSave: Promise<void> = Promise.resolve()

/** Resolves when what was changed on a screen that has been left is stored. */
export function savesDone(): Promise<void> {
  return lastSave
}

/** Saves the open scene shortly after each change, and at once when the page is left. Returns how to stop. */
export function startAutosave(): () => void {
  let saved = useScene.getState().history
  let seen = saved
  let timer: ReturnType<typeof setTimeout> | undefined
  let running: Promise<void> = Promise.resolve()
  const flush = (): Promise<void> => {
    clearTimeout(timer)
    const { history } = useScene.getState()
    if (!history || history === saved) return running
    const before = saved
    saved = history
    running = running
      .then(() => write(history, before))
      .then((written) => {
        if (!written) saved = before
      })
    return running
  }
  const unsubscribe = useScene.subscribe(({ history }) => {
    // Zooming and the like change the store, not the scene.
    if (!history || history === seen) return
    seen = history
    if (history.scene.id !== saved?.scene.id) {
      saved = history
      return
    }
    // Trouble is shown until something has been saved again.
    if (useSaveState.getState().state === 'saved') useSaveState.setState({ state: 'saving' })
    clearTimeout(timer)
    timer = setTimeout(() => void flush(), DELAY_MS)
  })
  const onHide = (): void => void flush()
  addEventListener('pagehide', onHide)
  document.addEventListener('visibilitychange', onHide)
  return () => {
    unsubscribe()
    removeEventListener('pagehide', onHide)
    document.removeEventListener('visibilitychange', onHide)
    lastSave = flush()
  }
}

async function write(history: SceneHistory, before: SceneHistory | undefined): Promise<boolean> {
  try {
    await saveScene(history.scene, history.entries, history.position, firstChanged(history, before))
    useSaveState.setState({ state: 'saved' })
    return true
  } catch (error) {
    useSaveState.setState({ state: isOutOfRoom(error) ? 'no room' : 'failed' })
    return false
  }
}

/** Index of the first history entry that differs from what is stored. */
function firstChanged(history: SceneHistory, before: SceneHistory | undefined): number {
  const known = new Map(before?.entries.map((entry) => [entry.index, entry]))
  const changed = history.entries.find((entry) => known.get(entry.index) !== entry)
  return changed?.index ?? (history.entries.at(-1)?.index ?? -1) + 1
}
