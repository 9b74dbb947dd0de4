import { sceneWithout, type CheckedScene } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { showNotice, showProblem } from '../common/notices'
import { renderPool } from '../engine/engine'
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
  private readonly lock: SceneLock
  private thumbnail: Thumbnail | undefined
  private stopFollowing: (() => void) | undefined
  private revision = -1

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
      if (gone.length > 0) showNotice('A picture that a mask or the depth of this scene reads is no longer stored; it is left out.')
      signal.throwIfAborted()
      const scene = new OpenScene(id, pool, pictures)
      await scene.begin(loaded, gone)
      current = scene
      return scene
    } catch (error) {
      pictures.release()
      throw error
    }
  }

  /** Goes on here with what another tab has open. */
  async takeOver(): Promise<void> {
    await this.lock.takeOver()
    await this.write(await this.load())
  }

  /** Stores the scene as it is on the screen as one of its own. Returns its id. */
  async keepAsCopy(): Promise<string | undefined> {
    const scene = useScene.getState().history?.scene
    if (!scene) return undefined
    const copy: CheckedScene = { ...scene, id: crypto.randomUUID(), name: `${scene.name}, copy`.slice(0, 120) }
    await addScenes([{ scene: copy }], [])
    return copy.id
  }

  /** Saves what is not saved yet, and closes the scene. */
  async close(): Promise<void> {
    if (current === this) current = undefined
    this.stopFollowing?.()
    const saved = this.autosave.stop()
    useScene.getState().close()
    void Promise.resolve(this.thumbnail?.finish()).finally(() => this.pictures.release())
    closing = saved.finally(() => this.lock.close())
    await closing
  }

  private async begin(loaded: LoadedScene, gone: readonly string[]): Promise<void> {
    const scene = sceneWithout(loaded.scene, gone) as CheckedScene
    useScene.getState().open(scene, loaded.history, loaded.position)
    this.revision = loaded.revision
    if (!(await this.lock.take())) return this.onlyRead()
    await this.write(loaded)
  }

  /** Makes this tab the one that writes. */
  private async write(loaded: LoadedScene): Promise<void> {
    this.stopFollowing?.()
    useScene.setState({ readOnly: undefined })
    await noteOpened(loaded).catch((error: unknown) => showProblem(error, 'Opening the scene'))
    if (loaded.leftOut) showNotice(leftOutInWords(loaded.leftOut))
    this.thumbnail ??= new Thumbnail(this.pool)
    this.autosave.start({ revision: loaded.leftOut ? loaded.revision + 1 : loaded.revision })
  }

  private onlyRead(): void {
    useScene.setState({ readOnly: 'another tab', tool: undefined })
    this.stopFollowing?.()
    this.stopFollowing = onSavedElsewhere(this.id, () => {
      this.load().catch(() => useScene.setState({ readOnly: 'gone' }))
    })
  }

  /** Shows what is stored now. */
  private async load(): Promise<LoadedScene> {
    const loaded = await loadScene(this.id)
    if (loaded.revision !== this.revision) {
      this.revision = loaded.revision
      await this.pictures.hold(loaded.scene)
      useScene.getState().follow(loaded.scene, loaded.history, loaded.position)
    }
    return loaded
  }
}

function leftOutInWords(leftOut: readonly string[]): string {
  const shown = leftOut.slice(0, 3).join('; ')
  const more = leftOut.length > 3 ? ` and ${leftOut.length - 3} more` : ''
  return `Something in this scene could not be read: ${shown}${more}. The scene as it was stored can be saved as a file on the Shelf.`
}

let current: OpenScene | undefined
let closing: Promise<void> = Promise.resolve()

/** The scene that is open in this tab. */
export function openedScene(): OpenScene | undefined {
  return current
}
