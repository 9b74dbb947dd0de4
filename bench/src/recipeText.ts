import { emptyStack, documentVersion, type Effect, type Size } from '@welkinar/core'

/** A recipe file with these effects, made for a size. */
export function recipeText(name: string, madeFor: Size, effects: Effect[]): string {
  return JSON.stringify({ format: 'welkinar-recipe', ...documentVersion, name, madeFor, ...emptyStack, effects })
}
