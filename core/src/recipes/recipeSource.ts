import type { PictureReference } from '../masks/picture/definition'
import type { SceneMarks } from '../model/marks'
import type { Recipe } from '../model/recipe'
import { stackFor } from '../model/recipe'
import type { PictureSource } from '../render/pictureSource'
import { usesReading } from '../render/usesReading'
import type { BuiltInRecipe } from './builtIn'
import { makeBuiltIn } from './makeBuiltIn'

/** A recipe that is laid on photos that are not known yet. */
export interface RecipeSource {
  /** The recipe as it is laid on a photo. */
  on(photo: PictureSource['photo'], marks: SceneMarks): Recipe
  /** Whether what it gives depends on what is read in the photo. */
  usesReading(photo: PictureSource['photo']): boolean
}

/** The file of a picture that a recipe reads; undefined if it is not there. */
export type PictureFiles = (reference: PictureReference) => Promise<Uint8Array | undefined>

/** A recipe as a file holds it. */
export function recipeSource(recipe: Recipe): RecipeSource {
  return {
    on: () => recipe,
    usesReading: (photo) => recipe.anchors.length > 0 || usesReading({ photo, amount: recipe.amount, ...stackFor(recipe, photo) }),
  }
}

/** A built-in recipe: its effects begin on each photo as new ones do. */
export function builtInSource(recipe: BuiltInRecipe): RecipeSource {
  return { on: (photo, marks) => makeBuiltIn(recipe, { photo, marks }), usesReading: () => true }
}
