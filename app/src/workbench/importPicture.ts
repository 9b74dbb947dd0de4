import type { PictureReference } from '@welkinar/core'
import { chooseFile } from '../common/files'
import { leaseFile } from '../engine/photos'
import { openedScene } from '../scene/openScene'
import { photoId, savePhotoFile } from '../storage/photos'

/**
 * Lets the person choose a picture file, keeps it beside the scenes, and holds it in the threads as long as the scene is open.
 * @throws UserProblem if it cannot be read; nothing is stored then
 */
export async function importPicture(): Promise<PictureReference | undefined> {
  const scene = openedScene()
  const file = await chooseFile('image/png,image/jpeg,image/webp,image/avif,.png,.jpg,.jpeg,.webp,.avif')
  if (!file || !scene) return undefined
  const id = await photoId(file)
  const lease = leaseFile(id, file, file.name, false)
  try {
    const { width, height } = await lease.opened
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
