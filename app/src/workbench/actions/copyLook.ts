import {
  nameOfEffect,
  parseRecipe,
  picturesOfStack,
  recipeFrom,
  stackFor,
  stackWithout,
  wearLook,
  type Effect,
  type Stack,
  type Where,
} from '@welkinar/core'
import { showNotice, showProblem } from '../../common/notices'
import { adoptShared } from './sharedMasks'
import { openedScene, type OpenScene } from '../../scene/openScene'
import { useScene } from '../../scene/sceneStore'
import { database } from '../../storage/database'

// A copied look is a recipe of one effect, kept in the browser, so that it also goes from scene to scene and survives a reload.

const SETTING = 'copied look'

/** Keeps all values of an effect for pasting. */
export function copyLook(effect: Effect): void {
  const scene = useScene.getState().history?.scene
  if (!scene) return
  const recipe = recipeFrom(scene, { name: nameOfEffect(effect), effects: [effect.id] })
  database.settings
    .put({ name: SETTING, value: JSON.stringify(recipe) })
    .then(() => showNotice(`The look of ${nameOfEffect(effect)} was copied.`))
    .catch((error: unknown) => showProblem(error, 'Copying the look'))
}

/** Gives an effect the copied look, its lengths fitted (`wearLook`). */
export function pasteLook(effect: Effect): void {
  paste(effect).catch((error: unknown) => showProblem(error, 'Pasting the look'))
}

async function paste(effect: Effect): Promise<void> {
  const stored = await database.settings.get(SETTING)
  const scene = openedScene()
  const photo = useScene.getState().history?.scene.photo
  if (!stored || !scene || !photo) return showNotice('No look was copied yet: choose “Copy look” at another effect first.')
  const recipe = parseRecipe(String(stored.value), 'the copied look')
  const stack = await adoptPictures(scene, stackFor(recipe, photo))
  if (openedScene() === scene) wearStack(effect, stack)
}

/** Gives an effect of the open scene the look of the first effect of a stack. */
export function wearStack(effect: Effect, stack: Stack): void {
  const [look] = stack.effects
  if (!look) return
  useScene.getState().change(`Look of ${nameOfEffect(look)}`, (draft) => {
    const target = draft.effects.find(({ id }) => id === effect.id)
    if (!target) return
    const { look: begun, controls, colour, where, region, mix } = wearLook(effect, look)
    Object.assign(target, { look: begun, controls, colour, where: withNewMaskIds(where), region: region && withNewMaskIds(region), mix })
    const known = new Set(draft.pinned.map(({ id }) => id))
    draft.pinned.push(...stack.pinned.filter(({ id }) => !known.has(id)))
    adoptShared(draft, { effects: [target], groups: [], shared: structuredClone(stack.shared) })
  })
}

function withNewMaskIds(where: Where): Where {
  return { ...where, masks: where.masks.map((mask) => ({ ...mask, id: crypto.randomUUID() })) }
}

/** The stack with the pictures that it reads in the threads; those that this browser does not have are left out, and it is said. */
async function adoptPictures(scene: OpenScene, stack: Stack): Promise<Stack> {
  const gone = await scene.pictures.holdPictures(picturesOfStack(stack))
  if (gone.length > 0)
    showNotice('A picture that one of the masks reads is not in this browser; that mask is left out until you choose one.')
  return stackWithout(stack, gone)
}
