import { decorrelated, emptyStack, withIdsReplaced, type Effect, type Group, type Scene } from '@welkinar/core'
import { current, isDraft } from 'immer'
import { select, useScene } from '../../scene/sceneStore'

/** A group with nothing in its way: it passes through. */
function newGroup(id: string, name: string): Group {
  return { id, name, on: true, where: { masks: [], hold: 100 }, mix: { mode: 'normal', amount: 100, linear: false } }
}

/** Members of a group stand in a row in one place of the depth line: the others follow the first. Groups without members go. */
export function settleGroups(scene: Scene): void {
  for (const group of scene.groups) {
    const members = scene.effects.filter((effect) => effect.group === group.id)
    const [first] = members
    if (!first) continue
    const at = scene.effects.indexOf(first)
    const rest = members.slice(1)
    scene.effects = scene.effects.filter((effect) => !rest.includes(effect))
    scene.effects.splice(at + 1, 0, ...rest)
    rest.forEach((effect) => (effect.place = first.place))
  }
  scene.groups = scene.groups.filter((group) => scene.effects.some((effect) => effect.group === group.id))
}

/** Puts an effect into a group of its own, or together with the one beneath it in the same place. Selects the group. */
export function groupEffect(effect: Effect, withBeneath: boolean): void {
  const id = crypto.randomUUID()
  const made = useScene.getState().change('Group', (scene) => {
    const at = scene.effects.findIndex((one) => one.id === effect.id)
    const members = scene.effects.slice(withBeneath ? at - 1 : at, at + 1)
    scene.groups.push(newGroup(id, `Group ${scene.groups.length + 1}`))
    members.forEach((one) => (one.group = id))
    settleGroups(scene)
  })
  if (made) useScene.getState().set({ selectedId: id, chosenMaskId: undefined, tool: undefined })
}

export function joinGroup(effectId: string, groupId: string | null): void {
  useScene.getState().change(groupId ? 'Into the group' : 'Out of the group', (scene) => {
    const at = scene.effects.findIndex(({ id }) => id === effectId)
    const [effect] = scene.effects.splice(at, 1)
    if (!effect) return
    // It goes to the near end of the group it enters, or leaves.
    const last = scene.effects.findLastIndex(({ group }) => group === (groupId ?? effect.group))
    const neighbour = scene.effects[last]
    effect.group = groupId
    if (neighbour) effect.place = neighbour.place
    scene.effects.splice(last < 0 ? at : last + 1, 0, effect)
    settleGroups(scene)
  })
}

/** Takes a group apart; its effects stay. */
export function ungroup(groupId: string): void {
  const { history, change, set } = useScene.getState()
  const member = history?.scene.effects.findLast(({ group }) => group === groupId)
  change('Ungroup', (scene) => {
    scene.effects.forEach((effect) => {
      if (effect.group === groupId) effect.group = null
    })
    settleGroups(scene)
  })
  set({ selectedId: member?.id, chosenMaskId: undefined, tool: undefined })
}

/** Removes a group with all that is in it. */
export function removeGroup(groupId: string): void {
  const { change, set } = useScene.getState()
  change('Remove group', (scene) => {
    scene.effects = scene.effects.filter(({ group }) => group !== groupId)
    settleGroups(scene)
  })
  set({ selectedId: useScene.getState().history?.scene.effects.at(-1)?.id, chosenMaskId: undefined, tool: undefined })
}

/**
 * Puts a copy of a group, masks and all, right in front of it; the copies share nothing with the members that the eye could see twice, and refer to one another as these do. Returns
 * the id of the copy.
 */
export function copyGroupIn(scene: Scene, groupId: string, newId: () => string): string | undefined {
  const plain: Scene = isDraft(scene) ? current(scene) : scene
  const group = plain.groups.find(({ id }) => id === groupId)
  const members = plain.effects.filter((effect) => effect.group === groupId)
  if (!group || members.length === 0) return undefined
  const ids = new Map([groupId, ...members.map(({ id }) => id)].map((id) => [id, newId()]))
  const copies = members.map((effect) => ({ ...decorrelated(effect, newId), id: effect.id }))
  const { effects, groups } = withIdsReplaced({ ...emptyStack, effects: copies, groups: [group] }, ids)
  scene.effects.splice(plain.effects.findLastIndex((effect) => effect.group === groupId) + 1, 0, ...effects)
  scene.groups.push(...groups)
  return ids.get(groupId)
}

export function duplicateGroup(groupId: string): void {
  let copy: string | undefined
  const made = useScene
    .getState()
    .change('Duplicate group', (scene) => void (copy = copyGroupIn(scene, groupId, () => crypto.randomUUID())))
  if (made) select(copy)
}

/** Whether the masks of an effect can become those of its group: it has some, and the group has none. */
export function canGiveMasks({ effects, groups }: Pick<Scene, 'effects' | 'groups'>, effectId: string): boolean {
  const effect = effects.find(({ id }) => id === effectId)
  const group = groups.find(({ id }) => id === effect?.group)
  return effect !== undefined && effect.where.masks.length > 0 && group?.where.masks.length === 0
}

/** Gives the masks of an effect to its group. */
export function giveMasksIn(scene: Pick<Scene, 'effects' | 'groups'>, effectId: string): void {
  const effect = scene.effects.find(({ id }) => id === effectId)
  const group = scene.groups.find(({ id }) => id === effect?.group)
  if (!effect || !group) return
  group.where = effect.where
  effect.where = { masks: [], hold: 100 }
}

/** Whether the masks of a group can become those of its members: it has some, and no member has any. */
export function canTakeMasks({ effects, groups }: Pick<Scene, 'effects' | 'groups'>, groupId: string): boolean {
  const group = groups.find(({ id }) => id === groupId)
  const members = effects.filter((effect) => effect.group === groupId)
  return group !== undefined && group.where.masks.length > 0 && members.every(({ where }) => where.masks.length === 0)
}

/** Gives the masks of a group to each of its members. */
export function takeMasksIn(scene: Pick<Scene, 'effects' | 'groups'>, groupId: string, newId: () => string): void {
  const group = scene.groups.find(({ id }) => id === groupId)
  if (!group) return
  const { masks, hold } = group.where
  for (const effect of scene.effects) {
    if (effect.group === groupId) effect.where = { hold, masks: masks.map((mask) => ({ ...mask, id: newId() })) }
  }
  group.where = { masks: [], hold: 100 }
}
