import { UserProblem } from '@welkinar/core'
import { database, type HistoryEntry, type SetAside, type StoredScene } from './database'

/** A version of a scene that was set aside, as the Shelf lists it. */
export interface SetAsideEntry {
  readonly id: number
  readonly name: string
  /** When it was set aside. */
  readonly when: number
  /** What of it could not be read, in words. */
  readonly why: readonly string[]
}

/** Keeps a stored scene as it is beside the scenes, until the person deletes it. Within a transaction over the table. */
export async function setAside(stored: StoredScene, history: readonly HistoryEntry[], why: readonly string[], now: number): Promise<void> {
  await database.setAside.add({
    sceneId: stored.id,
    name: nameOf(stored.document),
    when: now,
    why: [...why],
    document: stored.document,
    lastValid: stored.lastValid,
    history: [...history],
  })
}

/** What the person called a scene, whatever else of its document can be read. */
function nameOf(document: unknown): string {
  const name = (document as { name?: unknown } | null)?.name
  return typeof name === 'string' && name ? name.slice(0, 120) : 'A scene without a name'
}

/** All versions that were set aside, the last first. */
export async function listSetAside(): Promise<SetAsideEntry[]> {
  const all = await database.setAside.orderBy('when').reverse().toArray()
  return all.map(({ id = 0, name, when, why }) => ({ id, name, when, why }))
}

/** A version as it was stored, document and history. @throws UserProblem if it is not there any more */
export async function versionOf(id: number): Promise<SetAside> {
  const version = await database.setAside.get(id)
  if (!version) throw new UserProblem('This version is not there any more.')
  return version
}

/** Deletes a version. Returns it, so that it can be put back. */
export async function deleteSetAside(id: number): Promise<SetAside> {
  const version = await versionOf(id)
  await database.setAside.delete(id)
  return version
}

export async function putBackSetAside(version: SetAside): Promise<void> {
  await database.setAside.put(version)
}
