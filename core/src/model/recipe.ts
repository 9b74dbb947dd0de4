import { z } from 'zod'
import type { Size } from '../planes/grid'
import { parseDocument } from './parseDocument'
import type { PictureReference } from '../masks/picture/definition'
import { picturesIn, withoutPictures } from './pictures'
import { fitBetween } from './lengths'
import { doubleName, fitStack, stackAmount, stackSchema, stackShape, type Stack } from './stack'
import { UserProblem } from './userProblem'
import { versionShape } from './version'

const size = z.strictObject({ width: z.int().min(1), height: z.int().min(1) })

/** A stack of effects without its photo. `madeFor` is the size that its lengths fit. */
export const recipeSchema = z.strictObject({
  format: z.literal('welkinar-recipe'),
  ...versionShape,
  name: z.string().min(1).max(120),
  madeFor: size,
  ...stackShape,
  amount: stackAmount.default(100),
})
export type Recipe = z.infer<typeof recipeSchema>

/**
 * A recipe from the text of a file.
 * @param fileName for the message
 * @throws UserProblem naming the file, the path of the wrong value and what was expected
 */
export function parseRecipe(text: string, fileName: string): Recipe {
  const recipe = parseDocument(text, fileName, recipeSchema, 'recipe')
  const double = doubleName(recipe)
  if (double) throw new UserProblem(`“${fileName}” is not a valid recipe: ${double}.`)
  return recipe
}

/** What the recipe lays over a photo, its lengths and places fitted to it. */
export function stackFor(recipe: Recipe, photo: Size): Stack {
  return fitStack(recipe, fitBetween(recipe.madeFor, photo))
}

/** The pictures that a stack reads. */
export function picturesOfStack(stack: Stack): PictureReference[] {
  return picturesIn(stackSchema, partsOf(stack))
}

/** The stack without some of its pictures: what reads them says so. */
export function stackWithout(stack: Stack, gone: readonly string[]): Stack {
  return withoutPictures(stackSchema, partsOf(stack), gone)
}

function partsOf({ effects, groups, pinned }: Stack): Stack {
  return { effects, groups, pinned }
}
