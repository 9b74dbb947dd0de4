import { UserProblem, type Size } from '@welkinar/core'
import { loadPhotoFile } from '../storage/photos'
import { renderPool } from './engine'

/** A photo that the render threads hold. */
export interface OpenPhoto extends Size {
  readonly id: string
  readonly notices: readonly string[]
}

/** The file is over the size limit; it can be opened reduced. */
export class PhotoTooLarge extends UserProblem {}

/** Photos and pictures that the threads keep besides those in use. */
const MOST_SPARE = 1
const open = new Map<string, Promise<OpenPhoto>>()

/** Decodes a photo file in the threads. @throws UserProblem saying what is wrong with the file */
export async function decodeInThreads(id: string, file: Blob, fileName: string, reduce: boolean): Promise<OpenPhoto> {
  const pool = await renderPool()
  const bytes = new Uint8Array(await file.arrayBuffer())
  const opened = await pool.openPhoto(id, bytes, fileName, reduce)
  if ('problem' in opened) throw opened.tooLarge ? new PhotoTooLarge(opened.problem) : new UserProblem(opened.problem)
  const { width, height } = opened.photo
  return { id, width, height, notices: opened.notices }
}

/**
 * A stored photo or picture, decoded once. It is held with the others that are `inUse` and the last one besides.
 * @throws UserProblem if it is gone or damaged
 */
export function holdPhoto(id: string, inUse: readonly string[] = []): Promise<OpenPhoto> {
  const known = open.get(id)
  open.delete(id)
  const opening = known ?? openStored(id)
  open.set(id, opening)
  opening.catch(() => open.delete(id))
  const spare = [...open.keys()].filter((other) => other !== id && !inUse.includes(other))
  for (const old of spare.slice(0, Math.max(0, spare.length - MOST_SPARE))) {
    open.delete(old)
    void renderPool().then((pool) => pool.dropPhoto(old))
  }
  return opening
}

/** Notes that the threads hold a photo already, because it has just been decoded. */
export function rememberOpen(photo: OpenPhoto): void {
  open.set(photo.id, Promise.resolve(photo))
}

async function openStored(id: string): Promise<OpenPhoto> {
  const stored = await loadPhotoFile(id)
  if (!stored) throw new UserProblem('The photo of this scene is no longer in this browser’s storage.')
  return decodeInThreads(id, stored.file, stored.fileName, stored.reduced)
}
