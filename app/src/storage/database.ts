import type { BitDepth, ColourSpace, ExportFormat } from '@welkinar/core'
import { Dexie, type DexieOptions, type EntityTable, type Table } from 'dexie'
import type { Patch } from 'immer'
import { findTablesPlace } from './tablesPlace'

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

/** A scene as it was stored when something of it could not be read. The person deletes it, nobody else. */
export interface SetAside {
  id?: number
  sceneId: string
  name: string
  when: number
  /** What could not be read, in words. */
  why: string[]
  document: unknown
  lastValid?: unknown
  history: HistoryEntry[]
}

/** A state of a scene that was kept under a name. `document` is that of the scene without its photo; it is validated when it is read, never trusted. */
export interface StoredState {
  id?: number
  sceneId: string
  name: string
  made: number
  document: unknown
}

/** A recipe of the person's own. `document` is validated when it is read, never trusted. */
export interface StoredRecipe {
  id?: number
  /** Where it stands among the others: less is before. */
  order: number
  document: unknown
}

/** Recipes on many photos. All that it needs is in it, or in the tables of its photos and files. */
export interface StoredRun {
  id?: number
  made: number
  /** Documents of recipes, or the ids of built-in ones; they are validated when they are read. */
  recipes: ({ builtIn: string } | { document: unknown })[]
  outputs: RunOutput[]
  /** Where files are written as they are made; without it they are kept until they are saved. */
  folder?: FileSystemDirectoryHandle | undefined
}

/** A file that is made of each photo and recipe. */
export interface RunOutput {
  format: ExportFormat
  bits: BitDepth
  quality: number
  space: ColourSpace
  /** Px; nothing for the size of the photo. */
  longSide: number | null
  sharpened: boolean
}

/** A photo of a run, as it came. */
export interface RunPhoto {
  runId: number
  index: number
  fileName: string
  file: Blob
}

/** A file of a run. */
export interface RunJob {
  runId: number
  index: number
  /** Which photo, recipe and output of the run. */
  photo: number
  recipe: number
  output: number
  /** Of its photo. */
  photoName: string
  /** Name of the file, given once. */
  name: string
  state: 'waiting' | 'done' | 'failed'
  /** How often it was begun. */
  begun: number
  /** Why not, or what else is to be said. */
  words: string[]
  /** SHA-256 of what was made, noted before it is written to a folder: a file there with it is this one. */
  written?: string
  /** What was made, unless it lies in the folder of the run. */
  file?: Blob | undefined
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
  setAside!: EntityTable<SetAside, 'id'>
  states!: EntityTable<StoredState, 'id'>
  recipes!: EntityTable<StoredRecipe, 'id'>
  runs!: EntityTable<StoredRun, 'id'>
  runPhotos!: Table<RunPhoto, [number, number]>
  jobs!: Table<RunJob, [number, number]>

  constructor(options: DexieOptions) {
    super('welkinar', options)
    this.version(1).stores({ scenes: 'id, edited', photos: 'id', history: '[sceneId+index]', settings: 'name' })
    // What was set aside lay in the record of its scene before, one version at most.
    this.version(2)
      .stores({ setAside: '++id, sceneId, when' })
      .upgrade(async (change) => {
        const scenes = change.table<StoredScene & { setAside?: Pick<SetAside, 'document' | 'history'> }, string>('scenes')
        const earlier = await scenes.filter((scene) => scene.setAside !== undefined).toArray()
        for (const { setAside, ...scene } of earlier) {
          if (setAside) await change.table('setAside').add(asVersion(scene, setAside))
          await scenes.put(scene)
        }
      })
    this.version(3).stores({ states: '++id, sceneId' })
    this.version(4).stores({ recipes: '++id, order' })
    this.version(5).stores({ runs: '++id', runPhotos: '[runId+index]', jobs: '[runId+index], [runId+state]' })
  }
}

function asVersion({ id, edited }: StoredScene, { document, history }: Pick<SetAside, 'document' | 'history'>): SetAside {
  const name = (document as { name?: unknown } | null)?.name
  const why = ['what could not be read was not noted when it was set aside']
  return { sceneId: id, name: typeof name === 'string' && name ? name : 'A scene without a name', when: edited, why, document, history }
}

const place = await findTablesPlace()

/** Whether what is stored is still there when the page has been closed. */
export const { isKept } = place

export const database = new WelkinarDatabase(place.options)

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
