import { z } from 'zod'
import { effectSchema, type Effect } from '../effects/registry'
import { fitLengths, type Fit } from './lengths'
import { groupSchema, type Where } from './look'

const stackParts = {
  /** From far to near. */
  effects: z.array(effectSchema).max(200),
  groups: z.array(groupSchema).max(100),
}

/** The effects and groups beneath an effect at the moment when they were pinned. */
const pinnedStateSchema = z.strictObject({ id: z.string().min(1), name: z.string().min(1).max(80), ...stackParts })
export type PinnedState = z.infer<typeof pinnedStateSchema>

/** What is laid over a photo: effects, their groups, and the pinned states that masks read. */
export const stackShape = { ...stackParts, pinned: z.array(pinnedStateSchema).max(60) }
const stackSchema = z.strictObject(stackShape)
export type Stack = z.infer<typeof stackSchema>

export const emptyStack: Stack = { effects: [], groups: [], pinned: [] }

/** The stack with its lengths and places fitted to another photo. */
export function fitStack({ effects, groups, pinned }: Stack, fit: Fit): Stack {
  return fitLengths(stackSchema, { effects, groups, pinned }, fit)
}

/** The stack with new ids for its effects, groups and pinned states, so that it can be laid on a scene twice. References follow. */
export function withNewIds(stack: Stack, newId: () => string): Stack {
  const known = new Map<string, string>()
  const renewed = (id: string): string => {
    const found = known.get(id) ?? newId()
    known.set(id, found)
    return found
  }
  const where = ({ masks, hold }: Where): Where => ({
    hold,
    masks: masks.map((mask) => {
      if ('pinned' in mask && mask.pinned !== null) return { ...mask, pinned: renewed(mask.pinned) }
      return mask.kind === 'pattern' && mask.effectId !== null ? { ...mask, effectId: renewed(mask.effectId) } : mask
    }),
  })
  const readingOthers = ({ controls }: Effect): Effect['controls'] => {
    const { of } = controls.pattern as { of?: string | null }
    return of ? { ...controls, pattern: { ...controls.pattern, of: renewed(of) } } : controls
  }
  const layers = ({ effects, groups }: Pick<Stack, 'effects' | 'groups'>): Pick<Stack, 'effects' | 'groups'> => ({
    effects: effects.map((effect) => ({
      ...effect,
      id: renewed(effect.id),
      controls: readingOthers(effect),
      group: effect.group === null ? null : renewed(effect.group),
      where: where(effect.where),
      region: effect.region && where(effect.region),
    })),
    groups: groups.map((group) => ({ ...group, id: renewed(group.id), where: where(group.where) })),
  })
  return { ...layers(stack), pinned: stack.pinned.map(({ id, name, ...state }) => ({ id: renewed(id), name, ...layers(state) })) }
}
