import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { fileIdOf, parseRecipe, picturesOfStack, UserProblem, type PictureReference, type Recipe } from '@welkinar/core'
import {
  builtInRecipes,
  builtInSource,
  isZip,
  readBundle,
  recipeSource,
  type PictureFiles,
  type RecipeSource,
} from '@welkinar/core/recipes'
import { CallProblem } from './callProblem'
import { readInput } from './inputFile'

/** A recipe that the command line is given. */
export interface RecipeInput {
  readonly source: RecipeSource
  readonly picture: PictureFiles
  /** Stands for all of it: another recipe, or another picture, has another. */
  key(): Promise<string>
}

/** Goes before the id of a recipe that every Welkinar has. */
const BUILT_IN = 'built-in:'

/**
 * The recipe of a call: a file of one, a file of recipes of which the first counts, or a built-in one by its id.
 * @throws UserProblem if it cannot be read; CallProblem if there is no built-in one of that id
 */
export async function readRecipe(path: string): Promise<RecipeInput> {
  if (path.startsWith(BUILT_IN)) return builtIn(path)
  const bytes = await readInput(path)
  const name = basename(path)
  if (!isZip(bytes)) {
    const beside = ({ fileName }: PictureReference): Promise<Uint8Array | undefined> =>
      readFile(join(dirname(path), basename(fileName))).catch(() => undefined)
    return ofRecipe(parseRecipe(new TextDecoder().decode(bytes), name), bytes, beside)
  }
  const { recipes, pictures } = await readBundle(bytes, name, (picture) => Promise.resolve(sha256(picture)))
  if (recipes.length > 1) throw new UserProblem(`“${name}” holds ${recipes.length} recipes; one is laid at a time.`)
  return ofRecipe(recipes[0]!, bytes, ({ id }) => Promise.resolve(pictures.get(fileIdOf(id))))
}

function ofRecipe(recipe: Recipe, bytes: Uint8Array, picture: PictureFiles): RecipeInput {
  const key = async (): Promise<string> => {
    const pictures = await Promise.all(picturesOfStack(recipe).map(picture))
    return sha256(JSON.stringify([sha256(bytes), pictures.map((one) => one && sha256(one))]))
  }
  return { source: recipeSource(recipe), picture, key }
}

function builtIn(path: string): RecipeInput {
  const wanted = path.slice(BUILT_IN.length)
  const found = builtInRecipes.find(({ id }) => id === wanted)
  if (!found) throw new CallProblem(`There is no built-in recipe “${wanted}”; “welkinar recipes” lists those that there are.`)
  return {
    source: builtInSource(found),
    picture: () => Promise.resolve(undefined),
    key: () => Promise.resolve(sha256(JSON.stringify(found))),
  }
}

/** What `welkinar recipes` says. */
export function listRecipes(): string {
  const width = Math.max(...builtInRecipes.map(({ id }) => id.length))
  return builtInRecipes.map(({ id, name, tags }) => `${BUILT_IN}${id.padEnd(width)}  ${name} (${tags.join(', ').toLowerCase()})`).join('\n')
}

function sha256(bytes: Uint8Array | string): string {
  return createHash('sha256').update(bytes).digest('hex')
}
