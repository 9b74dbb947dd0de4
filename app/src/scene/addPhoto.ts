import {
  checkedScene,
  emptyStack,
  inColourId,
  layRecipe,
  noGroundwork,
  noMarks,
  notRead,
  Refusal,
  documentVersion,
  UserProblem,
  type CheckedScene,
  type Scene,
  type Size,
  type Stack,
  untouched,
  wideId,
} from '@welkinar/core'
import type { RecipeSource } from '@welkinar/core/recipes'
import { renderPool } from '../engine/engine'
import { leaseFile, type PhotoLease } from '../engine/photos'
import { isOutOfRoom } from '../storage/database'
import { photoId, readingId } from '../storage/photos'
import { addScenes } from '../storage/scenes'

type PhotoSize = Size & { readonly id: string }
type SceneParts = Stack & Partial<Pick<Scene, 'marks' | 'depth' | 'amount' | 'groundwork' | 'created' | 'edited'>>

interface NewScene {
  readonly id: string
  readonly notices: readonly string[]
}

/**
 * Makes a scene of a photo file: decodes it, stores file and scene.
 * @param reduce open a photo beyond the size limit at a size below it
 * @param recipe what is laid on it; then the photo is read first
 * @throws UserProblem with the file's name and the reason; nothing is stored then
 */
export async function addPhoto(file: File, reduce = false, recipe?: RecipeSource): Promise<NewScene> {
  if (file.size === 0) throw new UserProblem(`“${file.name}” cannot be opened: it is empty.`)
  const lease = await leaseInItsColours(file, reduce)
  try {
    const photo = await lease.opened
    const parts = recipe ? await laidParts(recipe, photo) : { ...emptyStack, marks: { ...noMarks, reading: notRead } }
    const scene = sceneOf(photo, file.name, nameFrom(file.name), parts)
    // The Workbench makes the picture for the Shelf; nobody waits for it here.
    await storeScene(scene, file, reduce)
    return { id: scene.id, notices: photo.notices }
  } finally {
    // The last one that was let go is kept for the Workbench, which opens next.
    lease.release()
  }
}

/** What a recipe makes of a photo, which is read for it. */
async function laidParts(source: RecipeSource, photo: PhotoSize): Promise<SceneParts> {
  const marks = { ...noMarks, reading: await (await renderPool()).readPhoto(photo.id) }
  const recipe = source.on(photo, marks)
  const { stack, groundwork } = layRecipe(recipe, photo, marks)
  return { ...stack, marks, amount: recipe.amount, groundwork: { ...noGroundwork, ...groundwork } }
}

/** Opens a photo in sRGB, or once more in the wider space if sRGB does not have its colours. */
async function leaseInItsColours(file: File, reduce: boolean): Promise<PhotoLease> {
  const id = await readingId(inColourId(await photoId(file)), reduce)
  const lease = leaseFile(id, file, file.name, reduce)
  const { wide } = await lease.opened.catch((error: unknown) => {
    lease.release()
    throw error
  })
  if (!wide) return lease
  lease.release()
  return leaseFile(await readingId(wideId(inColourId(await photoId(file))), reduce), file, file.name, reduce)
}

/** A scene document around a photo. @throws UserProblem if it is not a valid one */
export function sceneOf(photo: PhotoSize, fileName: string, name: string, parts: SceneParts = emptyStack): CheckedScene {
  const now = Date.now()
  const { id, width, height } = photo
  const scene = checkedScene({
    format: 'welkinar-scene',
    ...documentVersion,
    id: crypto.randomUUID(),
    name,
    created: now,
    edited: now,
    photo: { id, fileName, width, height },
    ...untouched,
    ...parts,
  })
  if (scene instanceof Refusal) throw new UserProblem(`No scene can be made of “${fileName}”: ${scene.reason}.`)
  return scene
}

/** Stores a scene with its photo, both or neither. */
async function storeScene(scene: CheckedScene, file: Blob, reduced: boolean): Promise<void> {
  const { id, fileName } = scene.photo
  try {
    await addScenes([{ scene }], [{ id, fileName, file, reduced }])
  } catch (error) {
    if (!isOutOfRoom(error)) throw error
    throw new UserProblem(
      `“${fileName}” cannot be stored: there is no room left in this browser’s storage. Delete scenes that you no longer need and try again.`,
    )
  }
}

function nameFrom(fileName: string): string {
  return fileName.replace(/\.[^.]+$/, '').slice(0, 120) || 'New scene'
}
