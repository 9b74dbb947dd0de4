import {
  marksFor,
  parseMarks,
  parseRecipe,
  sizeOfFile,
  stackFor,
  type CheckedScene,
  type DepthPicture,
  type MarksFile,
} from '@welkinar/core'
import { database, type StoredPhoto } from '../storage/database'
import { photoId } from '../storage/photos'
import { addScenes } from '../storage/scenes'
import { sceneOf } from '../scene/addPhoto'

/** The files of one finished scene: photo, recipe, marks with the name of the depth picture, and its picture for the Shelf. */
interface DemoScene {
  readonly photo: string
  readonly recipe: string
  readonly marks: string
  readonly card: string
}

const SETTING = 'demo scenes added'

interface MadeScene {
  readonly scene: CheckedScene
  readonly thumbnail: Blob
  readonly pictures: readonly StoredPhoto[]
}

/**
 * Puts the demo scenes on the Shelf, once for each browser: all of them or none, also when two tabs start together. Nothing is decoded for that: they
 * open as stored scenes do.
 */
export async function addDemoScenes(): Promise<void> {
  if (await database.settings.get(SETTING)) return
  const { scenes } = (await (await fetchDemo('scenes.json')).json()) as { readonly scenes: readonly DemoScene[] }
  // The last of the list is the newest.
  const first = Date.now() - scenes.length
  const made = await Promise.all(scenes.map((demo, i) => demoScene(demo, first + i)))
  await addScenes(
    made,
    made.flatMap(({ pictures }) => pictures),
    SETTING,
  )
}

async function demoScene(demo: DemoScene, now: number): Promise<MadeScene> {
  const [file, thumbnail, recipeText, marksText] = await Promise.all([
    fetchDemo(demo.photo).then((response) => response.blob()),
    fetchDemo(demo.card).then((response) => response.blob()),
    fetchDemo(demo.recipe).then((response) => response.text()),
    fetchDemo(demo.marks).then((response) => response.text()),
  ])
  const recipe = parseRecipe(recipeText, demo.recipe)
  const marks = parseMarks(marksText, demo.marks)
  const photo = { id: await photoId(file), ...marks.madeFor }
  const depth = await demoDepth(marks)
  const parts = {
    ...stackFor(recipe, photo),
    marks: marksFor(marks, photo),
    depth: depth?.depth ?? null,
    amount: recipe.amount,
    created: now,
    edited: now,
  }
  const pictures = [{ id: photo.id, fileName: demo.photo, file, reduced: false }, ...(depth ? [depth.stored] : [])]
  return { scene: sceneOf(photo, demo.photo, recipe.name, parts), thumbnail, pictures }
}

/** The depth picture of a demo photo. */
async function demoDepth({ depth }: MarksFile): Promise<{ depth: DepthPicture; stored: StoredPhoto } | undefined> {
  if (!depth) return undefined
  const { file: fileName, ...rest } = depth
  const file = await (await fetchDemo(fileName)).blob()
  const id = await photoId(file)
  const { width, height } = sizeOfFile(new Uint8Array(await file.arrayBuffer()))
  return { depth: { ...rest, picture: { id, fileName, width, height } }, stored: { id, fileName, file, reduced: false } }
}

async function fetchDemo(name: string): Promise<Response> {
  const response = await fetch(`/demo/${name}`)
  if (!response.ok) throw new Error(`The demo file ${name} is missing (${response.status}).`)
  return response
}
