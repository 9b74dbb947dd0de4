import { create } from 'zustand'
import type { Axis } from './sheet'

/** What is seen on the screen of Trials. It lasts until another scene is opened. */
interface TrialsState {
  /** Variants of the picture, or its kept states. */
  readonly shows: 'variants' | 'kept'
  readonly sceneId: string | undefined
  readonly across: Axis | undefined
  readonly down: Axis | undefined
  /** Ids of trials that were put away. */
  readonly away: readonly string[]
  /** Ids of those that are compared. */
  readonly marked: readonly string[]
  /** Own names, by the id of the trial. */
  readonly names: Readonly<Record<string, string>>
  /** Ids of those that are seen large, beside one another. */
  readonly large: readonly string[]
}

const MOST_COMPARED = 4

const empty = { shows: 'variants' as const, across: undefined, down: undefined, away: [], marked: [], names: {}, large: [] }

export const useTrials = create<TrialsState>()(() => ({ sceneId: undefined, ...empty }))

/** Begins anew for another scene. */
export function beginTrials(sceneId: string, across: Axis | undefined): void {
  if (useTrials.getState().sceneId !== sceneId) useTrials.setState({ sceneId, ...empty, across })
}

/** What was put away, marked and shown belongs to the sheet that was there before. */
export function vary(part: { readonly across?: Axis; readonly down?: Axis | undefined }): void {
  useTrials.setState({ ...part, away: [], marked: [], large: [] })
}

/** Marks a trial for comparing, or no longer; of too many the first goes. */
export function markTrial(id: string): void {
  const { marked } = useTrials.getState()
  useTrials.setState({ marked: marked.includes(id) ? marked.filter((one) => one !== id) : [...marked, id].slice(-MOST_COMPARED) })
}

/** Takes a trial out of the sheet; the panel brings all of them back. */
export function putAway(id: string): void {
  const { away, marked } = useTrials.getState()
  useTrials.setState({ away: [...away, id], marked: marked.filter((one) => one !== id) })
}

/** Shows variants, or what was kept. */
export function show(shows: TrialsState['shows']): void {
  useTrials.setState({ shows, marked: [], large: [] })
}
