import {
  controlOf,
  definitionOf,
  findOwner,
  frameOfSource,
  isEffect,
  limitsOf,
  mixModes,
  mixSchema,
  modeLabels,
  nearestNumber,
  newEffect,
  newMask,
  noMarks,
  readPath,
  rolesOf,
  schemaAt,
  wearLook,
  writePath,
  type Effect,
  type Mask,
  type NumberControl,
  type NumberLimits,
  type Owner,
  type Scene,
} from '@welkinar/core'
import { builtInRecipes, makeBuiltIn, type BuiltInRecipe } from '@welkinar/core/recipes'
import { controlOn } from '../common/controlOn'
import { numberText } from '../common/numberText'
import type { SceneChange } from '../scene/history'
import { laidOn } from '../workbench/actions/recipes'

/** One value of what is varied. */
interface Value {
  /** Names it among those of its variation, also after a reload. */
  readonly id: string
  readonly words: string
  readonly change: SceneChange
}

/** A number that is varied runs over a range, at evenly spaced values. */
interface NumberRange {
  readonly control: NumberControl
  readonly limits: NumberLimits
}

/** Something of an effect or a group that Trials can vary. */
export interface Variation {
  readonly id: string
  readonly label: string
  /** Where a person may say how many values there are. */
  readonly counted: boolean
  readonly range?: NumberRange
  values(chosen: ChosenValues): readonly Value[]
}

/** How many values, and between which: numbers only. */
export interface ChosenValues {
  readonly count: number
  readonly from?: number
  readonly to?: number
  /** Rises when other seeds are asked for. */
  readonly round: number
}

/** What can be varied of an effect or group of a scene, the likeliest first. */
export function variationsOf(scene: Scene, owner: Owner): readonly Variation[] {
  const ofEffect = isEffect(owner) ? [...seeds(owner), ...looks(scene, owner)] : []
  const ofOwner = [...ofEffect, amount(owner), modes(owner), masks(scene, owner), ...(isEffect(owner) ? numbers(scene, owner) : [])]
  return [...ofOwner, ...wholes(scene)]
}

/** What takes the place of the whole stack, or comes on top of it: built-in recipes, and the states that are pinned. */
function wholes(scene: Scene): Variation[] {
  const own: Value = { id: 'stack own', words: 'As it is', change: () => undefined }
  const recipes: Variation = {
    id: 'recipe',
    label: 'Recipe laid over',
    counted: false,
    values: () => [own, ...builtInRecipes.map((recipe) => recipeValue(scene, recipe))],
  }
  const pinned: Variation = {
    id: 'pinned',
    label: 'Pinned state',
    counted: false,
    values: () => [
      own,
      ...scene.pinned.map(({ id, name, effects, groups, shared }) => stackValue(`pinned ${id}`, name, { effects, groups, shared })),
    ],
  }
  return scene.pinned.length > 0 ? [recipes, pinned] : [recipes]
}

function recipeValue(scene: Scene, recipe: BuiltInRecipe): Value {
  const { id, name } = recipe
  // Made when the picture is: there are many.
  const change: SceneChange = (draft) => {
    const taken = new Set([...draft.effects, ...draft.groups, ...draft.shared, ...draft.pinned].map((one) => one.id))
    let count = 0
    // The same each time, and other than those that are there.
    const newId = (): string => {
      while (taken.has(`${id} ${count}`)) count++
      return `${id} ${count++}`
    }
    const made = makeBuiltIn(recipe, { photo: scene.photo, marks: scene.marks, frame: frameOfSource(scene) })
    laidOn(scene, made, { laying: 'over', strength: 100 }, [], newId).change(draft)
  }
  return { id: `recipe ${id}`, words: name, change }
}

function stackValue(id: string, words: string, stack: Pick<Scene, 'effects' | 'groups' | 'shared'>): Value {
  return { id, words, change: (draft) => void Object.assign(draft, structuredClone(stack)) }
}

const SEEDS = 10_000
/** Coprime with the number of seeds, so that none comes twice. */
const FROM_SEED_TO_SEED = 3877

/** The first is the seed that it has. */
function seeds(effect: Effect): Variation[] {
  const path = pathsThatCount(effect).find((one) => rolesOf(schemaAt(definitionOf(effect.kind).controls, one)).noise === 'seed')
  if (!path) return []
  const own = readPath(effect.controls, path)
  const values = ({ count, round }: ChosenValues): Value[] =>
    Array.from({ length: count }, (_, i) => {
      const isOwn = i === 0 && round === 0
      const seed = isOwn ? own : (own + (round * 97 + i) * FROM_SEED_TO_SEED) % SEEDS
      return {
        id: `seed ${seed}`,
        words: isOwn ? `Seed ${seed}, as it is` : `Seed ${seed}`,
        change: onEffect(effect, ({ controls }) => writePath(controls, path, seed)),
      }
    })
  return [{ id: 'seed', label: 'Seed', counted: true, values }]
}

/** Where it may be, and how it mixes, stays what it is. */
function looks(scene: Scene, effect: Effect): Variation[] {
  const { startingLooks } = definitionOf(effect.kind)
  if (startingLooks.length < 2) return []
  const values = (): Value[] =>
    startingLooks.map(({ id, name }) => {
      const { photo, marks } = scene
      const look = newEffect(photo, { kind: effect.kind, look: id, id: effect.id, place: effect.place, marks, frame: frameOfSource(scene) })
      const { look: begun, controls, colour, region } = wearLook(effect, { ...look, where: effect.where, mix: effect.mix })
      return {
        id: `look ${id}`,
        words: name,
        change: onEffect(effect, (one) => Object.assign(one, structuredClone({ look: begun, controls, colour, region }))),
      }
    })
  return [{ id: 'look', label: 'Look', counted: false, values }]
}

function amount(owner: Owner): Variation {
  const schema = mixSchema.shape.amount
  return numbered('amount', schema, controlOf(schema), [20, 100], (value) => onOwner(owner, ({ mix }) => void (mix.amount = value)))!
}

function modes(owner: Owner): Variation {
  const values = (): Value[] =>
    mixModes.map((mode) => ({ id: `mode ${mode}`, words: modeLabels[mode], change: onOwner(owner, ({ mix }) => void (mix.mode = mode)) }))
  return { id: 'mode', label: 'Mix mode', counted: false, values }
}

/** In the place of the masks that it has: as it is, none, and those that need no hand. */
function masks(scene: Scene, owner: Owner): Variation {
  const made = (id: string, words: string, change: (mask: Mask) => void, kind: Mask['kind']): Value => {
    const mask = newMask(scene.photo, { kind, id: `${owner.id} ${id}`, join: 'keep', marks: scene.marks ?? noMarks })
    change(mask)
    return { id: `masks ${id}`, words, change: onOwner(owner, ({ where }) => void (where.masks = [structuredClone(mask)])) }
  }
  const ofTones = (curve: 'darks' | 'mids' | 'brights', words: string): Value =>
    made(curve, words, (mask) => mask.kind === 'luminosity' && (mask.curve = curve), 'luminosity')
  const values = (): Value[] => [
    { id: 'masks own', words: 'As it is', change: () => undefined },
    { id: 'masks none', words: 'Everywhere', change: onOwner(owner, ({ where }) => void (where.masks = [])) },
    ofTones('darks', 'Shadows'),
    ofTones('mids', 'Midtones'),
    ofTones('brights', 'Highlights'),
    made('sky', 'Sky', () => undefined, 'sky'),
    made('not sky', 'All but the sky', (mask) => (mask.invert = true), 'sky'),
    made('far', 'Far', () => undefined, 'depth'),
    made('near', 'Near', (mask) => (mask.invert = true), 'depth'),
    made('cloud', 'Cloudy', () => undefined, 'cloud'),
  ]
  return { id: 'masks', label: 'Masks', counted: false, values }
}

/** Every number that counts, its dials first. */
function numbers(scene: Scene, effect: Effect): Variation[] {
  const { controls, dials } = definitionOf(effect.kind)
  const paths = pathsThatCount(effect).filter((path) => rolesOf(schemaAt(controls, path)).noise !== 'seed')
  const inOrder = [...paths.filter((path) => dials.includes(path)), ...paths.filter((path) => !dials.includes(path))]
  return inOrder.flatMap((path) => {
    const schema = schemaAt(controls, path)
    const control = controlOn(schema, scene.photo, readPath(effect.controls, path))
    return (
      numbered(`control ${path}`, schema, control, control?.usual, (value) =>
        onEffect(effect, (one) => writePath(one.controls, path, value)),
      ) ?? []
    )
  })
}

function numbered(
  id: string,
  schema: Parameters<typeof limitsOf>[0],
  control: NumberControl | undefined,
  span: readonly [number, number] | undefined,
  changeTo: (value: number) => SceneChange,
): Variation | undefined {
  if (!control || !span) return undefined
  const limits = limitsOf(schema)
  const values = ({ count, from = span[0], to = span[1] }: ChosenValues): Value[] => {
    const all = Array.from({ length: count }, (_, i) => {
      const exact = count > 1 ? from + ((to - from) * i) / (count - 1) : from
      return nearestNumber(Number((Math.round(exact / control.step) * control.step).toFixed(4)), limits)
    })
    // Where steps are coarse two may fall together.
    return [...new Set(all)].map((value) => ({
      id: `${id} ${value}`,
      words: `${control.label} ${numberText(value, control)}`,
      change: changeTo(value),
    }))
  }
  return { id, label: control.label, counted: true, range: { control: { ...control, usual: span }, limits }, values }
}

function pathsThatCount(effect: Effect): string[] {
  const { controls, applies } = definitionOf(effect.kind)
  const all = (['pattern', 'shape'] as const).flatMap((step) => Object.keys(effect.controls[step]).map((key) => `${step}.${key}`))
  return all.filter((path) => controlOf(schemaAt(controls, path)) && (applies?.(path, effect.controls) ?? true))
}

function onOwner({ id }: Owner, change: (owner: Owner) => void): SceneChange {
  return (scene) => {
    const owner = findOwner(scene, id)
    if (owner) change(owner)
  }
}

function onEffect(effect: Effect, change: (effect: Effect) => void): SceneChange {
  return onOwner(effect, (owner) => isEffect(owner) && change(owner))
}
