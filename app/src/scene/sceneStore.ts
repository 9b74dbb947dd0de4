import { effectOfRegion, findOwner, isEffect, type Effect, type Mask, type Owner, type Scene, type StepName } from '@welkinar/core'
import { freeze, produce } from 'immer'
import { create } from 'zustand'
import type { HistoryEntry } from '../storage/database'
import { applyChange, redo, undo, type SceneChange, type SceneHistory } from './history'

/** How the picture is compared with the photo. */
export type Compare = 'after' | 'before' | 'split'
/** How the mask of the selected effect is seen. */
export type MaskView = 'off' | 'grey' | 'hatch'
/** Whether the mask that is seen is the chosen one alone or the whole list. */
export type MaskScope = 'one' | 'all'
/** What a tap or a drag on the photo does; without a tool it moves the photo. */
export type PhotoTool =
  | { readonly kind: 'paint' }
  | { readonly kind: 'outline'; readonly hole: boolean }
  | { readonly kind: 'region' }
  | { readonly kind: 'tap similar' }
  | { readonly kind: 'pick hue' }
  | { readonly kind: 'glints' }
  | { readonly kind: 'path' }
  | { readonly kind: 'mark'; readonly mark: 'light' | 'horizon' | 'waterline' | 'focal' }

/** Where the photo lies in the view: `zoom` css px per photo px, or fitted; `centre` in photo px. */
export interface ViewPlace {
  readonly zoom: number | 'fit'
  readonly centreX: number
  readonly centreY: number
}

/** How the scene is looked at. Nothing of it is kept with the scene. */
interface ViewState {
  /** The selected effect or group. */
  readonly selectedId: string | undefined
  /** Whether the panel at the right is in sight. */
  readonly panelOpen: boolean
  /** The panel shows the scene itself: its marks and its depth. */
  readonly sceneOpen: boolean
  readonly openStep: StepName | undefined
  readonly chosenMaskId: string | undefined
  readonly tool: PhotoTool | undefined
  readonly place: ViewPlace
  readonly compare: Compare
  /** Held down: the photo shows while the key or button is down. */
  readonly holdingBefore: boolean
  /** Held down: the picture shows the selected effect without its mask. */
  readonly holdingUnmasked: boolean
  /** Held down: the selected effect shows at three times its strength. */
  readonly exaggerating: boolean
  /** A place of an effect while its handle is dragged; the effect is drawn weakly until it rests. */
  readonly placing: { readonly effectId: string; readonly x: number; readonly y: number } | undefined
  /** Whether the patterns move in the picture. */
  readonly playing: boolean
  /** 0-1 across the photo. */
  readonly splitAt: number
  readonly maskView: MaskView
  readonly maskScope: MaskScope
  /** Css px per photo px as the view shows it now, also when it is fitted. */
  readonly shownZoom: number
  /** The scene as it would be with a choice that is only being tried; the view shows it, nothing keeps it. */
  readonly trial: Scene | undefined
}

interface SceneState extends ViewState {
  readonly history: SceneHistory | undefined
  open(scene: Scene, entries: readonly HistoryEntry[], position: number): void
  close(): void
  change(label: string, change: SceneChange, gesture?: string): void
  /** Shows the scene with a change that is not made; without one, as it is. */
  try(change: SceneChange | undefined): void
  undo(): void
  redo(): void
  set(part: Partial<ViewState>): void
}

const freshView = {
  panelOpen: true,
  sceneOpen: false,
  openStep: undefined,
  chosenMaskId: undefined,
  tool: undefined,
  compare: 'after',
  holdingBefore: false,
  holdingUnmasked: false,
  exaggerating: false,
  placing: undefined,
  playing: false,
  splitAt: 0.5,
  maskView: 'off',
  maskScope: 'all',
  trial: undefined,
} satisfies Partial<ViewState>

export const useScene = create<SceneState>()((set, get) => ({
  history: undefined,
  selectedId: undefined,
  place: { zoom: 'fit', centreX: 0, centreY: 0 },
  shownZoom: 1,
  ...freshView,
  open: (scene, entries, position) =>
    set({
      ...freshView,
      history: { scene: freeze(scene, true), entries, position, gesture: undefined },
      selectedId: scene.effects.at(-1)?.id,
      place: { zoom: 'fit', centreX: scene.photo.width / 2, centreY: scene.photo.height / 2 },
    }),
  close: () => set({ history: undefined, selectedId: undefined }),
  change: (label, change, gesture) => {
    const { history } = get()
    if (history) set({ history: applyChange(history, label, change, Date.now(), gesture), trial: undefined })
  },
  try: (change) => {
    const scene = get().history?.scene
    const trial = scene && change ? produce(scene, (draft) => change(draft as Scene)) : undefined
    if (trial !== get().trial) set({ trial })
  },
  undo: () => step(undo),
  redo: () => step(redo),
  set,
}))

function step(move: (history: SceneHistory, now: number) => SceneHistory): void {
  const { history, selectedId } = useScene.getState()
  if (!history) return
  const moved = move(history, Date.now())
  const selected = findOwner(moved.scene, selectedId) ?? moved.scene.effects.at(-1)
  useScene.setState({ history: moved, selectedId: selected?.id, trial: undefined })
}

/** Selects an effect or group; what was chosen in the one before is let go. */
export function select(id: string | undefined): void {
  const { selectedId, set } = useScene.getState()
  if (id === selectedId) set({ sceneOpen: false, panelOpen: true })
  else set({ selectedId: id, sceneOpen: false, panelOpen: true, chosenMaskId: undefined, tool: undefined, maskScope: 'all' })
}

/** The selected effect or group of the open scene. */
export function useSelectedOwner(): Owner | undefined {
  return useScene(({ history, selectedId }) => history && findOwner(history.scene, selectedId))
}

/** The chosen mask of an effect or group: the first of its list if none was chosen. */
export function chosenMask(owner: Owner | undefined, chosenId: string | undefined): Mask | undefined {
  return owner?.where.masks.find(({ id }) => id === chosenId) ?? owner?.where.masks[0]
}

/** Changes an effect or group of the open scene. */
export function changeOwner(id: string, label: string, change: (owner: Owner) => void, gesture?: string): void {
  useScene.getState().change(label, (scene) => withOwner(scene, id, change), gesture)
}

/** Changes one effect of the open scene. */
export function changeEffect(id: string, label: string, change: (effect: Effect) => void, gesture?: string): void {
  changeOwner(id, label, (owner) => isEffect(owner) && change(owner), gesture)
}

/** Changes one mask of an effect or group. */
export function changeMask<M extends Mask>(ownerId: string, mask: M, label: string, change: (mask: M) => void, gesture?: string): void {
  useScene.getState().change(label, maskChange(ownerId, mask, change), gesture && `${mask.id} ${gesture}`)
}

/** A change of one mask, for making it or only trying it. */
export function maskChange<M extends Mask>(ownerId: string, mask: M, change: (mask: M) => void): SceneChange {
  return (scene) =>
    withOwner(scene, ownerId, ({ where }) => {
      const target = where.masks.find(({ id }) => id === mask.id)
      if (target) change(target as M)
    })
}

function withOwner(scene: Scene, id: string, change: (owner: Owner) => void): void {
  const regionOf = effectOfRegion(id)
  if (regionOf !== undefined) return withRegion(scene, regionOf, change)
  const owner = findOwner(scene, id)
  if (owner) change(owner)
}

/** Changes the region of an effect, which is edited like the mask of an owner of its own. */
function withRegion(scene: Scene, effectId: string, change: (owner: Owner) => void): void {
  const effect = scene.effects.find((one) => one.id === effectId)
  if (!effect) return
  effect.region ??= { masks: [], hold: 100 }
  change({ ...effect, where: effect.region })
}
