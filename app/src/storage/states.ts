import { UserProblem, type CheckedScene, type Scene } from '@welkinar/core'
import { database, type StoredState } from './database'
import { readScene } from './readScene'

/** A state of a scene that was kept under a name, as it is read. */
export interface KeptState {
  readonly id: number
  readonly name: string
  /** The scene as it would be with it. */
  readonly scene: CheckedScene
}

export const MOST_STATES = 60
const LONGEST_NAME = 80

/** Keeps a scene as it is now, without its photo, as one of its states. Returns the name that it got. @throws UserProblem if there are too many */
export async function keepState(scene: Scene, name: string | undefined, now: number): Promise<string> {
  return database.transaction('rw', database.states, async () => {
    const before = await database.states.where('sceneId').equals(scene.id).toArray()
    if (before.length >= MOST_STATES) {
      throw new UserProblem(`This scene has ${MOST_STATES} states, and no more can be kept: delete one in Trials first.`)
    }
    const { photo: _, ...document } = scene
    const given = name?.trim().slice(0, LONGEST_NAME) || nextName(before)
    await database.states.add({ sceneId: scene.id, name: given, made: now, document })
    return given
  })
}

function nextName(before: readonly StoredState[]): string {
  const taken = new Set(before.map(({ name }) => name))
  let number = before.length + 1
  while (taken.has(`State ${number}`)) number++
  return `State ${number}`
}

/** The states of a scene, the last first; what cannot be read of one is left out, and one that cannot be read at all stays stored. */
export async function statesOf(scene: Pick<Scene, 'id' | 'photo'>): Promise<KeptState[]> {
  const stored = await database.states.where('sceneId').equals(scene.id).reverse().sortBy('made')
  return stored.flatMap(({ id = 0, name, document }) => {
    const read = readScene({ document: { ...(document as object), id: scene.id, photo: scene.photo } })
    return 'scene' in read ? [{ id, name, scene: read.scene }] : []
  })
}

export async function renameState(id: number, name: string): Promise<void> {
  await database.states.update(id, { name: name.slice(0, LONGEST_NAME) })
}

/** Deletes a state. Returns it, so that it can be put back. @throws UserProblem if it is not there any more */
export async function deleteState(id: number): Promise<StoredState> {
  return database.transaction('rw', database.states, async () => {
    const state = await database.states.get(id)
    if (!state) throw new UserProblem('This state is not there any more.')
    await database.states.delete(id)
    return state
  })
}

export async function putBackState(state: StoredState): Promise<void> {
  await database.states.put(state)
}
