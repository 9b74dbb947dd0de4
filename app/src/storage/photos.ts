import { reducedId } from '@welkinar/core'
import { database, type StoredPhoto } from './database'

/** Id of a photo file: the SHA-256 of its bytes, so that the same file is kept once. */
export async function photoId(file: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** Stores a picture, unless it is there: a record is never written over, since scenes mean just that reading of the file. */
export async function addPicture(picture: StoredPhoto): Promise<void> {
  await database.transaction('rw', database.photos, async () => {
    const stored = await database.photos.get(picture.id)
    if (stored && stored.reduced !== picture.reduced) throw new Error(`The picture ${picture.id} is stored as it is read in another way.`)
    // One that is wanted again is not among the unused for a while.
    await database.photos.put({ ...(stored ?? picture), added: Date.now() })
  })
}

/** The id for a reading of a file: one that is taken by another reading, of an earlier build, gets a suffix. */
export async function readingId(id: string, reduced: boolean): Promise<string> {
  const wanted = reduced ? reducedId(id) : id
  const stored = await database.photos.get(wanted)
  return stored && stored.reduced !== reduced ? `${wanted}.again` : wanted
}

export function loadPhotoFile(id: string): Promise<StoredPhoto | undefined> {
  return database.photos.get(id)
}

/** A picture that was stored so short a time ago may be on its way into a scene of another tab. */
const NEW_MS = 10 * 60_000

/** Pictures that nothing uses. */
export interface UnusedPictures {
  readonly ids: readonly string[]
  readonly bytes: number
}

/** The pictures that nothing refers to: no scene, no step that can be undone, nothing that was set aside. */
export function unusedPictures(): Promise<UnusedPictures> {
  return database.transaction('r', database.tables, findUnused)
}

/** Removes the pictures that nothing uses. */
export async function clearUnusedPictures(): Promise<void> {
  await database.transaction('rw', database.tables, async () => {
    await database.photos.bulkDelete([...(await findUnused()).ids])
  })
}

/** Says of each picture whether anything that is stored refers to it, in whatever table. Within a transaction over all. */
export async function idsInUse(): Promise<(id: string) => boolean> {
  const referring = database.tables.filter(({ name }) => name !== 'photos')
  const used = JSON.stringify(await Promise.all(referring.map((table) => table.toArray())))
  return (id) => used.includes(JSON.stringify(id))
}

async function findUnused(): Promise<UnusedPictures> {
  const isUsed = await idsInUse()
  const old = Date.now() - NEW_MS
  const unused: { readonly id: string; readonly bytes: number }[] = []
  await database.photos.each(({ id, file, added = 0 }) => {
    if (added < old && !isUsed(id)) unused.push({ id, bytes: file.size })
  })
  return { ids: unused.map(({ id }) => id), bytes: unused.reduce((sum, { bytes }) => sum + bytes, 0) }
}
