import { documentVersion, recipeFrom, type DepthPicture, type MarksFile, type Scene } from '@welkinar/core'
import { safeFileName, saveFile } from '../common/files'
import { useScene } from './sceneStore'

/** Ending of recipe files. */
const ENDING = '.recipe.json'
const MARKS_ENDING = '.marks.json'

function marksOf({ photo, marks, groundwork, depth }: Scene): MarksFile {
  const { width, height } = photo
  return {
    format: 'welkinar-marks',
    ...documentVersion,
    madeFor: { width, height },
    marks,
    groundwork,
    // The depth picture is looked for beside the file.
    depth: depth && depthFileOf(depth),
  }
}

function depthFileOf({ picture, ...rest }: DepthPicture): MarksFile['depth'] {
  return { ...rest, file: picture.fileName }
}

/** Saves the effects of the open scene as a file, without the photo. */
export function saveRecipe(): void {
  save((scene) => recipeFrom(scene, { name: scene.name }), ENDING)
}

/** Saves what belongs to the photo of the open scene as a file: its marks, its groundwork, its depth. The command line takes it beside the recipe. */
export function saveMarks(): void {
  save(marksOf, MARKS_ENDING)
}

function save(documentOf: (scene: Scene) => object, ending: string): void {
  const scene = useScene.getState().history?.scene
  if (!scene) return
  const text = JSON.stringify(documentOf(scene), null, 2)
  saveFile(new Blob([text], { type: 'application/json' }), `${safeFileName(scene.name)}${ending}`)
}
