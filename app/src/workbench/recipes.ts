import { parseRecipe, RECIPE_VERSION, stackFor, withNewIds, type Recipe, type Scene } from '@welkinar/core'
import { chooseFile, safeFileName, saveFile } from '../common/files'
import { showNotice, showProblem } from '../common/notices'
import { useScene } from '../scene/sceneStore'
import { adoptPictures } from './copyLook'

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

/** Lets the person choose a recipe file and lays it on the open scene. */
export function openRecipe(): void {
  chooseFile('.json,application/json')
    .then((file) => file && applyRecipeFile(file))
    .catch((error: unknown) => showProblem(error, 'Opening the recipe'))
}

/** Replaces the effects of the open scene by a recipe's, lengths fitted to the photo. One step for undo. */
async function applyRecipeFile(file: File): Promise<void> {
  const recipe = parseRecipe(await file.text(), file.name)
  const { history, change, set } = useScene.getState()
  if (!history) return
  const stack = withNewIds(await adoptPictures(stackFor(recipe, history.scene.photo)), () => crypto.randomUUID())
  change(`Recipe “${recipe.name}”`, (scene) => void Object.assign(scene, stack))
  set({ selectedId: stack.effects.at(-1)?.id, chosenMaskId: undefined, tool: undefined })
  showNotice(`The recipe “${recipe.name}” replaced the effects of this scene.`, { label: 'Undo', run: () => useScene.getState().undo() })
}
