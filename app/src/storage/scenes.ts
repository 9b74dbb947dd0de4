import { SCENE_VERSION, sceneSchema, upgradeDocument, upgradeFromVersion1, UserProblem, type Scene } from '@welkinar/core'
import type { Patch } from 'immer'
import { database, type HistoryEntry, type StoredScene } from './database'

/** A scene of the Shelf: the document, or why it cannot be read. */
export interface ShelfEntry {
  readonly id: string
  readonly edited: number
  readonly thumbnail: Blob | undefined
  readonly scene?: Scene
  readonly problem?: string
}

/** All scenes, newest first. */
export async function listScenes(): Promise<ShelfEntry[]> {
  const stored = await database.scenes.orderBy('edited').reverse().toArray()
  return stored.filter((one) => one.putAway === undefined).map(toEntry)
}

function toEntry(stored: StoredScene): ShelfEntry {
  const { id, edited, thumbnail } = stored
  const read = readScene(stored)
  return 'scene' in read ? { id, edited, thumbnail, scene: read.scene } : { id, edited, thumbnail, problem: read.problem }
}

function readScene(stored: StoredScene): { scene: Scene } | { problem: string } {
  const version = (stored.document as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > SCENE_VERSION) {
    return { problem: `This scene was made by a newer Welkinar (version ${version}).` }
  }
  const result = sceneSchema.safeParse(upgradeDocument(stored.document))
  if (result.success) return { scene: result.data }
  const [issue] = result.error.issues
  return { problem: `This scene is damaged: at ${issue?.path.join('.') || 'its root'}, ${issue?.message ?? 'unreadable'}.` }
}

/** A scene with its history. @throws UserProblem if it is not there or damaged */
export async function loadScene(id: string): Promise<{ scene: Scene; history: HistoryEntry[]; position: number }> {
  const stored = await database.scenes.get(id)
  if (!stored || stored.putAway !== undefined) throw new UserProblem('There is no scene at this address.')
  const read = readScene(stored)
  if ('problem' in read) throw new UserProblem(read.problem)
  const history = await database.history.where('[sceneId+index]').between([id, -Infinity], [id, Infinity]).toArray()
  return { scene: read.scene, history: history.map(upgraded), position: stored.position }
}

/** Entries may be older than the document that they lead to. */
function upgraded(entry: HistoryEntry): HistoryEntry {
  return { ...entry, patches: upgradeFromVersion1(entry.patches) as Patch[], inverse: upgradeFromVersion1(entry.inverse) as Patch[] }
}

/** Stores a scene that is new here. */
export async function addScene(scene: Scene, thumbnail?: Blob): Promise<void> {
  await database.scenes.put({ id: scene.id, document: scene, edited: scene.edited, position: 0, thumbnail })
}

/** Writes the scene and the history entries from `firstChanged` on, in one transaction. */
export async function saveScene(scene: Scene, history: readonly HistoryEntry[], position: number, firstChanged: number): Promise<void> {
  await database.transaction('rw', database.scenes, database.history, async () => {
    const stored = await database.scenes.get(scene.id)
    await database.scenes.put({ ...stored, id: scene.id, document: scene, edited: scene.edited, position })
    const first = history[0]?.index ?? 0
    await database.history.where('[sceneId+index]').between([scene.id, firstChanged], [scene.id, Infinity]).delete()
    await database.history.where('[sceneId+index]').between([scene.id, -Infinity], [scene.id, first], true, false).delete()
    await database.history.bulkPut(history.filter((entry) => entry.index >= firstChanged))
  })
}

export async function saveThumbnail(id: string, thumbnail: Blob): Promise<void> {
  await database.scenes.update(id, { thumbnail })
}

export async function renameScene(id: string, name: string): Promise<void> {
  await database.scenes
    .where('id')
    .equals(id)
    .modify((stored) => {
      stored.document = { ...(stored.document as Scene), name }
    })
}

/** A copy with a history of its own. Returns its id. */
export async function duplicateScene(id: string, now: number): Promise<string> {
  const { scene } = await loadScene(id)
  const stored = await database.scenes.get(id)
  const copy = { ...scene, id: crypto.randomUUID(), name: `${scene.name}, copy`.slice(0, 120), created: now, edited: now }
  await addScene(copy, stored?.thumbnail)
  return copy.id
}

/** Puts a scene away; `restoreScene` brings it back until the next start. */
export async function putAwayScene(id: string, now: number): Promise<void> {
  await database.scenes.update(id, { putAway: now })
}

export async function restoreScene(id: string): Promise<void> {
  await database.scenes.update(id, { putAway: undefined })
}

/** Removes what was put away, with its history and the photos that nothing else uses. */
export async function removePutAway(): Promise<void> {
  const all = await database.scenes.toArray()
  const gone = all.filter((one) => one.putAway !== undefined).map((one) => one.id)
  if (gone.length === 0) return
  await database.transaction('rw', database.scenes, database.history, database.photos, async () => {
    await database.scenes.bulkDelete(gone)
    await Promise.all(gone.map((id) => database.history.where('[sceneId+index]').between([id, -Infinity], [id, Infinity]).delete()))
    // A picture may be used by the photo, a mask or the depth of a scene, or come back by an undo.
    const entries = await database.history.toArray()
    const used = JSON.stringify([all.filter((one) => one.putAway === undefined).map(({ document }) => document), entries])
    const pictures = await database.photos.toCollection().primaryKeys()
    await database.photos.bulkDelete(pictures.filter((id) => !used.includes(id)))
  })
}
