import { RECIPE_VERSION, type Recipe, type Scene } from '@welkinar/core'
import { safeFileName, saveFile } from '../common/files'
import { useScene } from './sceneStore'

/** Ending of recipe files. */
const ENDING = '.recipe.json'

function recipeOf(scene: Scene): Recipe {
  const { width, height } = scene.photo
  return {
    format: 'welkinar-recipe',
    version: RECIPE_VERSION,
    name: scene.name,
    madeFor: { width, height },
    effects: scene.effects,
    groups: scene.groups,
    pinned: scene.pinned,
  }
}

/** Saves the effects of the open scene as a file, without the photo. */
export function saveRecipe(): void {
  const scene = useScene.getState().history?.scene
  if (!scene) return
  const text = JSON.stringify(recipeOf(scene), null, 2)
  saveFile(new Blob([text], { type: 'application/json' }), `${safeFileName(scene.name)}${ENDING}`)
}
