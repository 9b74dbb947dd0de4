import {
  layRecipe,
  parseRecipe,
  picturesOfStack,
  recipeFrom,
  stackWithout,
  withNewIds,
  type Group,
  type Recipe,
  type Scene,
  type Stack,
} from '@welkinar/core'
import { chooseFile } from '../../common/files'
import { showNotice, showProblem } from '../../common/notices'
import type { SceneChange } from '../../scene/history'
import { openedScene } from '../../scene/openScene'
import { useScene } from '../../scene/sceneStore'
import { keepRecipes } from '../../storage/recipes'
import { adoptShared } from './sharedMasks'
import { showUndoable } from './showUndoable'

/** Where a recipe goes: in the place of all effects, before them, or behind them. */
export type Laying = 'in place' | 'over' | 'under'

/** How a recipe is laid on the open scene. */
export interface LayingChoice {
  readonly laying: Laying
  /** Per cent. */
  readonly strength: number
}

export const asItIs: LayingChoice = { laying: 'in place', strength: 100 }

/** A recipe as it is laid on a scene. */
export interface LaidOn {
  readonly change: SceneChange
  /** Of its last effect. */
  readonly lastId: string | undefined
  /** What of it had no place in this photo, in words. */
  readonly unplaced: readonly string[]
}

/**
 * What a recipe does to a scene.
 * @param gone ids of pictures that it reads and this browser does not have
 */
export function laidOn(
  { photo, marks }: Pick<Scene, 'photo' | 'marks'>,
  recipe: Recipe,
  { laying, strength }: LayingChoice,
  gone: readonly string[],
  newId: () => string,
): LaidOn {
  const { stack, unplaced, groundwork } = layRecipe(recipe, photo, marks)
  const part = (strength * recipe.amount) / 10_000
  const laid = withNewIds(stackWithout(stack, gone), newId)
  const amount = laying === 'in place' ? 100 * part : undefined
  const { effects, groups, shared, pinned } = amount === undefined ? weakened(laid, part) : laid
  const change: SceneChange = (draft) => {
    if (amount !== undefined) Object.assign(draft, structuredClone({ effects, groups, shared, pinned }), { amount })
    else {
      const brought = structuredClone({ effects, groups, shared })
      adoptShared(draft, brought)
      draft.effects[laying === 'over' ? 'push' : 'unshift'](...brought.effects)
      draft.groups.push(...brought.groups)
      draft.pinned.push(...structuredClone(pinned))
    }
    // What the photo of the recipe did not have stays as this one has it.
    const { crop, tone } = groundwork ?? { crop: null, tone: null }
    Object.assign(draft.groundwork, structuredClone({ ...(crop && { crop }), ...(tone && { tone }) }))
  }
  return { change, lastId: effects.at(-1)?.id, unplaced }
}

/** A stack of which so much is seen. What lies in a group fades with it. */
function weakened({ effects, groups, shared, pinned }: Stack, part: number): Stack {
  const fade = <T extends Stack['effects'][number] | Stack['groups'][number]>(one: T): T => ({
    ...one,
    mix: { ...one.mix, amount: Math.round(one.mix.amount * part) },
  })
  return { effects: effects.map((effect) => (effect.group === null ? fade(effect) : effect)), groups: groups.map(fade), shared, pinned }
}

/** Keeps a recipe of effects of the open scene, of all without them. @param see shows what was kept */
export function keepAsRecipe(parts: { readonly name: string; readonly effects?: readonly string[] }, see?: () => void): void {
  const scene = useScene.getState().history?.scene
  if (!scene) return
  keepRecipes([recipeFrom(scene, parts)])
    .then(() => showNotice(`“${parts.name}” is among your own recipes now.`, see && { label: 'See the recipes', run: see }))
    .catch((error: unknown) => showProblem(error, 'Keeping the recipe'))
}

/** Keeps a recipe of the effects of a group, and of the group. */
export function keepGroupAsRecipe({ id, name }: Group): void {
  const effects = useScene.getState().history?.scene.effects.filter(({ group }) => group === id) ?? []
  keepAsRecipe({ name, effects: effects.map((effect) => effect.id) })
}

/** Lets the person choose a recipe file and lays it on the open scene. */
export function openRecipe(): void {
  chooseFile('.json,application/json')
    .then(async (file) => file && layOnOpenScene(parseRecipe(await file.text(), file.name)))
    .catch((error: unknown) => showProblem(error, 'Opening the recipe'))
}

/** Lays a recipe on the open scene, as one step, and says what of it had no place there. Returns whether it was laid. */
export async function layOnOpenScene(recipe: Recipe, choice: LayingChoice = asItIs): Promise<boolean> {
  const opened = openedScene()
  if (!opened) return false
  const pictures = picturesOfStack(recipe)
  const gone = await opened.pictures.holdPictures(pictures)
  const { history, change, set } = useScene.getState()
  // Another scene may have been opened meanwhile.
  if (openedScene() !== opened || !history) return false
  const laid = laidOn(history.scene, recipe, choice, gone, () => crypto.randomUUID())
  if (!change(`Recipe “${recipe.name}”`, laid.change)) return false
  set({ selectedId: laid.lastId, chosenMaskId: undefined, tool: undefined })
  const done = { 'in place': 'replaced the effects of this scene', over: 'lies before the effects', under: 'lies behind the effects' }
  showUndoable([`The recipe “${recipe.name}” ${done[choice.laying]}.`, ...laid.unplaced, ...missingInWords(recipe, gone)].join(' '))
  return true
}

/** What is left out because its picture is not there. */
export function missingInWords(recipe: Recipe, gone: readonly string[]): string[] {
  const names = picturesOfStack(recipe).flatMap(({ id, fileName }) => (gone.includes(id) ? [fileName] : []))
  return [...new Set(names)].map((name) => `What reads the picture “${name}” is left out: it is not in this browser.`)
}
