import { parseRecipe, stackFor } from '@welkinar/core'
import { renderPool } from '../engine/engine'
import { decodeInThreads } from '../engine/photos'
import { database } from '../storage/database'
import { photoId } from '../storage/photos'
import { renderThumbnail } from '../workbench/useThumbnail'
import { sceneOf, storeScene } from './addPhoto'

/** The finished scenes that are on the Shelf at the first start. */
const demoScenes = [{ photo: 'ferry-quay.jpg', recipe: 'last-crossing.recipe.json' }]

const SETTING = 'demo scenes added'

/** Puts the demo scenes on the Shelf, once for each browser. */
export async function addDemoScenes(): Promise<void> {
  if (await database.settings.get(SETTING)) return
  for (const { photo: photoName, recipe: recipeName } of demoScenes) {
    const [file, recipeText] = await Promise.all([fetchDemo(photoName).then((r) => r.blob()), fetchDemo(recipeName).then((r) => r.text())])
    const photo = await decodeInThreads(await photoId(file), file, photoName, false)
    const recipe = parseRecipe(recipeText, recipeName)
    const scene = sceneOf(photo, photoName, recipe.name, stackFor(recipe, photo))
    await storeScene(scene, file, photo, { thumbnail: await renderThumbnail(await renderPool(), scene) })
  }
  await database.settings.put({ name: SETTING, value: true })
}

async function fetchDemo(name: string): Promise<Response> {
  const response = await fetch(`/demo/${name}`)
  if (!response.ok) throw new Error(`The demo file ${name} is missing (${response.status}).`)
  return response
}
