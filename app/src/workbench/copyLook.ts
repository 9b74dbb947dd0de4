import {
  parseRecipe,
  pictureIds,
  RECIPE_VERSION,
  stackFor,
  wearLook,
  withoutPictures,
  type Effect,
  type Recipe,
  type Stack,
  type Where,
} from '@welkinar/core'
import { showNotice, showProblem } from '../common/notices'
import { holdPhoto } from '../engine/photos'
import { useScene } from '../scene/sceneStore'
import { database } from '../storage/database'

// A copied look is a recipe of one effect, kept in the browser, so that it also goes from scene to scene and survives a reload.

const SETTING = 'copied look'

/** Keeps all values of an effect for pasting. */
export function copyLook(effect: Effect): void {
  const scene = useScene.getState().history?.scene
  if (!scene) return
  const { width, height } = scene.photo
  const recipe: Recipe = {
    format: 'welkinar-recipe',
    version: RECIPE_VERSION,
    name: effect.name,
    madeFor: { width, height },
    effects: [{ ...effect, group: null }],
    groups: [],
    pinned: scene.pinned,
  }
  database.settings
    .put({ name: SETTING, value: JSON.stringify(recipe) })
    .then(() => showNotice(`The look of ${effect.name} was copied.`))
    .catch((error: unknown) => showProblem(error, 'Copying the look'))
}

/** Gives an effect the copied look, its lengths fitted (`wearLook`). */
export function pasteLook(effect: Effect): void {
  paste(effect).catch((error: unknown) => showProblem(error, 'Pasting the look'))
}

async function paste(effect: Effect): Promise<void> {
  const stored = await database.settings.get(SETTING)
  const { history, change } = useScene.getState()
  if (!stored || !history) return showNotice('No look was copied yet: choose “Copy look” at another effect first.')
  const recipe = parseRecipe(String(stored.value), 'the copied look')
  const stack = await adoptPictures(stackFor(recipe, history.scene.photo))
  const [look] = stack.effects
  if (!look) return
  change(`Look of ${look.name}`, (scene) => {
    const target = scene.effects.find(({ id }) => id === effect.id)
    if (!target) return
    const { controls, colour, where, region, mix } = wearLook(effect, look)
    Object.assign(target, { controls, colour, where: withNewMaskIds(where), region: region && withNewMaskIds(region), mix })
    const used = new Set(look.where.masks.map((mask) => ('pinned' in mask ? mask.pinned : null)))
    scene.pinned.push(...stack.pinned.filter(({ id }) => used.has(id) && scene.pinned.every((known) => known.id !== id)))
  })
}

function withNewMaskIds(where: Where): Where {
  return { ...where, masks: where.masks.map((mask) => ({ ...mask, id: crypto.randomUUID() })) }
}

/** The stack with the pictures that its masks read in the threads; those that this browser does not have are left out, and it is said. */
export async function adoptPictures(stack: Stack): Promise<Stack> {
  const scene = useScene.getState().history?.scene
  if (!scene) return stack
  const wanted = pictureIds(stack)
  const inUse = [scene.photo.id, ...pictureIds({ ...scene, photo: null }), ...wanted]
  const gone: string[] = []
  for (const id of wanted) await holdPhoto(id, inUse).catch(() => gone.push(id))
  if (gone.length > 0)
    showNotice('A picture that one of the masks reads is not in this browser; that mask is left out until you choose one.')
  return withoutPictures(stack, gone)
}
