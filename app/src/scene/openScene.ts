import { sceneWithout, UserProblem, type CheckedScene } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { showNotice, showProblem } from '../common/notices'
import { renderPool } from '../engine/engine'
import { loadPhotoFile } from '../storage/photos'
import { addScenes, loadScene, noteOpened, type LoadedScene } from '../storage/scenes'
import { onSavedElsewhere, SceneLock } from '../storage/sceneLock'
import { Autosave } from './autosave'
import { ScenePictures } from './scenePictures'
import { useScene } from './sceneStore'
import { Thumbnail } from './thumbnail'

/**
 * A scene that is open: its document in the store, its pictures in the threads, and who writes it. All its screens show this one. A second tab sees it
 * as the first one saves it, and can take it over.
 */
export class OpenScene {
  private readonly autosave = new Autosave()
  /** Differs for each opening, also of one scene. */
  private readonly opening = Symbol('opening')
  private readonly lock: SceneLock
  private thumbnail: Thumbnail | undefined
  private stopFollowing: (() => void) | undefined
  /** What is on the screen of what is stored. */
  private shown: LoadedScene | undefined

  private constructor(
    readonly id: string,
    readonly pool: RenderPool,
    readonly pictures: ScenePictures,
  ) {
    this.lock = new SceneLock(id, {
      onHeld: () => undefined,
      onAsked: () => this.autosave.stop(),
      onLost: () => this.onlyRead(),
    })
  }

  /** @throws UserProblem if the scene is not there, or its photo cannot be read */
  static async open(id: string, signal: AbortSignal): Promise<OpenScene> {
    // The one that was open before may still be saving, and have the lock.
    await closing
    signal.throwIfAborted()
    const pictures = new ScenePictures()
    try {
      const loaded = await loadScene(id)
      const [gone, pool] = [await pictures.hold(loaded.scene), await renderPool()]
      signal.throwIfAborted()
      const scene = new OpenScene(id, pool, pictures)
      await scene.begin(loaded, gone)
      if (!signal.aborted) current = scene
      return scene
    } catch (error) {
      pictures.release()
      throw error
    }
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
    return copy.id
  }

  /** Saves what is not saved yet; resolves when that was tried. */
  save(): Promise<void> {
    return this.autosave.flush()
  }

  /** Saves what is not saved yet, and closes the scene. */
  async close(): Promise<void> {
    if (current === this) current = undefined
    this.stopFollowing?.()
    const saved = this.autosave.stop()
    if (this.isShown()) {
      onScreen = undefined
      useScene.getState().close()
    }
    void Promise.resolve(this.thumbnail?.finish()).finally(() => this.pictures.release())
    closing = saved.finally(() => this.lock.close())
    await closing
  }

  private async begin(loaded: LoadedScene, gone: readonly string[]): Promise<void> {
    const shown = withoutPictures(loaded, gone)
    onScreen = this.opening
    useScene.getState().open(shown.scene, shown.history, shown.position, loaded.newer ? 'newer' : undefined)
    this.shown = shown
    if (loaded.newer) return
    const isHeld = await this.lock.take()
    if (!this.isShown()) return
    if (isHeld) await this.write()
    else this.onlyRead()
  }

  /** Makes this tab the one that writes, from what is stored now. */
  private async write(): Promise<void> {
    this.stopFollowing?.()
    const loaded = await this.load()
    if (!this.isShown()) return
    // What is changed while that is noted is saved as soon as it was.
    const base = useScene.getState().history
    useScene.setState({ readOnly: undefined })
    try {
      await noteOpened(loaded)
    } catch (error) {
      showProblem(error, 'Opening the scene')
      // Nothing is written over what could not be set aside.
      if (loaded.leftOut && this.isShown()) return useScene.setState({ readOnly: 'no room', tool: undefined })
    }
    if (!this.isShown()) return
    if (loaded.leftOut) showNotice(leftOutInWords(loaded.leftOut))
    this.thumbnail ??= new Thumbnail(this.pool)
    this.autosave.start({ revision: loaded.leftOut ? loaded.revision + 1 : loaded.revision }, base)
  }

  private onlyRead(): void {
    if (!this.isShown()) return
    useScene.setState({ readOnly: 'another tab', tool: undefined })
    this.stopFollowing?.()
    this.stopFollowing = onSavedElsewhere(this.id, () => {
      this.load().catch(() => this.isShown() && useScene.setState({ readOnly: 'gone' }))
    })
  }

  /** Whether the store shows this scene. Another may have been opened while something was waited for: then nothing of this one is shown any more. */
  private isShown(): boolean {
    return onScreen === this.opening
  }

  /** Shows what is stored now, unless it is on the screen. */
  private async load(): Promise<LoadedScene> {
    const loaded = await loadScene(this.id)
    if (this.shown && loaded.revision === this.shown.revision) return this.shown
    const shown = withoutPictures(loaded, await this.pictures.hold(loaded.scene))
    this.shown = shown
    if (this.isShown()) useScene.getState().follow(shown.scene, shown.history, shown.position)
    return shown
  }
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
/** The opening whose scene is in the store. */
let onScreen: symbol | undefined
let closing: Promise<void> = Promise.resolve()

/** The scene that is open in this tab. */
export function openedScene(): OpenScene | undefined {
  return current
}
