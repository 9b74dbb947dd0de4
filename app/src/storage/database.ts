import { Dexie, type EntityTable, type Table } from 'dexie'
import type { Patch } from 'immer'

/** A scene as it is stored. `document` is validated when it is read, never trusted. */
export interface StoredScene {
  id: string
  document: unknown
  edited: number
  /** How many entries of the history are done; those behind it can be redone. */
  position: number
  /** Counts the writes, so that nobody writes over what they have not seen. Scenes of the first versions have none. */
  revision?: number | undefined
  /** The document as it was when it was last opened and found valid. */
  lastValid?: unknown
  /** What was there when it could not be read as it was, document and history, until the person has it as a file. */
  setAside?: { document: unknown; history: HistoryEntry[] } | undefined
  thumbnail?: Blob | undefined
  /** When it was put away; it is removed for good at a later start. */
  putAway?: number | undefined
}

/** The file of a photo or a picture, as it came. */
export interface StoredPhoto {
  id: string
  fileName: string
  file: Blob
  /** Whether it is over the size limit and opened reduced. */
  reduced: boolean
  /** When it was stored; those of the first versions have none. */
  added?: number | undefined
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

/** Opens the database anew: after a failure a browser may have closed it. */
export function reopenDatabase(): void {
  database.close({ disableAutoOpen: false })
}

/** Whether an error of the database, or one that it wraps, means that there is no room left. */
export function isOutOfRoom(error: unknown): boolean {
  const { name, inner, failures } = (error ?? {}) as { name?: string; inner?: unknown; failures?: unknown[] }
  if (name === 'QuotaExceededError') return true
  return (inner !== undefined && inner !== error && isOutOfRoom(inner)) || (failures ?? []).some(isOutOfRoom)
}
