import {
  checkedScene,
  mend,
  Refusal,
  SCENE_VERSION,
  sceneSchema,
  upgradeDocument,
  upgradeFromVersion1,
  UserProblem,
  type CheckedScene,
  noGroundwork,
} from '@welkinar/core'
import type { Patch } from 'immer'
import { database, type HistoryEntry, type StoredPhoto, type StoredScene } from './database'
import { announceSaved, withSceneLock } from './sceneLock'

/** A scene of the Shelf: the document, or why it cannot be read. */
export interface ShelfEntry {
  readonly id: string
  readonly edited: number
  readonly thumbnail: Blob | undefined
  readonly scene?: CheckedScene
  readonly problem?: string
  /** Whether something of it could not be read and lies beside it. */
  readonly hasAside: boolean
}

/** All scenes, newest first. */
export async function listScenes(): Promise<ShelfEntry[]> {
  const stored = await database.scenes.orderBy('edited').reverse().toArray()
  return stored.filter((one) => one.putAway === undefined).map(toEntry)
}

function toEntry(stored: StoredScene): ShelfEntry {
  const { id, edited, thumbnail } = stored
  const read = readScene(stored)
  const entry = { id, edited, thumbnail, hasAside: stored.setAside !== undefined }
  return 'scene' in read ? { ...entry, scene: read.scene } : { ...entry, problem: read.problem }
}

interface ReadScene {
  readonly scene: CheckedScene
  /** What of the newest document could not be read, in words; undefined if all of it could. */
  readonly leftOut?: readonly string[]
}

/** The newest document; or that with as little changed as makes it valid; or the last one that was. */
function readScene(stored: StoredScene): ReadScene | { readonly problem: string } {
  const version = (stored.document as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > SCENE_VERSION) {
    return { problem: `This scene was made by a newer Welkinar (version ${version}).` }
  }
  const document = upgradeDocument(stored.document)
  const newest = checkedScene(document)
  if (!(newest instanceof Refusal)) return { scene: newest }
  const mended = mend(sceneSchema, document)
  const whole = mended && checkedScene(mended.value)
  if (mended && whole && !(whole instanceof Refusal)) return { scene: whole, leftOut: mended.changes }
  const before = stored.lastValid === undefined ? newest : checkedScene(upgradeDocument(stored.lastValid))
  if (!(before instanceof Refusal)) return { scene: before, leftOut: [`it is shown as it was before (${newest.reason})`] }
  return { problem: `This scene is damaged: ${newest.reason}.` }
}

/** A scene with its history, as it is opened. */
export interface LoadedScene extends ReadScene {
  readonly history: readonly HistoryEntry[]
  readonly position: number
  readonly revision: number
}

/** @throws UserProblem if the scene is not there or cannot be read at all */
export async function loadScene(id: string): Promise<LoadedScene> {
  return database.transaction('r', database.scenes, database.history, async () => {
    const stored = await database.scenes.get(id)
    if (!stored || stored.putAway !== undefined) throw new UserProblem('There is no scene at this address.')
    const read = readScene(stored)
    if ('problem' in read) throw new UserProblem(read.problem)
    const revision = stored.revision ?? 0
    // Steps of a document that had to be changed would lead elsewhere.
    if (read.leftOut) return { ...read, history: [], position: 0, revision }
    const entries = await ofScene(id).toArray()
    return { ...read, ...usableHistory(entries.map(upgraded), stored.position), revision }
  })
}

/** A picture of a scene that the browser can show at once: that of the Shelf, or the photo where nothing is done with it yet. */
export async function openingPictureOf(id: string): Promise<Blob | undefined> {
  const stored = await database.scenes.get(id)
  const read = stored && readScene(stored)
  if (!read || 'problem' in read) return undefined
  const { photo, effects, groundwork } = read.scene
  const isUntouched = effects.length === 0 && JSON.stringify(groundwork) === JSON.stringify(noGroundwork)
  const file = isUntouched ? (await database.photos.get(photo.id))?.file : undefined
  return file ?? stored?.thumbnail
}

/** The history as far as it is whole: entries that follow each other, those that can be undone counted by the position. */
function usableHistory(entries: readonly HistoryEntry[], position: number): Pick<LoadedScene, 'history' | 'position'> {
  const sound = entries.every((entry, at) => isEntry(entry) && entry.index === (entries[0]?.index ?? 0) + at)
  return sound && position >= 0 && position <= entries.length ? { history: entries, position } : { history: [], position: 0 }
}

function isEntry(entry: HistoryEntry): boolean {
  return Array.isArray(entry.patches) && Array.isArray(entry.inverse)
}

function ofScene(id: string) {
  return database.history.where('[sceneId+index]').between([id, -Infinity], [id, Infinity])
}

/** Entries may be older than the document that they lead to. */
function upgraded(entry: HistoryEntry): HistoryEntry {
  return { ...entry, patches: upgradeFromVersion1(entry.patches) as Patch[], inverse: upgradeFromVersion1(entry.inverse) as Patch[] }
}

/** Notes that a scene was found valid; or keeps what could not be read beside what is shown of it. */
export async function noteOpened(loaded: LoadedScene): Promise<void> {
  const { id } = loaded.scene
  await database.transaction('rw', database.scenes, database.history, async () => {
    const stored = await database.scenes.get(id)
    if (!stored) return
    if (!loaded.leftOut) return void (await database.scenes.update(id, { lastValid: stored.document }))
    const setAside = stored.setAside ?? { document: stored.document, history: await ofScene(id).toArray() }
    await ofScene(id).delete()
    await database.scenes.put({ ...stored, document: loaded.scene, position: 0, revision: (stored.revision ?? 0) + 1, setAside })
  })
}

/** What of a scene could not be read, as it is stored; undefined if there is nothing of that. */
export async function unreadable(id: string): Promise<unknown> {
  const stored = await database.scenes.get(id)
  return stored && (stored.setAside ?? ('problem' in readScene(stored) ? { document: stored.document } : undefined))
}

/** A scene is saved by someone who has not seen what is stored now. */
export class SceneConflict extends Error {}

/** A scene with its history, as it is saved. */
export interface SavedScene {
  readonly scene: CheckedScene
  readonly entries: readonly HistoryEntry[]
  readonly position: number
}

/**
 * Writes a scene and its history entries from `firstChanged` on, in one transaction.
 * @param revision the one that was read or written last
 * @returns the new revision
 * @throws SceneConflict if another tab has written or removed it since
 */
export async function saveScene({ scene, entries, position }: SavedScene, firstChanged: number, revision: number): Promise<number> {
  const next = revision + 1
  await database.transaction('rw', database.scenes, database.history, async () => {
    const stored = await database.scenes.get(scene.id)
    if (!stored || stored.putAway !== undefined) throw new SceneConflict('The scene was deleted in another tab.')
    if ((stored.revision ?? 0) !== revision) throw new SceneConflict('The scene was changed in another tab.')
    await database.scenes.put({ ...stored, document: scene, edited: scene.edited, position, revision: next })
    const first = entries[0]?.index ?? 0
    await database.history.where('[sceneId+index]').between([scene.id, firstChanged], [scene.id, Infinity]).delete()
    await database.history.where('[sceneId+index]').between([scene.id, -Infinity], [scene.id, first], true, false).delete()
    await database.history.bulkPut(entries.filter((entry) => entry.index >= firstChanged))
  })
  announceSaved(scene.id)
  return next
}

/** Stores scenes that are new here with the pictures they need, all of them or none. `unless` a setting says that it was done. */
export async function addScenes(
  scenes: readonly { readonly scene: CheckedScene; readonly thumbnail?: Blob }[],
  pictures: readonly StoredPhoto[],
  once?: string,
): Promise<void> {
  await database.transaction('rw', database.scenes, database.photos, database.settings, async () => {
    if (once !== undefined && (await database.settings.get(once))) return
    await database.photos.bulkPut(pictures.map((picture) => ({ ...picture, added: Date.now() })))
    await database.scenes.bulkPut(
      scenes.map(({ scene, thumbnail }) => ({ id: scene.id, document: scene, edited: scene.edited, position: 0, revision: 0, thumbnail })),
    )
    if (once !== undefined) await database.settings.put({ name: once, value: true })
  })
}

export async function saveThumbnail(id: string, thumbnail: Blob): Promise<void> {
  await database.scenes.update(id, { thumbnail })
}

/** @throws UserProblem if the scene is open in a tab, or the name is none */
export async function renameScene(id: string, name: string): Promise<void> {
  await withSceneLock(id, () =>
    database.transaction('rw', database.scenes, async () => {
      const stored = await database.scenes.get(id)
      const read = stored && readScene(stored)
      if (!stored || !read || 'problem' in read) throw new UserProblem('This scene cannot be renamed: it cannot be read.')
      const renamed = checkedScene({ ...read.scene, name })
      if (renamed instanceof Refusal) throw new UserProblem(`This name cannot be taken: ${renamed.reason}.`)
      await database.scenes.put({ ...stored, document: renamed, revision: (stored.revision ?? 0) + 1 })
    }),
  )
}

/** A copy with a history of its own. Returns its id. */
export async function duplicateScene(id: string, now: number): Promise<string> {
  const { scene } = await loadScene(id)
  const stored = await database.scenes.get(id)
  const copy = { ...scene, id: crypto.randomUUID(), name: `${scene.name}, copy`.slice(0, 120), created: now, edited: now }
  await addScenes([{ scene: copy, ...(stored?.thumbnail ? { thumbnail: stored.thumbnail } : {}) }], [])
  return copy.id
}

/** Puts a scene away; `restoreScene` brings it back until a later start. @throws UserProblem if it is open in a tab */
export async function putAwayScene(id: string, now: number): Promise<void> {
  await withSceneLock(id, () => database.scenes.update(id, { putAway: now }))
}

/** @throws UserProblem if it was removed for good since */
export async function restoreScene(id: string): Promise<void> {
  if ((await database.scenes.update(id, { putAway: undefined })) === 0) {
    throw new UserProblem('The scene cannot be brought back: it was removed for good.')
  }
}

/** For so long what was put away can be brought back, also while another tab starts. */
const RETURN_MS = 60_000

/** Removes what was put away, with its history and the pictures that were in it and nowhere else. */
export async function removePutAway(now: number): Promise<void> {
  await database.transaction('rw', database.scenes, database.history, database.photos, async () => {
    const all = await database.scenes.toArray()
    const gone = all.filter(({ putAway }) => putAway !== undefined && putAway < now - RETURN_MS)
    if (gone.length === 0) return
    const lost = JSON.stringify([gone, ...(await Promise.all(gone.map(({ id }) => ofScene(id).toArray())))])
    await database.scenes.bulkDelete(gone.map(({ id }) => id))
    for (const { id } of gone) await ofScene(id).delete()
    // A picture may be used by the photo, a mask or the depth of another scene, or come back there by an undo.
    const used = JSON.stringify([all.filter((one) => !gone.includes(one)), await database.history.toArray()])
    const pictures = await database.photos.toCollection().primaryKeys()
    await database.photos.bulkDelete(pictures.filter((id) => lost.includes(`"${id}"`) && !used.includes(`"${id}"`)))
  })
}
