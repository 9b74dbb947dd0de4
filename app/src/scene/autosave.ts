import { isOutOfRoom, reopenDatabase } from '../storage/database'
import { saveScene, SceneConflict, type LoadedScene } from '../storage/scenes'
import { firstChanged, type SceneHistory } from './history'
import type { SceneLife } from './sceneLife'
import { useScene } from './sceneStore'

const DELAY_MS = 400
/** What could not be saved is tried again after these times, the last one again and again. */
const RETRY_MS = [1000, 2000, 4000, 8000]

/**
 * Saves the open scene shortly after each change, and at once when the page is left. What could not be saved is kept on the screen and tried again
 * until it is, so that the stored history never has a gap.
 */
export class Autosave {
  /** The state that is stored; histories that were not written are compared with it. */
  private stored: SceneHistory | undefined
  /** The state that is to be stored; it stays known when the store shows another scene. */
  private latest: SceneHistory | undefined
  private revision = 0
  private writing: Promise<void> | undefined
  private timer: ReturnType<typeof setTimeout> | undefined
  private tries = 0
  private stopWatching: (() => void) | undefined

  /** @param opening the opening of the scene that it saves */
  constructor(private readonly opening: symbol) {}

  /** Begins to save what is changed. @param stored what is stored now, as the store shows it or showed it a moment ago */
  start({ revision }: Pick<LoadedScene, 'revision'>, stored: SceneHistory | undefined): void {
    this.stored = stored
    this.revision = revision
    if (!this.live({ is: 'open' })) return
    this.latest = useScene.getState().history
    if (this.latest && this.latest.scene !== stored?.scene) this.soon()
    const unsubscribe = useScene.subscribe(({ history, opening }, before) => {
      // Zooming and the like change the store, not the scene.
      if (!history || opening !== this.opening || history.scene === before.history?.scene) return
      this.latest = history
      this.soon()
    })
    const onHide = (): void => void this.flush()
    addEventListener('pagehide', onHide)
    document.addEventListener('visibilitychange', onHide)
    this.stopWatching = () => {
      unsubscribe()
      removeEventListener('pagehide', onHide)
      document.removeEventListener('visibilitychange', onHide)
    }
  }

  /** Saves what is not saved yet; resolves when that was tried. */
  flush(): Promise<void> {
    clearTimeout(this.timer)
    this.timer = undefined
    this.writing ??= this.write().finally(() => {
      this.writing = undefined
    })
    return this.writing
  }

  /** Saves what is not saved yet, and then nothing more. */
  async stop(): Promise<void> {
    this.stopWatching?.()
    this.stopWatching = undefined
    await this.flush()
    // It may be started again: what is not waited for is not to look as if it were.
    clearTimeout(this.timer)
    this.timer = undefined
    this.tries = 0
  }

  private soon(): void {
    // Trouble is shown until something has been saved again.
    if (useScene.getState().life.is === 'open') this.live({ is: 'saving' })
    // Counted from the first change that is not saved: changes that follow each other fast must not put the saving off.
    if (this.timer === undefined) this.after(this.tries === 0 ? DELAY_MS : (RETRY_MS[0] ?? 0))
  }

  private after(ms: number): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.flush(), ms)
  }

  /** One write after the other until what is on the screen is stored. */
  private async write(): Promise<void> {
    for (;;) {
      const history = this.latest
      if (!this.stored || !history || history.scene === this.stored.scene) return
      try {
        this.revision = await saveScene(history, firstChanged(history, this.stored), this.revision)
        this.stored = history
        this.tries = 0
        this.live({ is: this.latest?.scene === history.scene ? 'open' : 'saving' })
      } catch (error) {
        return this.failed(error)
      }
    }
  }

  private failed(error: unknown): void {
    if (error instanceof SceneConflict) return void this.live({ is: 'trouble', why: 'conflict' })
    const outOfRoom = isOutOfRoom(error)
    if (!outOfRoom) console.error(error)
    this.live({ is: 'trouble', why: outOfRoom ? 'no room' : 'failed' })
    reopenDatabase()
    this.after(RETRY_MS[Math.min(this.tries++, RETRY_MS.length - 1)] ?? 0)
  }

  private live(life: SceneLife): boolean {
    return useScene.getState().live(this.opening, life)
  }
}
