import { checkedScene, noGroundwork, Refusal, upgradePart, UserProblem, type CheckedScene, type Scene } from '@welkinar/core'
import type { Patch } from 'immer'
import { database, type HistoryEntry, type StoredPhoto, type StoredScene } from './database'
import { addPicture, idsInUse } from './photos'
import { readScene, type ReadScene } from './readScene'
import { announceSaved, withSceneLock } from './sceneLock'
import { setAside, versionOf } from './setAside'

/** A scene of the Shelf: the document, or why it cannot be read. */
export interface ShelfEntry {
  readonly id: string
  readonly edited: number
  readonly thumbnail: Blob | undefined
  readonly scene?: CheckedScene
  readonly problem?: string
  /** Whether a newer build made it, so that it may only be looked at. */
  readonly isNewer: boolean
}

/** All scenes, newest first. */
export async function listScenes(): Promise<ShelfEntry[]> {
  const stored = await database.scenes.orderBy('edited').reverse().toArray()
  return stored.filter((one) => one.putAway === undefined).map(toEntry)
}

function toEntry(stored: StoredScene): ShelfEntry {
  const { id, edited, thumbnail } = stored
  const read = readScene(stored)
  const entry = { id, edited, thumbnail, isNewer: 'scene' in read && read.newer === true }
  return 'scene' in read ? { ...entry, scene: read.scene } : { ...entry, problem: read.problem }
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
    const entries = (await ofScene(id).toArray()).map(upgraded)
    if (isWhole(entries, stored.position)) return { ...read, history: entries, position: stored.position, revision }
    return { ...read, history: [], position: 0, revision, leftOut: ['the steps that led to it are not whole, so undo begins anew'] }
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

/** Whether all entries are there, following each other, those that can be undone counted by the position. */
function isWhole(entries: readonly HistoryEntry[], position: number): boolean {
  const sound = entries.every((entry, at) => isEntry(entry) && entry.index === (entries[0]?.index ?? 0) + at)
  return sound && position >= 0 && position <= entries.length
}

function isEntry(entry: HistoryEntry): boolean {
  return Array.isArray(entry.patches) && Array.isArray(entry.inverse)
}

function ofScene(id: string) {
  return database.history.where('[sceneId+index]').between([id, -Infinity], [id, Infinity])
}

/** Entries may be older than the document that they lead to. */
function upgraded(entry: HistoryEntry): HistoryEntry {
  return { ...entry, patches: upgradePart(entry.patches) as Patch[], inverse: upgradePart(entry.inverse) as Patch[] }
}

/**
 * Puts a document in the place of one that was read. The one way to write over a stored document outside the history: what of it could not be read is set aside first. Within a
 * transaction over scenes, history and what is set aside.
 */
async function putInPlace(stored: StoredScene, scene: CheckedScene, leftOut: readonly string[] | undefined): Promise<void> {
  const revision = (stored.revision ?? 0) + 1
  if (!leftOut) return void (await database.scenes.put({ ...stored, document: scene, revision }))
  await setAside(stored, await ofScene(stored.id).toArray(), leftOut, Date.now())
  await ofScene(stored.id).delete()
  await database.scenes.put({ ...stored, document: scene, position: 0, revision })
}

/**
 * Notes that a scene was found valid; or stores what is shown of it, and sets aside what was there.
 * @throws SceneConflict if another tab has written or removed it since it was loaded
 */
export async function noteOpened({ scene, leftOut, revision }: LoadedScene): Promise<void> {
  const { id } = scene
  await database.transaction('rw', database.scenes, database.history, database.setAside, async () => {
    const stored = await database.scenes.get(id)
    if (!stored || (stored.revision ?? 0) !== revision) throw new SceneConflict('The scene was changed in another tab.')
    if (leftOut) await putInPlace(stored, scene, leftOut)
    else await database.scenes.update(id, { lastValid: stored.document })
  })
}

/** What is stored of a scene that cannot be read at all. */
export async function unreadable(id: string): Promise<unknown> {
  const stored = await database.scenes.get(id)
  return stored && { document: stored.document, lastValid: stored.lastValid, history: await ofScene(id).toArray() }
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
    for (const picture of pictures) await addPicture(picture)
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
    database.transaction('rw', database.scenes, database.history, database.setAside, async () => {
      const stored = await database.scenes.get(id)
      const read = stored && readScene(stored)
      if (!stored || !read || 'problem' in read) throw new UserProblem('This scene cannot be renamed: it cannot be read.')
      if (read.newer) throw new UserProblem('This scene was made by a newer Welkinar; this one cannot rename it.')
      const renamed = checkedScene({ ...read.scene, name })
      if (renamed instanceof Refusal) throw new UserProblem(`This name cannot be taken: ${renamed.reason}.`)
      await putInPlace(stored, renamed, read.leftOut)
    }),
  )
}

/** A copy with a history of its own. Returns its id. @throws UserProblem if it cannot be read, or a newer build made it */
export async function duplicateScene(id: string, now: number): Promise<string> {
  const { scene, newer } = await loadScene(id)
  if (newer) throw new UserProblem('This scene was made by a newer Welkinar; this one cannot copy it whole.')
  const stored = await database.scenes.get(id)
  return addCopy(scene, 'copy', now, stored?.thumbnail)
}

/** Makes a scene of its own of as much as can be read of a version that was set aside; that stays where it is. Returns the id of the scene. @throws UserProblem if nothing can be read */
export async function openSetAside(id: number, now: number): Promise<string> {
  const read = readScene(await versionOf(id))
  if ('problem' in read) throw new UserProblem(`${read.problem} Save it as a file instead.`)
  return addCopy(read.scene, 'set aside', now)
}

/** A scene like another, with a history of its own. Returns its id. @throws UserProblem if it is not valid */
export async function addSceneLike(scene: Scene, what: string, now: number): Promise<string> {
  const checked = checkedScene(scene)
  if (checked instanceof Refusal) throw new UserProblem(`It cannot be kept: ${checked.reason}.`)
  return addCopy(checked, what, now)
}

async function addCopy(scene: CheckedScene, what: string, now: number, thumbnail?: Blob): Promise<string> {
  const copy = { ...scene, id: crypto.randomUUID(), name: `${scene.name}, ${what}`.slice(0, 120), created: now, edited: now }
  await addScenes([{ scene: copy, ...(thumbnail ? { thumbnail } : {}) }], [])
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

/** Removes what was put away, with its history, its states and the pictures that were in it and nowhere else. What was set aside of it stays. */
export async function removePutAway(now: number): Promise<void> {
  await database.transaction('rw', database.tables, async () => {
    const all = await database.scenes.toArray()
    const gone = all.filter(({ putAway }) => putAway !== undefined && putAway < now - RETURN_MS)
    if (gone.length === 0) return
    const states = database.states.where('sceneId').anyOf(gone.map(({ id }) => id))
    const lost = JSON.stringify([gone, await states.toArray(), ...(await Promise.all(gone.map(({ id }) => ofScene(id).toArray())))])
    await states.delete()
    await database.scenes.bulkDelete(gone.map(({ id }) => id))
    for (const { id } of gone) await ofScene(id).delete()
    // A picture may be used by the photo, a mask or the depth of another scene, or come back there by an undo.
    const isUsed = await idsInUse()
    const pictures = await database.photos.toCollection().primaryKeys()
    await database.photos.bulkDelete(pictures.filter((id) => lost.includes(JSON.stringify(id)) && !isUsed(id)))
  })
}
