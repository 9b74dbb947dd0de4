import { cutOutId, inColourId, type PictureReference } from '@welkinar/core'
import { chooseFile } from '../../common/files'
import { showNotice } from '../../common/notices'
import { leaseFile, PhotoTooLarge, type PhotoLease } from '../../engine/photos'
import { openedScene } from '../../scene/openScene'
import { addPicture, photoId, readingId } from '../../storage/photos'

/** What of a picture counts: the codes of its file, on white, as a mask reads them; or what is seen of it: its colours, by its profile, without what is transparent. */
export type PictureUse = 'codes' | 'seen'

const ENDINGS = 'image/png,image/jpeg,image/webp,image/avif,image/heic,image/tiff,.png,.jpg,.jpeg,.webp,.avif,.heic,.heif,.tif,.tiff'

/**
 * Lets the person choose a picture file, keeps it beside the scenes, and holds it in the threads as long as the scene is open. One over the size limit is reduced, which is said.
 * @throws UserProblem if it cannot be read; nothing is stored then
 */
export async function importPicture(use: PictureUse = 'codes'): Promise<PictureReference | undefined> {
  const scene = openedScene()
  const file = await chooseFile(ENDINGS)
  if (!file || !scene) return undefined
  const { lease, reduced } = await leaseAtAnySize(file, use)
  try {
    const { id, width, height } = await lease.opened
    await addPicture({ id, fileName: file.name, file, reduced })
    if (reduced) showNotice(`“${file.name}” is over the size limit; it was opened at ${width} × ${height} px.`)
    // Another scene may have been opened meanwhile.
    if (openedScene() !== scene) return undefined
    scene.pictures.keep(id, lease)
    return { id, fileName: file.name, width, height }
  } catch (error) {
    lease.release()
    throw error
  }
}

async function leaseAtAnySize(file: File, use: PictureUse): Promise<{ readonly lease: PhotoLease; readonly reduced: boolean }> {
  const take = use === 'seen' ? leaseSeen : leaseReading
  const id = use === 'seen' ? inColourId(await photoId(file)) : await photoId(file)
  const lease = await take(id, file, false)
  const reduced = await lease.opened.then(
    () => false,
    (error: unknown) => {
      if (error instanceof PhotoTooLarge) return true
      lease.release()
      throw error
    },
  )
  if (!reduced) return { lease, reduced }
  lease.release()
  return { lease: await take(id, file, true), reduced }
}

async function leaseReading(id: string, file: File, reduced: boolean): Promise<PhotoLease> {
  return leaseFile(await readingId(id, reduced), file, file.name, reduced)
}

/** What is seen of a picture: cut out if parts of it are transparent. */
async function leaseSeen(id: string, file: File, reduced: boolean): Promise<PhotoLease> {
  const cutOut = await leaseReading(cutOutId(id), file, reduced)
  const transparent = await cutOut.opened.then((opened) => opened.transparent).catch(() => false)
  if (transparent) return cutOut
  cutOut.release()
  return leaseReading(id, file, reduced)
}
