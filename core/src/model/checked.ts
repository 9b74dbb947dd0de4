import { z } from 'zod'
import { problemWith } from './inWords'
import { listLimit } from './roles'
import { sceneSchema, type Scene } from './scene'
import { doubleName } from './stack'
import { optionFor } from './walk'

declare const checked: unique symbol

/** A scene that the schema accepts. Only such a one is kept. */
export type CheckedScene = Scene & { readonly [checked]: true }

/** A change that is not made, with the reason in words for the person. */
export class Refusal {
  constructor(readonly reason: string) {}
}

/** Where something was changed: keys and indices from the scene down. */
export type ChangedPath = readonly (string | number)[]

/** The scene, if it is a valid one. */
export function checkedScene(value: unknown): CheckedScene | Refusal {
  const result = sceneSchema.safeParse(value)
  if (!result.success) {
    const [issue] = result.error.issues
    return new Refusal(`at ${issue?.path.join('.') || 'its root'}, ${issue?.message ?? 'something else is expected'}`)
  }
  const double = doubleName(result.data)
  return double ? new Refusal(double) : (result.data as CheckedScene)
}

/**
 * A scene that was valid before it was changed at some places. Only what was changed is looked at, and how long the lists around it are.
 * @param scene with the changes in it
 */
export function checkedAfter(scene: Scene, changes: readonly ChangedPath[]): CheckedScene | Refusal {
  for (const path of changes) {
    const problem = problemAt(sceneSchema, scene, path)
    if (problem) return new Refusal(problem)
  }
  const double = doubleName(scene)
  return double ? new Refusal(double) : (scene as CheckedScene)
}

function problemAt(schema: z.ZodType, value: unknown, path: ChangedPath): string | undefined {
  if (schema instanceof z.ZodDefault) return problemAt(schema.unwrap() as z.ZodType, value, path)
  if (schema instanceof z.ZodNullable && value !== null) return problemAt(schema.unwrap() as z.ZodType, value, path)
  const [step, ...rest] = path
  if (step === undefined || hasOwnCheck(schema)) return problemWith(schema, value)
  if (schema instanceof z.ZodArray) return problemInList(schema, value, path)
  if (schema instanceof z.ZodDiscriminatedUnion) return problemInUnion(schema, value, path)
  if (!(schema instanceof z.ZodObject)) return problemWith(schema, value)
  const within = (schema.shape as Record<string, z.ZodType | undefined>)[step]
  return within ? problemAt(within, (value as Record<string, unknown>)[step], rest) : `There is no “${step}” here.`
}

function problemInList(schema: z.ZodArray, value: unknown, [index, ...rest]: ChangedPath): string | undefined {
  if (!Array.isArray(value)) return problemWith(schema, value)
  const limit = listLimit(schema)
  if (limit && value.length > limit.most) return `There is room for ${limit.most} ${limit.words}, not for more.`
  if (value.length < (limit?.least ?? 0)) return problemWith(schema, value)
  // What was taken out at the end is no longer there to be looked at.
  if (typeof index !== 'number' || index >= value.length) return undefined
  return problemAt(schema.element as z.ZodType, value[index], rest)
}

function problemInUnion(schema: z.ZodDiscriminatedUnion, value: unknown, path: ChangedPath): string | undefined {
  // Another kind asks for other keys.
  if (path[0] === schema.def.discriminator) return problemWith(schema, value)
  try {
    return problemAt(optionFor(schema, value), value, path)
  } catch {
    return problemWith(schema, value)
  }
}

/** Whether a schema looks at several of its parts together, so that a part cannot be judged alone. */
function hasOwnCheck(schema: z.ZodType): boolean {
  return schema instanceof z.ZodTuple || (schema._zod.def.checks ?? []).some((check) => check._zod.def.check === 'custom')
}
