import { showNotice, showProblem } from '../common/notices'
import type { Action } from '../common/ActionMenu'
import { changeRecipe, deleteRecipe, keepRecipes, moveRecipe, putBackRecipe, switchFavourite } from '../storage/recipes'
import type { RecipeDeeds } from './RecipeCard'
import { exportRecipes } from './recipeFiles'
import type { ShownRecipe } from './shownRecipes'

function attempt(work: Promise<unknown>, doing: string): void {
  work.catch((error: unknown) => showProblem(error, doing))
}

/** What the page does with a recipe by itself. */
type OfPage = Pick<RecipeDeeds, 'point' | 'choose' | 'lay'> & {
  /** Goes to lay it on many photos. */
  layOnMany(one: ShownRecipe): void
  /** Asks for the words that a recipe is found by. */
  retag(one: ShownRecipe): void
}

async function remove(id: number, name: string): Promise<void> {
  const stored = await deleteRecipe(id)
  const undo = (): void => attempt(putBackRecipe(stored), 'Undoing')
  showNotice(`The recipe “${name}” was deleted.`, { label: 'Undo', run: undo })
}

/** All that can be done with a recipe. */
export function deedsOfRecipes({ retag, layOnMany, ...ofPage }: OfPage): RecipeDeeds {
  const deeds: RecipeDeeds = {
    ...ofPage,
    like: ({ key }) => attempt(switchFavourite(key), 'Marking the recipe'),
    rename: ({ ownId }, name) => ownId !== undefined && attempt(changeRecipe(ownId, { name }), 'Renaming'),
    remove: ({ ownId, name }) => ownId !== undefined && attempt(remove(ownId, name), 'Deleting'),
    actions: (one) => [
      { label: 'Lay it on the photo', run: () => deeds.lay(one) },
      { label: 'Lay it on many photos', run: () => layOnMany(one) },
      ...actionsOf(one),
      ...ownActions(one),
    ],
  }
  const ownActions = (one: ShownRecipe): Action[] => {
    const { ownId } = one
    if (ownId === undefined) return []
    return [
      { label: 'Words that find it …', run: () => retag(one) },
      { label: 'Move earlier', run: () => attempt(moveRecipe(ownId, -1), 'Moving') },
      { label: 'Move later', run: () => attempt(moveRecipe(ownId, 1), 'Moving') },
      { label: 'Delete', run: () => deeds.remove(one) },
    ]
  }
  return deeds
}

function actionsOf({ recipe, name, ownId }: ShownRecipe): Action[] {
  const copy = { ...recipe(), name: `${name.slice(0, 112)}, own` }
  return [
    { label: ownId === undefined ? 'Copy to your own' : 'Duplicate', run: () => attempt(keepRecipes([copy]), 'Copying the recipe') },
    { label: 'Save as a file', run: () => exportRecipes([recipe()], name) },
  ]
}
