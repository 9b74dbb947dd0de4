import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer'
import type { Scene } from '@welkinar/core'
import type { HistoryEntry } from '../storage/database'

enablePatches()

/** More than anybody undoes; the oldest go first. */
const MOST_ENTRIES = 500

/** A scene with everything that was done to it. `position` entries are done, the rest can be redone. */
export interface SceneHistory {
  readonly scene: Scene
  readonly entries: readonly HistoryEntry[]
  readonly position: number
  /** Changes of one gesture, such as a drag of a slider, become one entry. */
  readonly gesture: string | undefined
}

export type SceneChange = (scene: Scene) => void

/** The scene after a change, with an entry that undoes it. Changes of the same gesture join the last entry. */
export function applyChange(history: SceneHistory, label: string, change: SceneChange, now: number, gesture?: string): SceneHistory {
  const [scene, patches, inverse] = produceWithPatches(history.scene, (draft) => {
    change(draft as Scene)
  })
  if (patches.length === 0) return history
  const edited = { ...scene, edited: now }
  const done = history.entries.slice(0, history.position)
  const last = done.at(-1)
  if (gesture !== undefined && gesture === history.gesture && last) {
    const joined = { ...last, patches: joinLater(last.patches, patches), inverse: joinEarlier(inverse, last.inverse) }
    return { scene: edited, entries: [...done.slice(0, -1), joined], position: done.length, gesture }
  }
  const entry = { sceneId: scene.id, index: (last?.index ?? -1) + 1, label, patches, inverse }
  const entries = [...done, entry].slice(-MOST_ENTRIES)
  return { scene: edited, entries, position: entries.length, gesture }
}

/** Patches in a row, of which a later replacement at the same place makes an earlier one needless. */
function joinLater(earlier: readonly Patch[], later: readonly Patch[]): Patch[] {
  const replaced = new Set(later.filter(({ op }) => op === 'replace').map(placeOf))
  return [...earlier.filter((patch) => patch.op !== 'replace' || !replaced.has(placeOf(patch))), ...later]
}

/** Inverse patches run backwards: of two replacements at the same place, the older value wins. */
function joinEarlier(later: readonly Patch[], earlier: readonly Patch[]): Patch[] {
  const restored = new Set(earlier.filter(({ op }) => op === 'replace').map(placeOf))
  return [...later.filter((patch) => patch.op !== 'replace' || !restored.has(placeOf(patch))), ...earlier]
}

function placeOf(patch: Patch): string {
  return patch.path.join('/')
}

export function undo(history: SceneHistory, now: number): SceneHistory {
  const entry = history.entries[history.position - 1]
  if (!entry) return history
  const scene = { ...applyPatches(history.scene, entry.inverse), edited: now }
  return { ...history, scene, position: history.position - 1, gesture: undefined }
}

export function redo(history: SceneHistory, now: number): SceneHistory {
  const entry = history.entries[history.position]
  if (!entry) return history
  const scene = { ...applyPatches(history.scene, entry.patches), edited: now }
  return { ...history, scene, position: history.position + 1, gesture: undefined }
}
