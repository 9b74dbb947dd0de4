import type { Effect, Scene, StepName } from '@welkinar/core'
import { create } from 'zustand'
import type { HistoryEntry } from '../storage/database'
import { applyChange, redo, undo, type SceneChange, type SceneHistory } from './history'

/** How the picture is compared with the photo. */
export type Compare = 'after' | 'before' | 'split'
/** How the mask of the selected effect is seen. */
export type MaskView = 'off' | 'grey' | 'hatch'

/** Where the photo lies in the view: `zoom` css px per photo px, or fitted; `centre` in photo px. */
export interface ViewPlace {
  readonly zoom: number | 'fit'
  readonly centreX: number
  readonly centreY: number
}

interface SceneState {
  readonly history: SceneHistory | undefined
  readonly selectedId: string | undefined
  readonly openStep: StepName | undefined
  readonly place: ViewPlace
  readonly compare: Compare
  /** Held down: the photo shows while the key or button is down. */
  readonly holdingBefore: boolean
  /** 0-1 across the photo. */
  readonly splitAt: number
  readonly maskView: MaskView
  /** Css px per photo px as the view shows it now, also when it is fitted. */
  readonly shownZoom: number
  open(scene: Scene, entries: readonly HistoryEntry[], position: number): void
  close(): void
  change(label: string, change: SceneChange, gesture?: string): void
  undo(): void
  redo(): void
  set(
    part: Partial<
      Pick<SceneState, 'selectedId' | 'openStep' | 'place' | 'compare' | 'holdingBefore' | 'splitAt' | 'maskView' | 'shownZoom'>
    >,
  ): void
}

const freshView = {
  openStep: undefined as StepName | undefined,
  compare: 'after' as Compare,
  holdingBefore: false,
  splitAt: 0.5,
  maskView: 'off' as MaskView,
}

export const useScene = create<SceneState>()((set, get) => ({
  history: undefined,
  selectedId: undefined,
  place: { zoom: 'fit', centreX: 0, centreY: 0 },
  shownZoom: 1,
  ...freshView,
  open: (scene, entries, position) =>
    set({
      ...freshView,
      history: { scene, entries, position, gesture: undefined },
      selectedId: scene.effects.at(-1)?.id,
      place: { zoom: 'fit', centreX: scene.photo.width / 2, centreY: scene.photo.height / 2 },
    }),
  close: () => set({ history: undefined, selectedId: undefined }),
  change: (label, change, gesture) => {
    const { history } = get()
    if (history) set({ history: applyChange(history, label, change, Date.now(), gesture) })
  },
  undo: () => step(undo),
  redo: () => step(redo),
  set,
}))

function step(move: (history: SceneHistory, now: number) => SceneHistory): void {
  const { history, selectedId } = useScene.getState()
  if (!history) return
  const moved = move(history, Date.now())
  const { effects } = moved.scene
  const stillThere = effects.some(({ id }) => id === selectedId)
  useScene.setState({ history: moved, selectedId: stillThere ? selectedId : effects.at(-1)?.id })
}

/** The selected effect of the open scene. */
export function useSelectedEffect(): Effect | undefined {
  return useScene(({ history, selectedId }) => history?.scene.effects.find(({ id }) => id === selectedId))
}

/** Changes one effect of the open scene. */
export function changeEffect(id: string, label: string, change: (effect: Effect) => void, gesture?: string): void {
  useScene.getState().change(
    label,
    (scene) => {
      const effect = scene.effects.find((candidate) => candidate.id === id)
      if (effect) change(effect)
    },
    gesture,
  )
}
