import { z } from 'zod'
import { percentControl } from './controls'
import { effectSchema, type Effect } from '../effects/registry'
import { fitLengths, type Fit } from './lengths'
import { groupSchema, type Group } from './look'
import { idOf, listOf, type Named } from './roles'
import { eachRole, mapDocument } from './walk'

const stackParts = {
  /** From far to near. */
  effects: listOf(effectSchema, 200, 'effects'),
  groups: listOf(groupSchema, 100, 'groups'),
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

export const emptyStack: Stack = { effects: [], groups: [], pinned: [] }

/** The stack with its lengths and places fitted to another photo. */
export function fitStack({ effects, groups, pinned }: Stack, fit: Fit): Stack {
  return fitLengths(stackSchema, { effects, groups, pinned }, fit)
}

const renewed: readonly (Named | undefined)[] = ['effect', 'group', 'pinned']

/** The stack with new ids for its effects, groups and pinned states, so that it can be laid on a scene twice. References follow. */
export function withNewIds(stack: Stack, newId: () => string): Stack {
  const known = new Map<string, string>()
  return mapDocument(stackSchema, stack, (value, { names, refersTo }) => {
    if (!renewed.includes(names ?? refersTo)) return value
    const id = known.get(value as string) ?? newId()
    known.set(value as string, id)
    return id
  })
}

/** What occurs twice in a stack though it names one thing, in words for the person; undefined if nothing does. */
export function doubleName({ effects, groups, pinned }: Stack): string | undefined {
  const lists = [...effects.flatMap(({ where, region }) => (region ? [where, region] : [where])), ...groups.map(({ where }) => where)]
  const found = [[...effects, ...groups], pinned, ...lists.map(({ masks }) => masks)].map(firstDouble).find((id) => id !== undefined)
  return found === undefined ? undefined : `the id “${found}” stands twice`
}

function firstDouble(list: readonly { readonly id: string }[]): string | undefined {
  const seen = new Set<string>()
  return list.find(({ id }) => seen.has(id) || !seen.add(id))?.id
}

/** The pinned states that the masks of an effect read, and those that these read in turn. */
export function pinnedStatesOf(effect: Effect, pinned: readonly PinnedState[]): PinnedState[] {
  const found = new Set<PinnedState>()
  const visit = (one: Effect | Group, schema: z.ZodType): void =>
    eachRole(schema, one, (id, { refersTo }) => {
      const state = refersTo === 'pinned' ? pinned.find((candidate) => candidate.id === id) : undefined
      if (!state || found.has(state)) return
      found.add(state)
      state.effects.forEach((inner) => visit(inner, effectSchema))
      state.groups.forEach((inner) => visit(inner, groupSchema))
    })
  visit(effect, effectSchema)
  return pinned.filter((state) => found.has(state))
}
