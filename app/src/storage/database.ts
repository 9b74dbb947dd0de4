import { Dexie, type EntityTable, type Table } from 'dexie'
import type { Patch } from 'immer'

/** A scene as it is stored. `document` is validated when it is read, never trusted. */
export interface StoredScene {
  id: string
  document: unknown
  edited: number
  /** How many entries of the history are done; those behind it can be redone. */
  position: number
  thumbnail?: Blob | undefined
  /** When it was put away; it is removed for good at the next start. */
  putAway?: number | undefined
}

/** The file of a photo, as it came. */
export interface StoredPhoto {
  id: string
  fileName: string
  file: Blob
  /** Whether it is over the size limit and opened reduced. */
  reduced: boolean
}

/** One step that can be undone. */
export interface HistoryEntry {
  sceneId: string
  index: number
  label: string
  patches: Patch[]
  inverse: Patch[]
}

class WelkinarDatabase extends Dexie {
  scenes!: EntityTable<StoredScene, 'id'>
  photos!: EntityTable<StoredPhoto, 'id'>
  history!: Table<HistoryEntry, [string, number]>
  settings!: Table<{ name: string; value: unknown }, string>

  constructor() {
    super('welkinar')
    this.version(1).stores({ scenes: 'id, edited', photos: 'id', history: '[sceneId+index]', settings: 'name' })
  }
}

export const database = new WelkinarDatabase()

/** Whether an error of the database, or one that it wraps, means that there is no room left. */
export function isOutOfRoom(error: unknown): boolean {
  const { name, inner, failures } = (error ?? {}) as { name?: string; inner?: unknown; failures?: unknown[] }
  if (name === 'QuotaExceededError') return true
  return (inner !== undefined && inner !== error && isOutOfRoom(inner)) || (failures ?? []).some(isOutOfRoom)
}
