import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer'
import { checkedAfter, Refusal, type CheckedScene, type Scene } from '@welkinar/core'
import type { HistoryEntry } from '../storage/database'

enablePatches()

/** More than anybody undoes; the oldest go first. */
const MOST_ENTRIES = 500

/** A scene with everything that was done to it. `position` entries are done, the rest can be redone. */
export interface SceneHistory {
  readonly scene: CheckedScene
  readonly entries: readonly HistoryEntry[]
  readonly position: number
  /** Changes of one gesture, such as a drag of a slider, become one entry. */
  readonly gesture: string | undefined
}

export type SceneChange = (scene: Scene) => void

/**
 * The scene after a change, with an entry that undoes it; or why it cannot be made. This is the one door through which a scene is changed. Changes of the
 * same gesture join the last entry.
 */
export function applyChange(
  history: SceneHistory,
  label: string,
  change: SceneChange,
  now: number,
  gesture?: string,
): SceneHistory | Refusal {
  const [changed, patches, inverse] = produceWithPatches(history.scene as Scene, (draft) => {
    change(draft as Scene)
  })
  if (patches.length === 0) return history
  const scene = checkedAfter({ ...changed, edited: now }, placesOf(patches))
  if (scene instanceof Refusal) return scene
  const done = history.entries.slice(0, history.position)
  const last = done.at(-1)
  if (gesture !== undefined && gesture === history.gesture && last) {
    const joined = { ...last, ...joinPatches(last, { patches, inverse }) }
    return { scene, entries: [...done.slice(0, -1), joined], position: done.length, gesture }
  }
  const entry = { sceneId: scene.id, index: (last?.index ?? -1) + 1, label, patches, inverse }
  const entries = [...done, entry].slice(-MOST_ENTRIES)
  return { scene, entries, position: entries.length, gesture }
}

function placesOf(patches: readonly Patch[]): (string | number)[][] {
  return patches.map(({ path }) => path.map((step) => (typeof step === 'symbol' ? String(step) : step)))
}

type Patches = Pick<HistoryEntry, 'patches' | 'inverse'>

/** Two changes in a row as one. Of replacements at one place only the last counts, and the first for going back, unless items moved between them. */
function joinPatches(earlier: Patches, later: Patches): Patches {
  const all = [...earlier.patches, ...later.patches, ...earlier.inverse, ...later.inverse]
  if (all.some(({ op, path }) => op !== 'replace' || path.at(-1) === 'length')) {
    return { patches: [...earlier.patches, ...later.patches], inverse: [...later.inverse, ...earlier.inverse] }
  }
  const replaced = new Set(later.patches.map(placeOf))
  const restored = new Set(earlier.inverse.map(placeOf))
  return {
    patches: [...earlier.patches.filter((patch) => !replaced.has(placeOf(patch))), ...later.patches],
    inverse: [...later.inverse.filter((patch) => !restored.has(placeOf(patch))), ...earlier.inverse],
  }
}

function placeOf(patch: Patch): string {
  return patch.path.join('/')
}

/** The scene after a change that is no step of anybody's and cannot be undone; or why it cannot be made. */
export function withoutEntry(history: SceneHistory, change: SceneChange): SceneHistory | Refusal {
  const [changed, patches] = produceWithPatches(history.scene as Scene, (draft) => {
    change(draft as Scene)
  })
  const scene = checkedAfter(changed, placesOf(patches))
  return scene instanceof Refusal ? scene : { ...history, scene }
}

/** The scene as it was, or will be again, after so many of its steps; or why that cannot be done. */
export function goTo(history: SceneHistory, position: number, now: number): SceneHistory | Refusal {
  const { entries, position: from } = history
  const to = Math.min(entries.length, Math.max(0, position))
  if (to === from) return history
  const back = entries.slice(to, from).toReversed()
  const patches = to < from ? back.flatMap(({ inverse }) => inverse) : entries.slice(from, to).flatMap((entry) => entry.patches)
  return stepped(history, patches, to, now)
}

/** The scene one step back; or why that cannot be done. */
export function undo(history: SceneHistory, now: number): SceneHistory | Refusal {
  return goTo(history, history.position - 1, now)
}

/** The scene one step forward again; or why that cannot be done. */
export function redo(history: SceneHistory, now: number): SceneHistory | Refusal {
  return goTo(history, history.position + 1, now)
}

/** What is stored may have been damaged, so a step of the history is looked at like any change. */
function stepped(history: SceneHistory, patches: readonly Patch[], position: number, now: number): SceneHistory | Refusal {
  try {
    const changed = { ...(applyPatches(history.scene as Scene, patches as Patch[]) as Scene), edited: now }
    const scene = checkedAfter(changed, placesOf(patches))
    return scene instanceof Refusal ? scene : { ...history, scene, position, gesture: undefined }
  } catch {
    return new Refusal('This step of the history is damaged.')
  }
}

/** Index of the first history entry that differs from what is stored. */
export function firstChanged(history: SceneHistory, stored: SceneHistory): number {
  const known = new Map(stored.entries.map((entry) => [entry.index, entry]))
  const changed = history.entries.find((entry) => known.get(entry.index) !== entry)
  return changed?.index ?? (history.entries.at(-1)?.index ?? -1) + 1
}
