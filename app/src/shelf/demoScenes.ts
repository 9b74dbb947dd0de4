import { marksFor, parseMarks, parseRecipe, stackFor, type DepthPicture, type MarksFile } from '@welkinar/core'
import { renderPool } from '../engine/engine'
import { decodeInThreads } from '../engine/photos'
import { database } from '../storage/database'
import { photoId, savePhotoFile } from '../storage/photos'
import { renderThumbnail } from '../workbench/useThumbnail'
import { sceneOf, storeScene } from './addPhoto'

/** The finished scenes that are on the Shelf at the first start. */
const demoScenes = [
  { photo: 'headland.jpg', recipe: 'passing-shower.recipe.json', marks: 'headland.marks.json' },
  { photo: 'ferry-quay.jpg', recipe: 'last-crossing.recipe.json', marks: 'ferry-quay.marks.json' },
]

const SETTING = 'demo scenes added'

/** Puts the demo scenes on the Shelf, once for each browser. */
export async function addDemoScenes(): Promise<void> {
  if (await database.settings.get(SETTING)) return
  for (const demo of demoScenes) await addDemoScene(demo)
  await database.settings.put({ name: SETTING, value: true })
}

async function addDemoScene(demo: (typeof demoScenes)[number]): Promise<void> {
  const [file, recipeText, marksText] = await Promise.all([
    fetchDemo(demo.photo).then((response) => response.blob()),
    fetchDemo(demo.recipe).then((response) => response.text()),
    fetchDemo(demo.marks).then((response) => response.text()),
  ])
  const photo = await decodeInThreads(await photoId(file), file, demo.photo, false)
  const recipe = parseRecipe(recipeText, demo.recipe)
  const marks = parseMarks(marksText, demo.marks)
  const plain = sceneOf(photo, demo.photo, recipe.name, stackFor(recipe, photo))
  const scene = { ...plain, marks: marksFor(marks, photo), depth: await demoDepth(marks) }
  await storeScene(scene, file, photo, { thumbnail: await renderThumbnail(await renderPool(), scene) })
}

/** The depth picture of a demo photo, stored and in the threads. */
async function demoDepth({ depth }: MarksFile): Promise<DepthPicture | null> {
  if (!depth) return null
  const { file: name, ...rest } = depth
  const file = await (await fetchDemo(name)).blob()
  const id = await photoId(file)
  const { width, height } = await decodeInThreads(id, file, name, false)
  await savePhotoFile({ id, fileName: name, file, reduced: false })
  return { ...rest, picture: { id, fileName: name, width, height } }
}

async function fetchDemo(name: string): Promise<Response> {
  const response = await fetch(`/demo/${name}`)
  if (!response.ok) throw new Error(`The demo file ${name} is missing (${response.status}).`)
  return response
}
