import type { Scene } from '@welkinar/core'
import { produce } from 'immer'
import { laidOn, missingInWords, type LayingChoice } from '../workbench/actions/recipes'
import type { ShownRecipe } from './shownRecipes'

/** A scene as it would be with a recipe laid on it, and what has no place in it, in words. Ids are the same each time. */
export function sceneWith(scene: Scene, { key, recipe }: ShownRecipe, choice: LayingChoice, gone: readonly string[]) {
  let count = 0
  const made = recipe()
  const { change, unplaced } = laidOn(scene, made, choice, gone, () => `${key} ${count++}`)
  return { scene: produce(scene, (draft) => change(draft)), said: [...unplaced, ...missingInWords(made, gone)] }
}
