import { pictureIds, type PictureReference } from '@welkinar/core'
import { chooseFile } from '../common/files'
import { decodeInThreads, holdPhoto } from '../engine/photos'
import { useScene } from '../scene/sceneStore'
import { photoId, savePhotoFile } from '../storage/photos'

/**
 * Lets the person choose a picture file, and keeps it beside the scenes.
 * @param photo id of the scene's photo, which stays in the threads
 * @throws UserProblem if it cannot be read; nothing is stored then
 */
export async function importPicture(photo: string): Promise<PictureReference | undefined> {
  const file = await chooseFile('image/png,image/jpeg,image/webp,image/avif,.png,.jpg,.jpeg,.webp,.avif')
  if (!file) return undefined
  const id = await photoId(file)
  const { width, height } = await decodeInThreads(id, file, file.name, false)
  await savePhotoFile({ id, fileName: file.name, file, reduced: false })
  const scene = useScene.getState().history?.scene
  await holdPhoto(id, [photo, ...pictureIds({ ...scene, photo: null })])
  return { id, fileName: file.name, width, height }
}
