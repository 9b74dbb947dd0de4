import { marksFor, parseMarks, parseRecipe, stackFor, type DepthPicture, type MarksFile } from '@welkinar/core'
import { database } from '../storage/database'
import { photoId, savePhotoFile } from '../storage/photos'
import { addScene } from '../storage/scenes'
import { sceneOf } from './addPhoto'

/** The files of one finished scene: photo, recipe, marks with the name of the depth picture, and its picture for the Shelf. */
interface DemoScene {
  readonly photo: string
  readonly recipe: string
  readonly marks: string
  readonly card: string
}

const SETTING = 'demo scenes added'

/** Puts the demo scenes on the Shelf, once for each browser. Nothing is decoded for that: they open as stored scenes do. */
export async function addDemoScenes(): Promise<void> {
  if (await database.settings.get(SETTING)) return
  const { scenes } = (await (await fetchDemo('scenes.json')).json()) as { readonly scenes: readonly DemoScene[] }
  for (const demo of scenes) await addDemoScene(demo)
  await database.settings.put({ name: SETTING, value: true })
}

async function addDemoScene(demo: DemoScene): Promise<void> {
  const [file, card, recipeText, marksText] = await Promise.all([
    fetchDemo(demo.photo).then((response) => response.blob()),
    fetchDemo(demo.card).then((response) => response.blob()),
    fetchDemo(demo.recipe).then((response) => response.text()),
    fetchDemo(demo.marks).then((response) => response.text()),
  ])
  const recipe = parseRecipe(recipeText, demo.recipe)
  const marks = parseMarks(marksText, demo.marks)
  const photo = { id: await photoId(file), ...marks.madeFor }
  const plain = sceneOf(photo, demo.photo, recipe.name, stackFor(recipe, photo))
  await savePhotoFile({ id: photo.id, fileName: demo.photo, file, reduced: false })
  await addScene({ ...plain, marks: marksFor(marks, photo), depth: await demoDepth(marks) }, card)
}

/** The depth picture of a demo photo, stored. */
async function demoDepth({ depth }: MarksFile): Promise<DepthPicture | null> {
  if (!depth) return null
  const { file: name, ...rest } = depth
  const file = await (await fetchDemo(name)).blob()
  const id = await photoId(file)
  const { width, height } = await createImageBitmap(file)
  await savePhotoFile({ id, fileName: name, file, reduced: false })
  return { ...rest, picture: { id, fileName: name, width, height } }
}

async function fetchDemo(name: string): Promise<Response> {
  const response = await fetch(`/demo/${name}`)
  if (!response.ok) throw new Error(`The demo file ${name} is missing (${response.status}).`)
  return response
}
