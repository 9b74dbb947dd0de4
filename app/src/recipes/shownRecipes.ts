import { builtInRecipes, makeBuiltIn, recipeTags, type Frame, type Recipe, type Scene } from '@welkinar/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { favourites, ownRecipes } from '../storage/recipes'

/** A recipe that is offered. */
export interface ShownRecipe {
  /** Names it among all, also after a reload. */
  readonly key: string
  /** Of one of the person's own. */
  readonly ownId: number | undefined
  readonly recipe: Recipe
  readonly isFavourite: boolean
}

/** Which recipes are shown: all, the person's own, those liked best, or those about one thing. */
export const shelves = ['All', 'Own', 'Favourites', ...recipeTags] as const
export type RecipeShelf = (typeof shelves)[number]

/** All recipes as they are on the photo of a scene, own ones first; undefined until they are read. */
export function useRecipes(scene: Scene, frame: Frame): readonly ShownRecipe[] | undefined {
  const own = useLiveQuery(ownRecipes)
  const liked = useLiveQuery(favourites)
  const { photo, marks } = scene
  const { x, y, width, height, turn } = frame
  const builtIn = useMemo(
    () =>
      builtInRecipes.map((one) => ({
        key: `built-in ${one.id}`,
        ownId: undefined,
        recipe: makeBuiltIn(one, { photo, marks, frame: { x, y, width, height, turn } }),
      })),
    [photo, marks, x, y, width, height, turn],
  )
  return useMemo(() => {
    if (!own || !liked) return undefined
    const all = [...own.map(({ id, recipe }) => ({ key: `own ${id}`, ownId: id, recipe })), ...builtIn]
    return all.map((one) => ({ ...one, isFavourite: liked.has(one.key) }))
  }, [own, liked, builtIn])
}

/** Those of a shelf in whose name, tags or effects every word is found. */
export function found(all: readonly ShownRecipe[], shelf: RecipeShelf, text: string): readonly ShownRecipe[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  return all.filter((one) => {
    const { name, tags, effects } = one.recipe
    const said = [name, ...tags, ...effects.map(({ kind }) => kind)].join(' ').toLowerCase()
    return isOn(shelf, one) && words.every((word) => said.includes(word))
  })
}

function isOn(shelf: RecipeShelf, { ownId, isFavourite, recipe }: ShownRecipe): boolean {
  if (shelf === 'All') return true
  if (shelf === 'Own') return ownId !== undefined
  return shelf === 'Favourites' ? isFavourite : recipe.tags.includes(shelf)
}
