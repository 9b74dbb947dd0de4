import { z } from 'zod'
import type { Size } from '../planes/grid'
import { UserProblem } from './userProblem'
import { fitBetween } from './lengths'
import { fitStack, stackShape, type Stack } from './stack'
import { upgradeDocument } from './upgrade'

export const RECIPE_VERSION = 2

const size = z.strictObject({ width: z.int().min(1), height: z.int().min(1) })

/** A stack of effects without its photo. `madeFor` is the size that its lengths fit. */
const recipeSchema = z.strictObject({
  format: z.literal('welkinar-recipe'),
  version: z.literal(RECIPE_VERSION),
  name: z.string().min(1).max(120),
  madeFor: size,
  ...stackShape,
})
export type Recipe = z.infer<typeof recipeSchema>

/**
 * A recipe from the text of a file.
 * @param fileName for the message
 * @throws UserProblem naming the file, the path of the wrong value and what was expected
 */
export function parseRecipe(text: string, fileName: string): Recipe {
  return parseDocument(text, fileName, recipeSchema, RECIPE_VERSION, 'recipe')
}

/** What the recipe lays over a photo, its lengths and places fitted to it. */
export function stackFor(recipe: Recipe, photo: Size): Stack {
  return fitStack(recipe, fitBetween(recipe.madeFor, photo))
}

/** Reads and validates a JSON document of one of our formats. */
function parseDocument<T>(text: string, fileName: string, schema: z.ZodType<T>, version: number, what: string): T {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new UserProblem(`“${fileName}” is not a ${what}: it is not valid JSON.`)
  }
  const found = (json as { version?: unknown } | null)?.version
  if (typeof found === 'number' && found > version) {
    const needed = `it has version ${found}, this Welkinar reads up to version ${version}`
    throw new UserProblem(`“${fileName}” was made by a newer Welkinar: ${needed}.`)
  }
  const result = schema.safeParse(upgradeDocument(json))
  if (result.success) return result.data
  const [issue] = result.error.issues
  const path = issue?.path.length ? issue.path.join('.') : 'the whole file'
  const message = issue ? lowerFirst(issue.message.replace(/^Invalid input: /, '')) : 'something else was expected'
  throw new UserProblem(`“${fileName}” is not a valid ${what}: at ${path}, ${message}.`)
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
