import {
  definitionOf,
  findOwner,
  frameOfSource,
  isEffect,
  middleOf,
  Refusal,
  UserProblem,
  type CheckedScene,
  type DepthPlace,
  type Effect,
  type EffectKind,
  type GraphNode,
  type Mask,
  type MaskListRef,
  type Owner,
  type PictureSource,
  type Rgb,
  type Scene,
  type StepName,
  type Where,
} from '@welkinar/core'
import { freeze, produce } from 'immer'
import { create } from 'zustand'
import { showProblem } from '../common/notices'
import type { HistoryEntry } from '../storage/database'
import { endGestureLater } from './gestures'
import { applyChange, redo, undo, type SceneChange, type SceneHistory } from './history'

/** How the picture is compared with the photo. */
export type Compare = 'after' | 'before' | 'split'
/** A state of the scene to compare with. */
export interface ComparedState {
  readonly name: string
  readonly source: PictureSource
}
/** How the mask of the selected effect is seen. */
export type MaskView = 'off' | 'grey' | 'hatch'
export type Panel = 'steps' | 'marks' | 'photo'
/** Whether the mask that is seen is the chosen one alone or the whole list. */
export type MaskScope = 'one' | 'all'
/** What a tap or a drag on the photo does; without a tool it moves the photo. */
export type PhotoTool =
  | { readonly kind: 'paint' }
  | { readonly kind: 'outline'; readonly hole: boolean; readonly by: 'corners' | 'freehand' }
  | { readonly kind: 'region' }
  | { readonly kind: 'tap similar' }
  | Dropper
  | { readonly kind: 'glints' }
  | { readonly kind: 'path' }
  | { readonly kind: 'crop' }
  | { readonly kind: 'level' }
  | { readonly kind: 'mend' }
  | { readonly kind: 'watch' }
  | { readonly kind: 'mark'; readonly mark: 'light' | 'horizon' | 'waterline' | 'focal' }

/** Takes a colour from the photo. */
export interface Dropper {
  readonly kind: 'dropper'
  /** What it is the colour of. */
  readonly what: string
  /** The tones that it is read from; else the photo, or what lies beneath the selected effect. */
  readonly tones?: GraphNode | undefined
  /** @param hex the same, rounded */
  take(colour: Rgb, hex: string): void
}

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
  /** Whether the depth line is in sight, or folded to a strip. */
  readonly lineOpen: boolean
  /** The place of the depth line for which looks are offered at the right. */
  readonly adding: DepthPlace | undefined
  /** What the panel at the right shows: the steps of the selected effect, the marks of the scene, or the groundwork of the photo. */
  readonly panel: Panel
  readonly openStep: StepName | undefined
  readonly chosenMaskId: string | undefined
  /** The place, photo px, whose effects are listed. */
  readonly askedAt: { readonly x: number; readonly y: number } | undefined
  /** Which glint of the selected effect is chosen. */
  readonly chosenGlint: number | undefined
  readonly tool: PhotoTool | undefined
  /** Width by height that a crop keeps; free without it. */
  readonly cropShape: number | undefined
  /** Which repair of the photo is chosen. */
  readonly chosenRepair: string | undefined
  readonly place: ViewPlace
  readonly compare: Compare
  /** The state of the scene that Split and Before show; the photo as it came without one. */
  readonly against: ComparedState | undefined
  /** Held down: the photo shows while the key or button is down. */
  readonly holdingBefore: boolean
  /** Held down: the picture shows without the selected effect or group. */
  readonly holdingWithout: boolean
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
  /** Whether the watch column is in sight. */
  readonly watchOpen: boolean
  /** Whether what is newly clipped is marked. */
  readonly marksClipped: boolean
  /** The picture the other way round, only for looking. */
  readonly mirrored: boolean
  /** The picture and what it is compared with in turn. */
  readonly blinking: boolean
  /** Where on the photo the pointer is, px; nothing where it is elsewhere. */
  readonly pointerAt: { readonly x: number; readonly y: number } | undefined
  readonly maskView: MaskView
  readonly maskScope: MaskScope
  /** Css px per photo px as the view shows it now, also when it is fitted. */
  readonly shownZoom: number
  /** The scene as it would be with a choice that is only being tried; the view shows it, nothing keeps it. */
  readonly trial: Scene | undefined
}

/** Why the scene cannot be changed here; nothing while it can. */
export type ReadOnly = 'another tab' | 'gone'

interface SceneState extends ViewState {
  readonly history: SceneHistory | undefined
  readonly readOnly: ReadOnly | undefined
  open(scene: CheckedScene, entries: readonly HistoryEntry[], position: number): void
  /** Shows the scene as another tab has saved it. */
  follow(scene: CheckedScene, entries: readonly HistoryEntry[], position: number): void
  close(): void
  /** Changes the scene, if the change leaves it valid; else says why not. Returns whether it was made. */
  change(label: string, change: SceneChange, gesture?: string): boolean
  /** Shows the scene with a change that is not made; without one, as it is. */
  try(change: SceneChange | undefined): void
  undo(): void
  redo(): void
  set(part: Partial<ViewState>): void
}

const freshView = {
  panelOpen: true,
  lineOpen: true,
  adding: undefined,
  panel: 'steps',
  cropShape: undefined,
  chosenRepair: undefined,
  openStep: undefined,
  chosenMaskId: undefined,
  chosenGlint: undefined,
  askedAt: undefined,
  tool: undefined,
  compare: 'after',
  against: undefined,
  holdingBefore: false,
  holdingWithout: false,
  holdingUnmasked: false,
  exaggerating: false,
  placing: undefined,
  playing: false,
  splitAt: 0.5,
  watchOpen: false,
  marksClipped: false,
  mirrored: false,
  blinking: false,
  pointerAt: undefined,
  maskView: 'off',
  maskScope: 'all',
  trial: undefined,
} satisfies Partial<ViewState>

export const useScene = create<SceneState>()((set, get) => ({
  history: undefined,
  readOnly: undefined,
  selectedId: undefined,
  place: { zoom: 'fit', centreX: 0, centreY: 0 },
  shownZoom: 1,
  ...freshView,
  open: (scene, entries, position) =>
    set({
      ...freshView,
      history: { scene: freeze(scene, true), entries, position, gesture: undefined },
      selectedId: scene.effects.at(-1)?.id,
      place: fittedPlace(scene),
    }),
  follow: (scene, entries, position) => show({ scene: freeze(scene, true), entries, position, gesture: undefined }),
  close: () => set({ history: undefined, readOnly: undefined, selectedId: undefined }),
  change: (label, change, gesture) => {
    const { history, readOnly } = get()
    if (!history) return false
    if (readOnly) return refuse(readOnlyWords[readOnly])
    const changed = applyChange(history, label, change, Date.now(), gesture)
    if (changed instanceof Refusal) return refuse(changed.reason)
    if (gesture !== undefined) endGestureLater(() => endGesture(gesture))
    set({ history: changed, trial: undefined })
    return true
  },
  try: (change) => {
    const scene = get().history?.scene
    const trial = scene && change ? produce(scene as Scene, (draft) => change(draft as Scene)) : undefined
    if (trial !== get().trial) set({ trial })
  },
  undo: () => step(undo),
  redo: () => step(redo),
  set,
}))

/** All of what is shown of the photo in view, and its middle for other zooms. */
function fittedPlace(scene: Scene): ViewPlace {
  const { x: centreX, y: centreY } = middleOf(frameOfSource(scene))
  return { zoom: 'fit', centreX, centreY }
}

const readOnlyWords: Record<ReadOnly, string> = {
  'another tab': 'This scene is being changed in another tab. Choose “Go on here” to change it in this one.',
  gone: 'This scene was deleted in another tab.',
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
  const { history, readOnly } = useScene.getState()
  if (!history) return
  if (readOnly) return void refuse(readOnlyWords[readOnly])
  const moved = move(history, Date.now())
  if (moved instanceof Refusal) return void refuse(moved.reason)
  show(moved)
}

/** Shows another state of the scene; what was selected stays so as long as it is there. */
function show(history: SceneHistory): void {
  const selected = findOwner(history.scene, useScene.getState().selectedId) ?? history.scene.effects.at(-1)
  useScene.setState({ history, selectedId: selected?.id, trial: undefined })
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

/** The chosen mask of a list: the first if none was chosen. */
export function chosenMask(list: Where | undefined, chosenId: string | undefined): Mask | undefined {
  return list?.masks.find(({ id }) => id === chosenId) ?? list?.masks[0]
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

function withList(scene: Scene, { owner: id, list }: MaskListRef, change: (list: Where) => void): void {
  const owner = findOwner(scene, id)
  if (!owner) return
  if (list === 'where') change(owner.where)
  else if (isEffect(owner)) change((owner.region ??= { masks: [], hold: 100 }))
}

/** Shows another panel at the right, or the steps again if it is shown already. */
export function togglePanel(panel: Panel): void {
  const state = useScene.getState()
  const open = state.panel === panel && state.panelOpen && state.adding === undefined
  state.set({ panel: open ? 'steps' : panel, panelOpen: true, adding: undefined, tool: undefined })
}
