import { readFile } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { fileIdOf, parseRecipe, picturesOfStack, UserProblem, type PictureReference, type Recipe } from '@welkinar/core'
import {
  builtInRecipes,
  builtInSource,
  isZip,
  pictureFilesOf,
  readBundle,
  recipeSource,
  writeBundle,
  type PictureFiles,
  type RecipeSource,
} from '@welkinar/core/recipes'
import { CallProblem } from '../callProblem'
import { sha256 } from '../sha256'
import { readInput } from '../stores/inputFile'

/** A recipe that the command line is given. */
export interface RecipeInput {
  readonly source: RecipeSource
  readonly picture: PictureFiles
  /** Stands for all of it: another recipe, or another picture, has another. */
  key(): Promise<string>
  /** Recipe and pictures as one file; undefined for a built-in one, which is everywhere. */
  bundle(): Promise<Uint8Array<ArrayBuffer> | undefined>
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
  if (isZip(bytes)) return ofBundle(bytes, name)
  const beside = ({ fileName }: PictureReference): Promise<Uint8Array | undefined> =>
    readFile(join(dirname(path), basename(fileName))).catch(() => undefined)
  return ofRecipe(parseRecipe(new TextDecoder().decode(bytes), name), beside)
}

/**
 * The recipe of a run: a built-in one by its name, or a bundle by its key. It comes from whoever planned the run, and is checked as a stranger's.
 * @throws UserProblem if it is not the recipe that was planned
 */
export async function recipeOf(named: string, bundle: Uint8Array | undefined): Promise<RecipeInput> {
  if (!bundle) return builtIn(named)
  const recipe = await ofBundle(bundle, `${named}.welkinar`)
  if ((await recipe.key()) !== named) throw new UserProblem('The recipe of the run is another than it was planned with.')
  return recipe
}

async function ofBundle(bytes: Uint8Array, name: string): Promise<RecipeInput> {
  const { recipes, pictures } = await readBundle(bytes, name, (picture) => Promise.resolve(sha256(picture)))
  if (recipes.length > 1) throw new UserProblem(`“${name}” holds ${recipes.length} recipes; one is laid at a time.`)
  return ofRecipe(recipes[0]!, ({ id }) => Promise.resolve(pictures.get(fileIdOf(id))))
}

function ofRecipe(recipe: Recipe, picture: PictureFiles): RecipeInput {
  // A picture that is another than the recipe reads is none.
  const files = async (): Promise<ReadonlyMap<string, Uint8Array>> => {
    const all = new Map<string, Uint8Array>()
    for (const reference of picturesOfStack(recipe)) {
      const bytes = await picture(reference)
      const id = fileIdOf(reference.id)
      if (bytes && sha256(bytes) === id) all.set(id, bytes)
    }
    return all
  }
  return {
    source: recipeSource(recipe),
    picture,
    key: async () => {
      const there = await files()
      return sha256(JSON.stringify([recipe, pictureFilesOf([recipe]).filter((id) => there.has(id))]))
    },
    bundle: async () => writeBundle({ recipes: [recipe], pictures: await files() }),
  }
}

function builtIn(path: string): RecipeInput {
  const wanted = path.slice(BUILT_IN.length)
  const found = builtInRecipes.find(({ id }) => id === wanted)
  if (!found) throw new CallProblem(`There is no built-in recipe “${wanted}”; “welkinar recipes” lists those that there are.`)
  return {
    source: builtInSource(found),
    picture: () => Promise.resolve(undefined),
    key: () => Promise.resolve(sha256(JSON.stringify(found))),
    bundle: () => Promise.resolve(undefined),
  }
}

/** What `welkinar recipes` says. */
export function listRecipes(): string {
  const width = Math.max(...builtInRecipes.map(({ id }) => id.length))
  return builtInRecipes.map(({ id, name, tags }) => `${BUILT_IN}${id.padEnd(width)}  ${name} (${tags.join(', ').toLowerCase()})`).join('\n')
}
