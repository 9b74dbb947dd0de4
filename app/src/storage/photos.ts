import { database, type StoredPhoto } from './database'

/** Id of a photo file: the SHA-256 of its bytes, so that the same file is kept once. */
export async function photoId(file: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

export async function savePhotoFile(photo: StoredPhoto): Promise<void> {
  await database.photos.put({ ...photo, added: Date.now() })
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

/** The pictures that neither a scene nor a step that can be undone refers to. */
export function unusedPictures(): Promise<UnusedPictures> {
  return database.transaction('r', database.scenes, database.history, database.photos, findUnused)
}

/** Removes the pictures that nothing uses. */
export async function clearUnusedPictures(): Promise<void> {
  await database.transaction('rw', database.scenes, database.history, database.photos, async () => {
    await database.photos.bulkDelete([...(await findUnused()).ids])
  })
}

async function findUnused(): Promise<UnusedPictures> {
  const used = JSON.stringify([await database.scenes.toArray(), await database.history.toArray()])
  const old = Date.now() - NEW_MS
  const unused: { readonly id: string; readonly bytes: number }[] = []
  await database.photos.each(({ id, file, added = 0 }) => {
    if (added < old && !used.includes(JSON.stringify(id))) unused.push({ id, bytes: file.size })
  })
  return { ids: unused.map(({ id }) => id), bytes: unused.reduce((sum, { bytes }) => sum + bytes, 0) }
}
