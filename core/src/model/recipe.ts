import { z } from 'zod'
import type { Size } from '../planes/grid'
import { parseDocument } from './parseDocument'
import type { PictureReference } from '../masks/picture/definition'
import { picturesIn, withoutPictures } from './pictures'
import { fitBetween, fitLengths } from './lengths'
import { anchorsOf, anchorsSchema, oddAnchor, placeStack } from './anchors'
import { groundworkSchema, type Groundwork } from './groundwork'
import { noMarks, type SceneMarks } from './marks'
import type { Scene } from './scene'
import { doubleName, fitStack, readBy, stackAmount, stackSchema, stackShape, type Stack } from './stack'
import { listOf } from './roles'
import { UserProblem } from './userProblem'
import { documentVersion, versionShape } from './version'

const size = z.strictObject({ width: z.int().min(1), height: z.int().min(1) })

/** What of the groundwork of a photo suits others: its tones and its crop. */
const photoWork = groundworkSchema.pick({ crop: true, tone: true })

/** A stack of effects without its photo. `madeFor` is the size that its lengths fit. */
export const recipeSchema = z.strictObject({
  format: z.literal('welkinar-recipe'),
  ...versionShape,
  name: z.string().min(1).max(120),
  madeFor: size,
  ...stackShape,
  amount: stackAmount.default(100),
  /** What its places are held by. */
  anchors: anchorsSchema.default([]),
  /** What is done to the photo before it, where that was asked for. */
  groundwork: photoWork.nullable().default(null),
  /** Words that it is found by. */
  tags: listOf(z.string().trim().min(1).max(40), 20, 'tags').default([]),
})
export type Recipe = z.infer<typeof recipeSchema>

/**
 * A recipe from the text of a file.
 * @param fileName for the message
 * @throws UserProblem naming the file, the path of the wrong value and what was expected
 */
export function parseRecipe(text: string, fileName: string): Recipe {
  const recipe = parseDocument(text, fileName, recipeSchema, 'recipe')
  const odd = doubleName(recipe) ?? oddAnchor(recipe, recipe.anchors)
  if (odd) throw new UserProblem(`“${fileName}” is not a valid recipe: ${odd}.`)
  return recipe
}

/** What the recipe lays over a photo, its lengths and places fitted to its size. */
export function stackFor(recipe: Recipe, photo: Size): Stack {
  return fitStack(recipe, fitBetween(recipe.madeFor, photo))
}

/** What a recipe lays over a photo. */
export interface LaidRecipe {
  readonly stack: Stack
  /** What of it had no place in this photo, in words. */
  readonly unplaced: readonly string[]
  /** What it does to the photo before, lengths fitted. */
  readonly groundwork: Recipe['groundwork']
}

/** What the recipe lays over a photo: lengths fitted to its size, places where what they are held by was marked or read. */
export function layRecipe(recipe: Recipe, photo: Size, marks: SceneMarks = noMarks): LaidRecipe {
  const groundwork = recipe.groundwork && fitLengths(photoWork, recipe.groundwork, fitBetween(recipe.madeFor, photo))
  return { ...placeStack(stackFor(recipe, photo), recipe.anchors, marks, photo), groundwork }
}

/** What of a scene goes into a recipe. */
export interface RecipeParts {
  readonly name: string
  /** Ids of the effects; all without them. */
  readonly effects?: readonly string[] | undefined
  /** Whether the tones and the crop of the photo go along. */
  readonly withPhoto?: boolean
}

/** A recipe of what lies over the photo of a scene, its places held by what was seen there. */
export function recipeFrom(scene: Scene, { name, effects: wanted, withPhoto = false }: RecipeParts): Recipe {
  const { width, height } = scene.photo
  const effects = wanted ? scene.effects.filter(({ id }) => wanted.includes(id)) : scene.effects
  // A group stays one where all of it goes along.
  const groups = scene.groups.filter(({ id }) =>
    scene.effects.every(({ id: own, group }) => group !== id || effects.some((one) => one.id === own)),
  )
  const grouped = effects.map((effect) => (groups.some(({ id }) => id === effect.group) ? effect : { ...effect, group: null }))
  const read = effects.map((effect) => readBy(effect, scene))
  const all = !wanted || groups.length > 0
  const pinned = scene.pinned.filter((state) => all || read.some((one) => one.pinned.includes(state)))
  const shared = scene.shared.filter((mask) => all || read.some((one) => one.shared.includes(mask)))
  const stack = { effects: grouped, groups, shared, pinned }
  const { crop, tone }: Groundwork = scene.groundwork
  return {
    format: 'welkinar-recipe',
    ...documentVersion,
    name,
    madeFor: { width, height },
    ...stack,
    amount: wanted ? 100 : scene.amount,
    anchors: anchorsOf(stack, scene.marks, scene.photo),
    groundwork: withPhoto ? { crop, tone } : null,
    tags: [],
  }
}

/** The pictures that a stack reads. */
export function picturesOfStack(stack: Stack): PictureReference[] {
  return picturesIn(stackSchema, partsOf(stack))
}

/** The stack without some of its pictures: what reads them says so. */
export function stackWithout(stack: Stack, gone: readonly string[]): Stack {
  return withoutPictures(stackSchema, partsOf(stack), gone)
}

function partsOf({ effects, groups, shared, pinned }: Stack): Stack {
  return { effects, groups, shared, pinned }
}
