import { showNotice } from '../../common/notices'
import { useScene } from '../../scene/sceneStore'

/** Says what the latest step did, with the way to undo that step, as long as it is the latest. */
export function showUndoable(text: string): void {
  const done = useScene.getState().history
  const entry = done?.entries[done.position - 1]
  showNotice(text, {
    label: 'Undo',
    run() {
      const { history, undo } = useScene.getState()
      if (history && history.entries[history.position - 1] === entry) undo()
      else showNotice('Something else was done since; undo it step by step.')
    },
  })
}
