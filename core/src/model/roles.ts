import { z } from 'zod'

/** What has an id in a document. */
export type Named = 'effect' | 'group' | 'pinned' | 'shared' | 'mask' | 'light' | 'region' | 'repair' | 'watchpoint' | 'picture'

/**
 * What a value of a document is, beyond its type. Everything that walks a document goes by these: fitting to a photo, new ids, pictures in use,
 * decorrelating a copy, copied looks, and the tables of docs/formats.md.
 */
export interface Roles {
  /** px of the full-size photo: a length, a place across or down the photo, or a list of x, y and pressure. */
  readonly measures?: 'length' | 'x' | 'y' | 'stroke points'
  /** What a copy changes so that the eye does not see the same noise twice. */
  readonly noise?: 'seed' | 'rotation' | 'scale'
  /** The id of something in the document. */
  readonly names?: Named
  /** The id of something that stands elsewhere in the document, or beside it. */
  readonly refersTo?: Named
  /** Placed or drawn on its photo: a copied look leaves it alone. */
  readonly byHand?: true
  /** A list, and how much it holds. */
  readonly list?: ListLimit
}

/** How many items a list has, and the word for them. */
export interface ListLimit {
  readonly words: string
  readonly least: number
  readonly most: number
}

/** A schema with roles beside those that it has. */
export function withRoles<T extends z.ZodType>(schema: T, roles: Roles): T {
  return schema.meta({ roles: { ...rolesOf(schema), ...roles } })
}

/** The roles of a schema, also of what is within its default or null. */
export function rolesOf(schema: z.ZodType): Roles {
  let roles = known.get(schema)
  if (!roles) {
    roles = readRoles(schema)
    known.set(schema, roles)
  }
  return roles
}

/** Schemas do not change; every walk over a document asks each of them. */
const known = new WeakMap<z.ZodType, Roles>()

function readRoles(schema: z.ZodType): Roles {
  const own = schema.meta()?.['roles'] as Roles | undefined
  const within = schema instanceof z.ZodDefault || schema instanceof z.ZodNullable ? rolesOf(schema.unwrap() as z.ZodType) : undefined
  return { ...within, ...own }
}

/** Schema of an id. */
export function idOf(names: Named): z.ZodString {
  return withRoles(z.string().min(1).max(200), { names })
}

/** Schema of a reference to something by its id; null for none. */
export function referenceTo(refersTo: Named): z.ZodNullable<z.ZodString> {
  return withRoles(z.string().min(1).max(200).nullable(), { refersTo })
}

/** Schema of a list that holds at most so many; `words` says of what. */
export function listOf<T extends z.ZodType>(item: T, most: number, words: string, least = 0): z.ZodArray<T> {
  return withRoles(z.array(item).min(least).max(most, `expected at most ${most} ${words}`), { list: { words, least, most } })
}

/** How many items a list of a schema has; undefined if it is no such list. */
export function listLimit(schema: z.ZodType): ListLimit | undefined {
  return rolesOf(schema).list
}
