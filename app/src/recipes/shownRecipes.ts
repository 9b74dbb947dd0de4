import { type EffectKind, type Frame, type Recipe, type Scene } from '@welkinar/core'
import { builtInRecipes, makeBuiltIn, recipeTags } from '@welkinar/core/recipes'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { favourites, ownRecipes } from '../storage/recipes'

/** A recipe that is offered. */
export interface ShownRecipe {
  /** Names it among all, also after a reload. */
  readonly key: string
  /** Of one of the person's own. */
  readonly ownId: number | undefined
  readonly name: string
  readonly tags: readonly string[]
  readonly kinds: readonly EffectKind[]
  readonly isFavourite: boolean
  /** As it is on this photo; made when it is first asked for. */
  recipe(): Recipe
}

/** Makes something once, when it is first asked for. */
function once<T extends object>(make: () => T): () => T {
  let made: T | undefined
  return () => (made ??= make())
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
        name: one.name,
        tags: one.tags,
        kinds: one.effects.map(({ kind }) => kind),
        recipe: once(() => makeBuiltIn(one, { photo, marks, frame: { x, y, width, height, turn } })),
      })),
    [photo, marks, x, y, width, height, turn],
  )
  return useMemo(() => {
    if (!own || !liked) return undefined
    const ofPerson = own.map(({ id, recipe }) => {
      const { name, tags, effects } = recipe
      return { key: `own ${id}`, ownId: id, name, tags, kinds: effects.map(({ kind }) => kind), recipe: () => recipe }
    })
    const all = [...ofPerson, ...builtIn]
    return all.map((one) => ({ ...one, isFavourite: liked.has(one.key) }))
  }, [own, liked, builtIn])
}

/** Those of a shelf in whose name, tags or effects every word is found. */
export function found(all: readonly ShownRecipe[], shelf: RecipeShelf, text: string): readonly ShownRecipe[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  return all.filter((one) => {
    const said = [one.name, ...one.tags, ...one.kinds].join(' ').toLowerCase()
    return isOn(shelf, one) && words.every((word) => said.includes(word))
  })
}

function isOn(shelf: RecipeShelf, { ownId, isFavourite, tags }: ShownRecipe): boolean {
  if (shelf === 'All') return true
  if (shelf === 'Own') return ownId !== undefined
  return shelf === 'Favourites' ? isFavourite : tags.includes(shelf)
}
