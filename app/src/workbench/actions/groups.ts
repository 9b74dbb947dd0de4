import type { Effect, Group, Scene } from '@welkinar/core'
import { useScene } from '../../scene/sceneStore'

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
