import {
  definitionOf,
  findOwner,
  isEffect,
  Refusal,
  UserProblem,
  type CheckedScene,
  type Effect,
  type EffectKind,
  type Mask,
  type MaskListRef,
  type Owner,
  type Scene,
  type SharedMask,
  type StepName,
  type Where,
} from '@welkinar/core'
import { freeze, produce } from 'immer'
import { create } from 'zustand'
import { showProblem } from '../common/notices'
import type { HistoryEntry } from '../storage/database'
import { endGestureLater } from './gestures'
import { fittedPlace, freshView, type PaintedStroke, type Panel, type ViewState } from './viewState'
import { applyChange, goTo, redo, undo, withoutEntry, type SceneChange, type SceneHistory } from './history'
import { lived, readOnlyBy, type ReadOnly, type SceneLife } from './sceneLife'

/** A scene as it is stored, with its steps. */
interface Stored {
  readonly scene: CheckedScene
  readonly history: readonly HistoryEntry[]
  readonly position: number
}

interface SceneState extends ViewState {
  readonly history: SceneHistory | undefined
  readonly life: SceneLife
  /** The opening whose scene is shown: what another one says is not listened to. */
  readonly opening: symbol | undefined
  open(opening: symbol, stored: Stored): void
  /** Shows the scene as another tab has saved it. Returns whether it is that of this opening. */
  follow(opening: symbol, stored: Stored): boolean
  /** What the shown scene goes through. Returns whether it is that of this opening. */
  live(opening: symbol, life: SceneLife): boolean
  close(opening: symbol): void
  /** Changes the scene, if the change leaves it valid; else says why not. Returns whether it was made. */
  change(label: string, change: SceneChange, gesture?: string): boolean
  /** Changes the scene by what nobody did, which cannot be undone. */
  settle(change: SceneChange): void
  /**
   * Shows the scene with a change that is not made; without one, as it is.
   * @param painted the stroke that the change lays, if that is all it does
   */
  try(change: SceneChange | undefined, painted?: PaintedStroke): void
  undo(): void
  redo(): void
  /** Goes back or on to where so many steps are done. */
  goTo(position: number): void
  set(part: Partial<ViewState>): void
}

export const useScene = create<SceneState>()((set, get) => ({
  history: undefined,
  life: { is: 'closed' },
  opening: undefined,
  selectedId: undefined,
  place: { zoom: 'fit', centreX: 0, centreY: 0 },
  shownZoom: 1,
  ...freshView,
  open: (opening, { scene, history, position }) =>
    set({
      ...freshView,
      opening,
      life: { is: 'opening' },
      history: { scene: freeze(scene, true), entries: history, position, gesture: undefined },
      selectedId: scene.effects.at(-1)?.id,
      place: fittedPlace(scene),
    }),
  follow: (opening, { scene, history, position }) => {
    if (get().opening !== opening) return false
    show({ scene: freeze(scene, true), entries: history, position, gesture: undefined })
    return true
  },
  live: (opening, next) => {
    const state = get()
    if (state.opening !== opening) return false
    const life = lived(state.life, next)
    if (life !== state.life) set(life.is === 'reading only' ? { life, tool: undefined } : { life })
    return true
  },
  close: (opening) => {
    if (get().live(opening, { is: 'closed' })) set({ history: undefined, opening: undefined, selectedId: undefined })
  },
  change: (label, change, gesture) => {
    const { history, life } = get()
    const readOnly = readOnlyBy(life)
    if (!history) return false
    if (readOnly) return refuse(readOnlyWords[readOnly])
    const changed = applyChange(history, label, change, Date.now(), gesture)
    if (changed instanceof Refusal) return refuse(changed.reason)
    if (gesture !== undefined) endGestureLater(() => endGesture(gesture))
    set({ history: changed, trial: undefined, painted: undefined })
    return true
  },
  settle: (change) => {
    const { history, life } = get()
    const changed = history && !readOnlyBy(life) && withoutEntry(history, change)
    if (changed instanceof Refusal) throw new Error(changed.reason)
    if (changed) set({ history: changed })
  },
  try: (change, painted) => {
    const scene = get().history?.scene
    const trial = scene && change ? produce(scene as Scene, (draft) => change(draft as Scene)) : undefined
    if (trial !== get().trial) set({ trial, painted })
  },
  undo: () => step(undo),
  redo: () => step(redo),
  goTo: (position) => step((history, now) => goTo(history, position, now)),
  set,
}))

const readOnlyWords: Record<ReadOnly, string> = {
  'another tab': 'This scene is being changed in another tab. Choose “Go on here” to change it in this one.',
  gone: 'This scene was deleted in another tab.',
  newer: 'This scene was made by a newer Welkinar; this one can only show it.',
  'no room': 'What could not be read of this scene could not be set aside, so it can only be looked at.',
}

function refuse(reason: string): false {
  showProblem(new UserProblem(reason), 'Changing the scene')
  return false
}

/** What comes after a gesture is a step of its own, also when it changes the same thing. */
function endGesture(gesture: string): void {
  const { history } = useScene.getState()
  if (history?.gesture === gesture) useScene.setState({ history: { ...history, gesture: undefined } })
}

function step(move: (history: SceneHistory, now: number) => SceneHistory | Refusal): void {
  const { history, life } = useScene.getState()
  const readOnly = readOnlyBy(life)
  if (!history) return
  if (readOnly) return void refuse(readOnlyWords[readOnly])
  const moved = move(history, Date.now())
  if (moved instanceof Refusal) return void refuse(moved.reason)
  show(moved)
}

/** Shows another state of the scene; what was selected stays so as long as it is there. */
function show(history: SceneHistory): void {
  const selected = findOwner(history.scene, useScene.getState().selectedId) ?? history.scene.effects.at(-1)
  useScene.setState({ history, selectedId: selected?.id, trial: undefined, painted: undefined })
}

/** Why the scene that is shown cannot be changed, if it cannot. */
export function useReadOnly(): ReadOnly | undefined {
  return useScene(({ life }) => readOnlyBy(life))
}

/** Selects an effect or group; what was chosen in the one before is let go. */
export function select(id: string | undefined): void {
  const { selectedId, set } = useScene.getState()
  if (id === selectedId) set({ panel: 'steps', adding: undefined, panelOpen: true })
  else
    set({
      selectedId: id,
      panel: 'steps',
      adding: undefined,
      panelOpen: true,
      chosenMaskId: undefined,
      chosenGlint: undefined,
      tool: undefined,
      maskScope: 'all',
    })
}

/** The selected effect or group of the open scene. */
export function useSelectedOwner(): Owner | undefined {
  return useScene(({ history, selectedId }) => history && findOwner(history.scene, selectedId))
}

/**
 * The chosen mask of a list: the one with the id, or the shared one that has it within; the first if none was chosen.
 * @param shared the shared masks of the scene
 */
export function chosenMask(
  list: Where | undefined,
  chosenId: string | undefined,
  shared: readonly SharedMask[] | undefined = undefined,
): Mask | undefined {
  const has = (mask: Mask): boolean =>
    mask.kind === 'shared' && (shared?.find(({ id }) => id === mask.of)?.where.masks.some(({ id }) => id === chosenId) ?? false)
  return list?.masks.find(({ id }) => id === chosenId) ?? list?.masks.find(has) ?? list?.masks[0]
}

/** The list of masks that is edited: the region of an effect while its step is open, else where the effect or group may be. */
export function editedList(owner: Owner | undefined, openStep: StepName | undefined): MaskListRef | undefined {
  if (!owner) return undefined
  const region = isEffect(owner) ? definitionOf(owner.kind).region : undefined
  return { owner: owner.id, list: region && region.step === openStep ? 'region' : 'where' }
}

/** Changes an effect or group of the open scene. */
export function changeOwner(id: string, label: string, change: (owner: Owner) => void, gesture?: string): void {
  useScene.getState().change(
    label,
    (scene) => {
      const owner = findOwner(scene, id)
      if (owner) change(owner)
    },
    gesture,
  )
}

/** Changes one effect of the open scene. */
export function changeEffect(id: string, label: string, change: (effect: Effect) => void, gesture?: string): void {
  changeOwner(id, label, (owner) => isEffect(owner) && change(owner), gesture)
}

/** Changes one effect of a kind. */
export function changeKind<K extends EffectKind>(
  kind: K,
  id: string,
  label: string,
  change: (effect: EffectOf<K>) => void,
  gesture?: string,
): void {
  changeEffect(id, label, (effect) => effect.kind === kind && change(effect as EffectOf<K>), gesture)
}

export type EffectOf<K extends EffectKind> = Extract<Effect, { kind: K }>

/** Changes a list of masks of the open scene. */
export function changeMaskList(ref: MaskListRef, label: string, change: (list: Where) => void, gesture?: string): boolean {
  return useScene.getState().change(label, (scene) => withList(scene, ref, change), gesture)
}

/** Changes one mask of a list. */
export function changeMask<M extends Mask>(ref: MaskListRef, mask: M, label: string, change: (mask: M) => void, gesture?: string): void {
  useScene.getState().change(label, maskChange(ref, mask, change), gesture && `${mask.id} ${gesture}`)
}

/** A change of one mask, for making it or only trying it. */
export function maskChange<M extends Mask>(ref: MaskListRef, mask: M, change: (mask: M) => void): SceneChange {
  return (scene) =>
    withList(scene, ref, ({ masks }) => {
      const target = masks.find(({ id }) => id === mask.id)
      if (target) change(target as M)
    })
}

function withList(scene: Scene, ref: MaskListRef, change: (list: Where) => void): void {
  const owner = findOwner(scene, ref.owner)
  if (ref.list === 'region' && owner && isEffect(owner)) owner.region ??= { masks: [], hold: 100 }
  const list = listIn(scene, ref)
  if (list) change(list)
}

/** A list of masks of a scene that is being changed: of an effect, a group or a shared mask. */
export function listIn(scene: Scene, { owner: id, list }: MaskListRef): Where | undefined {
  const owner = findOwner(scene, id)
  if (!owner) return scene.shared.find((mask) => mask.id === id)?.where
  if (list === 'where') return owner.where
  return isEffect(owner) ? (owner.region ?? undefined) : undefined
}

/** Shows another panel at the right, or the steps again if it is shown already. */
export function togglePanel(panel: Panel): void {
  const state = useScene.getState()
  const open = state.panel === panel && state.panelOpen && state.adding === undefined
  state.set({ panel: open ? 'steps' : panel, panelOpen: true, adding: undefined, tool: undefined })
}
