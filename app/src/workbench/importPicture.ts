import { cutOutId, inColourId, type PictureReference } from '@welkinar/core'
import { chooseFile } from '../common/files'
import { leaseFile, type PhotoLease } from '../engine/photos'
import { openedScene } from '../scene/openScene'
import { photoId, savePhotoFile } from '../storage/photos'

/** What of a picture counts: the codes of its file, on white, as a mask reads them; or what is seen of it: its colours, by its profile, without what is transparent. */
export type PictureUse = 'codes' | 'seen'

/**
 * Lets the person choose a picture file, keeps it beside the scenes, and holds it in the threads as long as the scene is open.
 * @throws UserProblem if it cannot be read; nothing is stored then
 */
export async function importPicture(use: PictureUse = 'codes'): Promise<PictureReference | undefined> {
  const scene = openedScene()
  const file = await chooseFile('image/png,image/jpeg,image/webp,image/avif,.png,.jpg,.jpeg,.webp,.avif')
  if (!file || !scene) return undefined
  const lease = await (use === 'seen' ? leaseSeen(file) : leaseFile(await photoId(file), file, file.name, false))
  try {
    const { id, width, height } = await lease.opened
    await savePhotoFile({ id, fileName: file.name, file, reduced: false })
    // Another scene may have been opened meanwhile.
    if (openedScene() !== scene) return undefined
    scene.pictures.keep(id, lease)
    return { id, fileName: file.name, width, height }
  } catch (error) {
    lease.release()
    throw error
  }
}

/** What is seen of a picture: cut out if parts of it are transparent. */
async function leaseSeen(file: File): Promise<PhotoLease> {
  const inColour = inColourId(await photoId(file))
  const cutOut = leaseFile(cutOutId(inColour), file, file.name, false)
  const transparent = await cutOut.opened.then((opened) => opened.transparent).catch(() => false)
  if (transparent) return cutOut
  cutOut.release()
  return leaseFile(inColour, file, file.name, false)
}
