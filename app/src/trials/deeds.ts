import { showNotice, showProblem } from '../common/notices'
import { useScene } from '../scene/sceneStore'
import { addSceneLike } from '../storage/scenes'
import { deleteState, keepState, putBackState, renameState } from '../storage/states'
import type { ShownTrial } from './sheet'
import type { TrialDeeds } from './TrialCard'
import { putAway, useTrials } from './trialsStore'

/** Takes a trial into the open scene, as one step. Returns whether it was taken. */
export function takeTrial({ words, change }: ShownTrial): boolean {
  return useScene.getState().change(`Trial: ${words}`, change)
}

function attempt(work: Promise<unknown>, doing: string): void {
  work.catch((error: unknown) => showProblem(error, doing))
}

const asScene = (trial: ShownTrial) => ({
  label: 'Keep as a scene of its own',
  run: () =>
    attempt(
      addSceneLike(trial.scene, trial.words, Date.now()).then(() => showNotice(`“${trial.words}” is a scene of its own on the Shelf now.`)),
      'Keeping the trial',
    ),
})

const asState = (trial: ShownTrial) => ({
  label: 'Keep as a state',
  run: () =>
    attempt(
      keepState(trial.scene, trial.words, Date.now()).then((name) => showNotice(`“${name}” is among the kept states now.`)),
      'Keeping the trial',
    ),
})

/** What can be done with a variant. @param take takes it over and leaves */
export function deedsOfVariants(take: (trial: ShownTrial) => void): TrialDeeds {
  return {
    take,
    rename: ({ id }, name) => useTrials.setState(({ names }) => ({ names: { ...names, [id]: name } })),
    remove: ({ id }) => putAway(id),
    removing: 'Put away',
    more: (trial) => [asState(trial), asScene(trial)],
  }
}

/** What can be done with a kept state. @param take takes it over and leaves */
export function deedsOfKept(take: (trial: ShownTrial) => void): TrialDeeds {
  const remove = async ({ stateId = 0, words }: ShownTrial): Promise<void> => {
    const state = await deleteState(stateId)
    const undo = (): void => attempt(putBackState(state), 'Undoing')
    showNotice(`The state “${words}” was deleted.`, { label: 'Undo', run: undo })
  }
  return {
    take,
    rename: ({ stateId = 0 }, name) => attempt(renameState(stateId, name), 'Renaming'),
    remove: (trial) => attempt(remove(trial), 'Deleting'),
    removing: 'Delete',
    more: (trial) => [asScene(trial)],
  }
}
