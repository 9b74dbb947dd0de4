import { UserProblem, type PictureReference, type Size } from '@welkinar/core'
import type { Reduce } from '@welkinar/core/pool'
import { loadPhotoFile } from '../storage/photos'
import { renderPool } from './engine'

/** A photo that the render threads hold. */
interface OpenPhoto extends Size {
  readonly id: string
  readonly transparent: boolean
  /** Whether it has colours that were cut off at the border of sRGB. */
  readonly wide: boolean
  readonly notices: readonly string[]
}

/** The file is over the size limit; it can be opened reduced. */
export class PhotoTooLarge extends UserProblem {}

interface Held {
  leases: number
  readonly opened: Promise<OpenPhoto>
}

/** Pictures that the threads keep though nobody holds them any more: the one that was let go last is often the next one. */
const MOST_SPARE = 1
const held = new Map<string, Held>()

/** The right to a photo in the threads, until it is given back. */
export interface PhotoLease {
  /** @throws UserProblem if it is gone or damaged */
  readonly opened: Promise<OpenPhoto>
  release(): void
}

/** Holds a stored photo or picture in the threads; it is decoded once. The reference says at which size it is meant. */
export function leasePhoto(reference: PictureReference): PhotoLease {
  return lease(reference.id, () => openStored(reference))
}

/** Decodes a photo file that is not stored yet, and holds it. @param reduce what to do with one beyond the size limit */
export function leaseFile(id: string, file: Blob, fileName: string, reduce: Reduce): PhotoLease {
  return lease(id, () => decodeInThreads(id, file, fileName, reduce))
}

function lease(id: string, open: () => Promise<OpenPhoto>): PhotoLease {
  let one = held.get(id)
  if (!one) {
    const opening: Held = { leases: 0, opened: open() }
    opening.opened.catch(() => held.get(id) === opening && held.delete(id))
    held.set(id, opening)
    one = opening
  }
  one.leases++
  let given = false
  const release = (): void => {
    if (given) return
    given = true
    giveBack(id, one)
  }
  return { opened: one.opened, release }
}

function giveBack(id: string, one: Held): void {
  one.leases--
  if (held.get(id) !== one || one.leases > 0) return
  // It goes to the end of those that are spare.
  held.delete(id)
  held.set(id, one)
  const spare = [...held].filter(([, { leases }]) => leases === 0)
  for (const [old] of spare.slice(0, Math.max(0, spare.length - MOST_SPARE))) {
    held.delete(old)
    renderPool()
      .then((pool) => pool.dropPhoto(old))
      .catch((error: unknown) => console.error(error))
  }
}

/** Whether one was reduced is told by the size that the scene has: an earlier build could lose what was noted of that. */
async function openStored({ id, width, height }: PictureReference): Promise<OpenPhoto> {
  const stored = await loadPhotoFile(id)
  if (!stored) throw new UserProblem('The photo of this scene is no longer in this browser’s storage.')
  return decodeInThreads(id, stored.file, stored.fileName, { width, height })
}

async function decodeInThreads(id: string, file: Blob, fileName: string, reduce: Reduce): Promise<OpenPhoto> {
  const pool = await renderPool()
  const bytes = new Uint8Array(await file.arrayBuffer())
  const opened = await pool.openPhoto(id, bytes, fileName, reduce)
  if ('problem' in opened) throw opened.tooLarge ? new PhotoTooLarge(opened.problem) : new UserProblem(opened.problem)
  const { photo, transparent, wide, notices } = opened
  return { id, width: photo.width, height: photo.height, transparent, wide, notices }
}
