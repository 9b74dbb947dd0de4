import { emptyStack, noMarks, SCENE_VERSION, type Scene, type Size, type Stack } from '@welkinar/core'
import { decodeInThreads, rememberOpen, type OpenPhoto } from '../engine/photos'
import { photoId, savePhotoFile } from '../storage/photos'
import { addScene } from '../storage/scenes'
import { isOutOfRoom } from '../storage/database'
import { UserProblem } from '@welkinar/core'

interface NewScene {
  readonly id: string
  readonly notices: readonly string[]
}

/**
 * Makes a scene of a photo file: decodes it, stores file and scene.
 * @param reduce open a photo beyond the size limit at a size below it
 * @throws UserProblem with the file's name and the reason; nothing is stored then
 */
export async function addPhoto(file: File, reduce = false): Promise<NewScene> {
  if (file.size === 0) throw new UserProblem(`“${file.name}” cannot be opened: it is empty.`)
  const id = await photoId(file)
  const photo = await decodeInThreads(id, file, file.name, reduce)
  const scene = sceneOf(photo, file.name, nameFrom(file.name))
  // The Workbench makes the picture for the Shelf; nobody waits for it here.
  await storeScene(scene, file, photo, reduce)
  return { id: scene.id, notices: photo.notices }
}

/** A scene document around a photo. */
export function sceneOf(photo: Size & { readonly id: string }, fileName: string, name: string, stack: Stack = emptyStack): Scene {
  const now = Date.now()
  const { id, width, height } = photo
  return {
    format: 'welkinar-scene',
    version: SCENE_VERSION,
    id: crypto.randomUUID(),
    name,
    created: now,
    edited: now,
    photo: { id, fileName, width, height },
    marks: noMarks,
    depth: null,
    ...stack,
  }
}

/** Stores a scene with its photo, which the threads hold already. */
async function storeScene(scene: Scene, file: Blob, photo: OpenPhoto, reduced: boolean): Promise<void> {
  rememberOpen(photo)
  try {
    await savePhotoFile({ id: photo.id, fileName: scene.photo.fileName, file, reduced })
    await addScene(scene)
  } catch (error) {
    if (!isOutOfRoom(error)) throw error
    throw new UserProblem(
      `“${scene.photo.fileName}” cannot be stored: there is no room left in this browser’s storage. Delete scenes that you no longer need and try again.`,
    )
  }
}

function nameFrom(fileName: string): string {
  return fileName.replace(/\.[^.]+$/, '').slice(0, 120) || 'New scene'
}
