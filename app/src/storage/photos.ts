import { database, type StoredPhoto } from './database'

/** Id of a photo file: the SHA-256 of its bytes, so that the same file is kept once. */
export async function photoId(file: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

export async function savePhotoFile(photo: StoredPhoto): Promise<void> {
  await database.photos.put(photo)
}

export function loadPhotoFile(id: string): Promise<StoredPhoto | undefined> {
  return database.photos.get(id)
}
