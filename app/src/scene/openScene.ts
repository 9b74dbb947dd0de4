import { sceneWithout, UserProblem, type CheckedScene } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { showNotice, showProblem } from '../common/notices'
import { renderPool } from '../engine/engine'
import { loadPhotoFile } from '../storage/photos'
import { addScenes, loadScene, noteOpened, type LoadedScene } from '../storage/scenes'
import { onSavedElsewhere, SceneLock } from '../storage/sceneLock'
import { Autosave } from './autosave'
import type { SceneHistory } from './history'
import type { SceneLife } from './sceneLife'
import { ScenePictures } from './scenePictures'
import { useScene } from './sceneStore'
import { Thumbnail } from './thumbnail'

/** What an open scene needs of the browser. */
export interface Surroundings {
  readonly pool: () => Promise<RenderPool>
  readonly pictures: () => Pick<ScenePictures, 'hold' | 'holdPictures' | 'keep' | 'release'>
  readonly thumbnail: (pool: RenderPool) => Pick<Thumbnail, 'finish'>
}

const browser: Surroundings = {
  pool: renderPool,
  pictures: () => new ScenePictures(),
  thumbnail: (pool) => new Thumbnail(pool),
}

/**
 * A scene that is open: its document in the store, its pictures in the threads, and who writes it. All its screens show this one. A second tab sees it
 * as the first one saves it, and can take it over. What it goes through is `SceneLife`; what comes after it is over, the store refuses.
 */
export class OpenScene {
  /** Differs for each opening, also of one scene. */
  private readonly opening = Symbol('opening')
  private readonly autosave = new Autosave(this.opening)
  private readonly lock: SceneLock
  private thumbnail: Pick<Thumbnail, 'finish'> | undefined
  private stopFollowing: (() => void) | undefined
  /** What is on the screen of what is stored, and as the store has it. */
  private shown: LoadedScene | undefined
  private base: SceneHistory | undefined

  private constructor(
    readonly id: string,
    readonly pool: RenderPool,
    readonly pictures: ReturnType<Surroundings['pictures']>,
    private readonly surroundings: Surroundings,
  ) {
    this.lock = new SceneLock(id, {
      onHeld: () => undefined,
      onAsked: () => this.autosave.stop(),
      onLost: () => this.onlyRead(),
    })
  }

  /**
   * Opens a scene until the signal ends it, which saves what is not saved yet and closes it.
   * @throws UserProblem if the scene is not there, or its photo cannot be read
   */
  static async open(id: string, signal: AbortSignal, surroundings = browser): Promise<OpenScene> {
    // The one that was open before may still be saving, and have the lock.
    const before = turn
    let over = (): void => undefined
    turn = new Promise((resolve) => (over = resolve))
    await before
    const pictures = surroundings.pictures()
    let scene: OpenScene | undefined
    try {
      const loaded = await unlessAborted(loadScene(id), signal)
      const gone = await unlessAborted(pictures.hold(loaded.scene), signal)
      scene = new OpenScene(id, await unlessAborted(surroundings.pool(), signal), pictures, surroundings)
      await scene.begin(loaded, gone)
      signal.throwIfAborted()
    } catch (error) {
      if (scene) await scene.close()
      else pictures.release()
      over()
      throw error
    }
    const opened = scene
    current = opened
    signal.addEventListener('abort', () => void opened.close().finally(over), { once: true })
    return opened
  }

  /** Goes on here with what another tab has open. */
  async takeOver(): Promise<void> {
    await this.lock.takeOver()
    await this.write()
  }

  /** Stores the scene as it is on the screen as one of its own. Returns its id. @throws UserProblem if its photo is not stored any more */
  async keepAsCopy(): Promise<string | undefined> {
    const scene = useScene.getState().history?.scene
    if (!scene) return undefined
    if (!(await loadPhotoFile(scene.photo.id))) {
      throw new UserProblem(`“${scene.photo.fileName}” is no longer stored either. Save the recipe, open the photo again, and lay it on.`)
    }
    const copy: CheckedScene = { ...scene, id: crypto.randomUUID(), name: `${scene.name}, copy`.slice(0, 120) }
    await addScenes([{ scene: copy }], [])
    useScene.getState().live(this.opening, { is: 'open' })
    return copy.id
  }

  /** Saves what is not saved yet; resolves when that was tried. */
  save(): Promise<void> {
    return this.autosave.flush()
  }

  private async close(): Promise<void> {
    if (current === this) current = undefined
    this.stopFollowing?.()
    const saved = this.autosave.stop()
    useScene.getState().close(this.opening)
    void Promise.resolve(this.thumbnail?.finish()).finally(() => this.pictures.release())
    await saved.finally(() => this.lock.close())
  }

  private async begin(loaded: LoadedScene, gone: readonly string[]): Promise<void> {
    const shown = withoutPictures(loaded, gone)
    useScene.getState().open(this.opening, shown)
    this.base = useScene.getState().history
    this.shown = shown
    if (loaded.newer) return void this.live({ is: 'reading only', why: 'newer' })
    if (await this.lock.take()) await this.write()
    else this.onlyRead()
  }

  /** Makes this tab the one that writes, from what is stored now. */
  private async write(): Promise<void> {
    this.stopFollowing?.()
    const loaded = await this.load()
    if (!this.live({ is: 'opening' })) return
    try {
      await noteOpened(loaded)
    } catch (error) {
      showProblem(error, 'Opening the scene')
      // Nothing is written over what could not be set aside.
      if (loaded.leftOut) return void this.live({ is: 'reading only', why: 'no room' })
    }
    if (!this.live({ is: 'opening' })) return
    if (loaded.leftOut) showNotice(leftOutInWords(loaded.leftOut))
    this.thumbnail ??= this.surroundings.thumbnail(this.pool)
    // What was changed meanwhile is saved now.
    this.autosave.start({ revision: loaded.leftOut ? loaded.revision + 1 : loaded.revision }, this.base)
  }

  private onlyRead(): void {
    if (!this.live({ is: 'reading only', why: 'another tab' })) return
    this.stopFollowing?.()
    this.stopFollowing = onSavedElsewhere(this.id, () => {
      this.load().catch(() => this.live({ is: 'reading only', why: 'gone' }))
    })
  }

  private live(life: SceneLife): boolean {
    return useScene.getState().live(this.opening, life)
  }

  /** Shows what is stored now, unless it is on the screen. */
  private async load(): Promise<LoadedScene> {
    const loaded = await loadScene(this.id)
    if (this.shown && loaded.revision === this.shown.revision) return this.shown
    const shown = withoutPictures(loaded, await this.pictures.hold(loaded.scene))
    this.shown = shown
    if (useScene.getState().follow(this.opening, shown)) this.base = useScene.getState().history
    return shown
  }
}

/** Waits for something no longer than it is wanted. */
function unlessAborted<T>(wanted: Promise<T>, signal: AbortSignal): Promise<T> {
  return new Promise((resolve, reject) => {
    const stop = (): void => reject(signal.reason as Error)
    if (signal.aborted) stop()
    signal.addEventListener('abort', stop, { once: true })
    wanted.then(resolve, reject).finally(() => signal.removeEventListener('abort', stop))
  })
}

/** A scene without pictures that cannot be read any more: that is a loss like any other. */
function withoutPictures(loaded: LoadedScene, gone: readonly string[]): LoadedScene {
  if (gone.length === 0) return loaded
  const leftOut = [...(loaded.leftOut ?? []), 'a picture that a mask, a pattern or the depth reads is no longer stored']
  return { ...loaded, scene: sceneWithout(loaded.scene, gone) as CheckedScene, history: [], position: 0, leftOut }
}

function leftOutInWords(leftOut: readonly string[]): string {
  const shown = leftOut.slice(0, 3).join('; ')
  const more = leftOut.length > 3 ? ` and ${leftOut.length - 3} more` : ''
  return `Something in this scene could not be read: ${shown}${more}. The scene as it was stored lies at the end of the Shelf, under “Set aside”.`
}

let current: OpenScene | undefined
/** Resolves when the opening before is over. */
let turn: Promise<void> = Promise.resolve()

/** The scene that is open in this tab. */
export function openedScene(): OpenScene | undefined {
  return current
}
