import { z } from 'zod'
import { effectSchema } from '../effects/registry'
import type { Size } from '../planes/grid'
import { UserProblem } from './userProblem'
import { lengthFactor, scaleLengths } from './lengths'

export const RECIPE_VERSION = 1

const size = z.strictObject({ width: z.int().min(1), height: z.int().min(1) })

/** A stack of effects without its photo. `madeFor` is the size that its lengths fit. */
const recipeSchema = z.strictObject({
  format: z.literal('welkinar-recipe'),
  version: z.literal(RECIPE_VERSION),
  name: z.string().min(1).max(120),
  madeFor: size,
  effects: z.array(effectSchema).max(200),
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

/** The recipe's effects with their lengths fitted to another photo. */
export function effectsFor(recipe: Recipe, photo: Size): Recipe['effects'] {
  const factor = lengthFactor(photo) / lengthFactor(recipe.madeFor)
  return factor === 1 ? recipe.effects : recipe.effects.map((effect) => scaleLengths(effectSchema, effect, factor))
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
  const result = schema.safeParse(json)
  if (result.success) return result.data
  const [issue] = result.error.issues
  const path = issue?.path.length ? issue.path.join('.') : 'the whole file'
  const message = issue ? lowerFirst(issue.message.replace(/^Invalid input: /, '')) : 'something else was expected'
  throw new UserProblem(`“${fileName}” is not a valid ${what}: at ${path}, ${message}.`)
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
