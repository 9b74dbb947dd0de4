import { emptyStack, RECIPE_VERSION, type Effect, type Size } from '@welkinar/core'

/** A recipe file with these effects, made for a size. */
export function recipeText(name: string, madeFor: Size, effects: Effect[]): string {
  return JSON.stringify({ format: 'welkinar-recipe', version: RECIPE_VERSION, name, madeFor, ...emptyStack, effects })
}
