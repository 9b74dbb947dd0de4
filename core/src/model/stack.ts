import { z } from 'zod'
import { percentControl } from './controls'
import { effectSchema, type Effect } from '../effects/registry'
import { fitLengths, type Fit } from './lengths'
import { groupSchema, whereSchema } from './look'
import { idOf, listOf, type Named } from './roles'
import { eachRole, mapDocument } from './walk'

/** A list of masks under a name, for several effects and groups. It reads the photo and pinned states, nothing of what it masks. */
const sharedMaskSchema = z.strictObject({ id: idOf('shared'), name: z.string().trim().min(1).max(80), where: whereSchema })
export type SharedMask = z.infer<typeof sharedMaskSchema>

const stackParts = {
  /** From far to near. */
  effects: listOf(effectSchema, 200, 'effects'),
  groups: listOf(groupSchema, 100, 'groups'),
  /** Documents of minor version 2 and before have none. */
  shared: listOf(sharedMaskSchema, 60, 'shared masks').default([]),
}

/** The effects and groups beneath an effect at the moment when they were pinned. */
const pinnedStateSchema = z.strictObject({ id: idOf('pinned'), name: z.string().min(1).max(80), ...stackParts })
export type PinnedState = z.infer<typeof pinnedStateSchema>

/** What is laid over a photo: effects, their groups, and the pinned states that masks read. */
export const stackShape = { ...stackParts, pinned: listOf(pinnedStateSchema, 60, 'pinned states') }
/** How much of the whole stack is seen over the photo. */
export const stackAmount = percentControl('Whole stack')
export const stackSchema = z.strictObject(stackShape)
export type Stack = z.infer<typeof stackSchema>

export const emptyStack: Stack = { effects: [], groups: [], shared: [], pinned: [] }

/** The stack with its lengths and places fitted to another photo. */
export function fitStack({ effects, groups, shared, pinned }: Stack, fit: Fit): Stack {
  return fitLengths(stackSchema, { effects, groups, shared, pinned }, fit)
}

const renewed: readonly (Named | undefined)[] = ['effect', 'group', 'shared', 'pinned']

/** The stack with new ids for its effects, groups, shared masks and pinned states, so that it can be laid on a scene twice. References follow. */
export function withNewIds(stack: Stack, newId: () => string): Stack {
  const known = new Map<string, string>()
  return mapDocument(stackSchema, stack, (value, { names, refersTo }) => {
    if (!renewed.includes(names ?? refersTo)) return value
    const id = known.get(value as string) ?? newId()
    known.set(value as string, id)
    return id
  })
}

/** The stack with some ids replaced, where they name something and where they refer to it; what refers elsewhere goes on doing so. */
export function withIdsReplaced(stack: Stack, replaced: ReadonlyMap<string, string>): Stack {
  return mapDocument(stackSchema, stack, (value, { names, refersTo }) =>
    renewed.includes(names ?? refersTo) ? (replaced.get(value as string) ?? value) : value,
  )
}

/** What occurs twice in a stack though it names one thing, in words for the person; undefined if nothing does. */
export function doubleName({ effects, groups, shared, pinned }: Stack): string | undefined {
  const lists = [
    ...effects.flatMap(({ where, region }) => (region ? [where, region] : [where])),
    ...[...groups, ...shared].map(({ where }) => where),
  ]
  const found = [[...effects, ...groups, ...shared], pinned, ...lists.map(({ masks }) => masks)]
    .map(firstDouble)
    .find((id) => id !== undefined)
  return found === undefined ? undefined : `the id “${found}” stands twice`
}

function firstDouble(list: readonly { readonly id: string }[]): string | undefined {
  const seen = new Set<string>()
  return list.find(({ id }) => seen.has(id) || !seen.add(id))?.id
}

/** The shared masks and pinned states that an effect reads, and those that these read in turn. */
export function readBy(effect: Effect, { shared, pinned }: Pick<Stack, 'shared' | 'pinned'>): Pick<Stack, 'shared' | 'pinned'> {
  const found = new Set<SharedMask | PinnedState>()
  const visit = (one: unknown, schema: z.ZodType): void =>
    eachRole(schema, one, (id, { refersTo }) => {
      const read =
        refersTo === 'pinned'
          ? pinned.find((state) => state.id === id)
          : refersTo === 'shared'
            ? shared.find((mask) => mask.id === id)
            : undefined
      if (!read || found.has(read)) return
      found.add(read)
      // What a pinned state shares within itself goes along as a part of it.
      if ('where' in read) visit(read, sharedMaskSchema)
      else {
        read.effects.forEach((inner) => visit(inner, effectSchema))
        read.groups.forEach((inner) => visit(inner, groupSchema))
      }
    })
  visit(effect, effectSchema)
  return { shared: shared.filter((mask) => found.has(mask)), pinned: pinned.filter((state) => found.has(state)) }
}
