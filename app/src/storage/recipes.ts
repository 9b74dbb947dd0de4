import { parseRecipe, UserProblem, type Recipe } from '@welkinar/core'
import { database, type StoredRecipe } from './database'

/** A recipe of the person's own, as it is read. */
export interface OwnRecipe {
  readonly id: number
  readonly recipe: Recipe
}

const MOST_RECIPES = 500
const FAVOURITES = 'favourite recipes'

/** The recipes of this browser, in their order. What cannot be read stays stored, and is left out. */
export async function ownRecipes(): Promise<readonly OwnRecipe[]> {
  const stored = await database.recipes.orderBy('order').toArray()
  return stored.flatMap(({ id = 0, document }) => {
    try {
      return [{ id, recipe: parseRecipe(JSON.stringify(document), 'a stored recipe') }]
    } catch {
      return []
    }
  })
}

/** Keeps recipes before all others. Returns their ids. @throws UserProblem if there are too many */
export async function keepRecipes(recipes: readonly Recipe[]): Promise<number[]> {
  return database.transaction('rw', database.recipes, async () => {
    if ((await database.recipes.count()) + recipes.length > MOST_RECIPES) {
      throw new UserProblem(`This browser keeps ${MOST_RECIPES} recipes, and no more: delete some first.`)
    }
    const first = (await database.recipes.orderBy('order').first())?.order ?? 0
    const ids: number[] = []
    for (const [i, document] of recipes.entries()) {
      ids.push((await database.recipes.add({ order: first - recipes.length + i, document }))!)
    }
    return ids
  })
}

/** Changes a recipe. @throws UserProblem if it is not there any more */
export async function changeRecipe(id: number, part: Partial<Pick<Recipe, 'name' | 'tags'>>): Promise<void> {
  await database.transaction('rw', database.recipes, async () => {
    const stored = await database.recipes.get(id)
    if (!stored) throw new UserProblem('This recipe is not there any more.')
    await database.recipes.put({ ...stored, document: { ...(stored.document as object), ...part } })
  })
}

/** Puts a recipe one place earlier or later. */
export async function moveRecipe(id: number, by: -1 | 1): Promise<void> {
  await database.transaction('rw', database.recipes, async () => {
    const all = await database.recipes.orderBy('order').toArray()
    const at = all.findIndex((one) => one.id === id)
    const [one, other] = [all[at], all[at + by]]
    if (!one || !other) return
    await database.recipes.bulkPut([
      { ...one, order: other.order },
      { ...other, order: one.order },
    ])
  })
}

/** Deletes a recipe. Returns it, so that it can be put back. @throws UserProblem if it is not there any more */
export async function deleteRecipe(id: number): Promise<StoredRecipe> {
  return database.transaction('rw', database.recipes, async () => {
    const stored = await database.recipes.get(id)
    if (!stored) throw new UserProblem('This recipe is not there any more.')
    await database.recipes.delete(id)
    return stored
  })
}

export async function putBackRecipe(recipe: StoredRecipe): Promise<void> {
  await database.recipes.put(recipe)
}

/** The keys of the recipes that this person likes best. */
export async function favourites(): Promise<ReadonlySet<string>> {
  const value: unknown = (await database.settings.get(FAVOURITES))?.value
  return new Set(Array.isArray(value) ? value.filter((key) => typeof key === 'string') : [])
}

/** Takes a recipe among the favourites, or out of them. */
export async function switchFavourite(key: string): Promise<void> {
  await database.transaction('rw', database.settings, async () => {
    const before = await favourites()
    const value = before.has(key) ? [...before].filter((one) => one !== key) : [...before, key]
    await database.settings.put({ name: FAVOURITES, value })
  })
}
