import { parseRecipe, stackFor, withNewIds, type Stack } from '@welkinar/core'
import { chooseFile } from '../../common/files'
import { showProblem } from '../../common/notices'
import { openedScene } from '../../scene/openScene'
import { useScene } from '../../scene/sceneStore'
import { adoptPictures } from './copyLook'
import { showUndoable } from './showUndoable'

/** Lets the person choose a recipe file and lays it on the open scene. */
export function openRecipe(): void {
  chooseFile('.json,application/json')
    .then((file) => file && applyRecipeFile(file))
    .catch((error: unknown) => showProblem(error, 'Opening the recipe'))
}

/** Replaces the effects of the open scene by a recipe's, lengths fitted to the photo. One step for undo. */
async function applyRecipeFile(file: File): Promise<void> {
  const scene = openedScene()
  const recipe = parseRecipe(await file.text(), file.name)
  const photo = useScene.getState().history?.scene.photo
  if (!scene || !photo) return
  const stack = await adoptPictures(scene, stackFor(recipe, photo))
  // Another scene may have been opened while the file was read.
  if (openedScene() === scene) layStack(recipe.name, stack, recipe.amount)
}

/** Replaces the effects of the open scene. */
export function layStack(name: string, stack: Stack, amount = 100): void {
  const { change, set } = useScene.getState()
  const laid = withNewIds(stack, () => crypto.randomUUID())
  if (!change(`Recipe “${name}”`, (draft) => void Object.assign(draft, laid, { amount }))) return
  set({ selectedId: laid.effects.at(-1)?.id, chosenMaskId: undefined, tool: undefined })
  showUndoable(`The recipe “${name}” replaced the effects of this scene.`)
}
