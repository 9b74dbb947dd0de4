import 'fake-indexeddb/auto'
import { checkedScene, documentVersion, emptyStack, newEffect, Refusal, untouched, UserProblem, type CheckedScene } from '@welkinar/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { randomNumbers } from '../../../core/test-support/pictures'
import { applyChange, firstChanged, redo, undo, type SceneHistory } from '../scene/history'
import { database, isOutOfRoom, type StoredScene } from './database'
import { clearUnusedPictures, readingId } from './photos'
import { readScene } from './readScene'
import {
  addScenes,
  duplicateScene,
  loadScene,
  noteOpened,
  openSetAside,
  putAwayScene,
  removePutAway,
  renameScene,
  restoreScene,
  saveScene,
  SceneConflict,
} from './scenes'
import { deleteSetAside, listSetAside } from './setAside'

// Three tabs and the Shelf of each do whatever they can to a few scenes, in any order; tabs die, freeze and come back, the disk fills up in the middle of a
// write, other builds have written. Each value that was stored is one number: it must be found again somewhere, unless a person threw it away or was told.

/** More in the soak (`npm run soak`). */
const SEQUENCES = Number(process.env['WELKINAR_SEQUENCES'] ?? 20)
const STEPS = 40
/** In the soak it is looked after so many steps: what is lost stays lost. */
const LOOKED_AFTER = SEQUENCES > 1000 ? 8 : 1
const SAID_AFTER = 1000
const FULL = { width: 1200, height: 800 }
const REDUCED = { width: 600, height: 400 }

/** What one tab has in its memory. */
interface Tab {
  id: string | undefined
  history: SceneHistory | undefined
  stored: SceneHistory | undefined
  revision: number
  /** It believes that it may write. */
  writes: boolean
}

const emptyTab = (): Tab => ({ id: undefined, history: undefined, stored: undefined, revision: 0, writes: false })

class World {
  readonly tabs = [emptyTab(), emptyTab(), emptyTab()]
  /** Which tab has the lock of a scene. */
  readonly holders = new Map<string, Tab>()
  /** Values that were stored. */
  readonly kept = new Set<number>()
  readonly log: string[] = []
  private nextValue = 1
  constructor(readonly random: () => number) {}

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)]!
  }

  /** A whole stack that no other has. */
  value(): number {
    return 1 + this.nextValue++ / 1e6
  }
}

let world: World
/** After so many more writes the disk is full. */
let writesLeft = Infinity

const valuesIn = (what: unknown): number[] => (JSON.stringify(what ?? null).match(/\b1\.0\d+\b/g) ?? []).map(Number)

function sceneOf(id: string, photoId: string, reduced: boolean, amount: number): CheckedScene {
  const size = reduced ? REDUCED : FULL
  const photo = { id: photoId, fileName: 'p.jpg', ...size }
  const scene = checkedScene({
    ...{ format: 'welkinar-scene', ...documentVersion, id, name: id, created: 0, edited: 0, photo },
    ...untouched,
    ...emptyStack,
    amount,
    effects: [newEffect(photo, { kind: 'rain', id: 'rain' })],
  })
  if (scene instanceof Refusal) throw new Error(scene.reason)
  return scene
}

const everything = () => Promise.all(database.tables.filter(({ name }) => name !== 'photos').map((table) => table.toArray()))
const listed = async (): Promise<StoredScene[]> => (await database.scenes.toArray()).filter(({ putAway }) => putAway === undefined)

/** What a person throws away, or is told of, need not be found again; what else holds it is not touched. */
function letGo(values: readonly number[]): void {
  for (const value of values) world.kept.delete(value)
}

async function save(tab: Tab): Promise<void> {
  const { history, stored } = tab
  if (!tab.writes || !history || !stored || history.scene === stored.scene) return
  tab.revision = await saveScene(history, firstChanged(history, stored), tab.revision)
  tab.stored = history
  for (const value of valuesIn(history.scene.amount)) world.kept.add(value)
}

function forget(tab: Tab): void {
  if (tab.id !== undefined && world.holders.get(tab.id) === tab) world.holders.delete(tab.id)
  Object.assign(tab, emptyTab())
}

/** As `OpenScene.write` does. */
async function write(tab: Tab, id: string): Promise<void> {
  const loaded = await loadScene(id)
  tab.id = id
  tab.history = { scene: loaded.scene, entries: loaded.history, position: loaded.position, gesture: undefined }
  tab.stored = tab.history
  tab.writes = false
  if (loaded.newer) return
  // The person is told that the steps are not there.
  if (loaded.leftOut?.join().includes('steps')) letGo(valuesIn(await database.history.toArray()))
  try {
    await noteOpened(loaded)
  } catch (error) {
    if (loaded.leftOut) throw error
  }
  tab.revision = loaded.leftOut ? loaded.revision + 1 : loaded.revision
  tab.writes = true
}

type Act = (tab: Tab) => Promise<void>

const acts: Readonly<Record<string, Act>> = {
  async drop() {
    const reduced = world.random() < 0.5
    const id = await readingId(`file${world.pick([1, 2])}`, reduced)
    const scene = sceneOf(`s${world.value()}`.replace('.', ''), id, reduced, world.value())
    await addScenes([{ scene }], [{ id, fileName: 'p.jpg', file: new Blob(['x']), reduced }])
    world.kept.add(scene.amount)
  },
  async 'another build wrote'() {
    const stored = world.pick((await listed()).filter(({ id }) => !world.holders.has(id)))
    if (!stored) return
    const document = structuredClone(stored.document) as Record<string, unknown>
    const value = world.value()
    const change = world.pick<object>([
      { version: 2, minor: undefined, amount: value },
      { minor: documentVersion.minor + 1, surprise: value },
      { version: documentVersion.version + 1, amount: value },
      { surprise: value },
      { surprise: value },
      { created: 'never', amount: value },
      { effects: 'none', photo: { lost: value } },
    ])
    const { amount: before } = stored.document as { amount?: number }
    let { position } = stored
    if ('amount' in change) {
      // It writes the step that led there too.
      const entries = (await database.history.toArray()).filter(({ sceneId }) => sceneId === stored.id)
      const index = (entries[position - 1]?.index ?? -1) + 1
      const undone = entries.slice(position)
      await database.history.bulkDelete(undone.map((entry) => [entry.sceneId, entry.index]))
      // Gone also where there is no room for what comes in its place.
      letGo(valuesIn(undone))
      const step = (to: number | undefined) => [{ op: 'replace' as const, path: ['amount'], value: to }]
      await database.history.put({ sceneId: stored.id, index, label: 'There', patches: step(value), inverse: step(before) })
      position++
    }
    await database.scenes.put({ ...stored, position, document: { ...document, ...change }, revision: (stored.revision ?? 0) + 1 })
    if ('photo' in change) letGo(valuesIn((document['photo'] as object | null) ?? {}))
    if ('surprise' in change) letGo(valuesIn(document['surprise']))
    world.kept.add(value)
  },
  async open(tab) {
    await acts['close']!(tab)
    const { id } = world.pick(await listed()) ?? {}
    if (id === undefined) return
    if (!world.holders.has(id)) {
      world.holders.set(id, tab)
      tab.id = id
      await write(tab, id).catch((error: unknown) => {
        forget(tab)
        throw error
      })
    } else await loadScene(id)
  },
  async edit(tab) {
    if (!tab.history || !tab.writes) return
    const amount = world.value()
    const after = applyChange(tab.history, 'Change', (scene) => (scene.amount = amount), 5)
    if (after instanceof Refusal) throw new Error(after.reason)
    // What was undone goes for good when something else is done; the value that stands is in the new step.
    letGo(valuesIn(tab.history.entries.slice(tab.history.position)).filter((value) => !valuesIn(after).includes(value)))
    tab.history = after
  },
  async undo(tab) {
    if (!tab.history || !tab.writes) return
    const after = undo(tab.history, 6)
    if (after instanceof Refusal) throw new Error(after.reason)
    tab.history = after
  },
  async redo(tab) {
    if (!tab.history || !tab.writes) return
    const after = redo(tab.history, 7)
    if (after instanceof Refusal) throw new Error(after.reason)
    tab.history = after
  },
  save,
  async close(tab) {
    await save(tab)
    forget(tab)
  },
  async kill(tab) {
    forget(tab)
  },
  async 'take over'(tab) {
    const other = world.pick(world.tabs.filter((one) => one !== tab && one.id !== undefined && one.writes))
    if (!other) return
    const id = other.id!
    await acts['close']!(tab)
    // One that is frozen does not answer, and still believes that it writes when it comes back.
    if (world.random() < 0.5) {
      await save(other)
      other.writes = false
    }
    world.holders.set(id, tab)
    await write(tab, id)
  },
  async rename() {
    const stored = world.pick(await listed())
    if (stored) await renameScene(stored.id, `Name ${stored.id}`)
  },
  async duplicate() {
    const stored = world.pick(await listed())
    if (stored) await duplicateScene(stored.id, 8)
  },
  async 'put away'() {
    const stored = world.pick(await listed())
    if (stored) await putAwayScene(stored.id, 1)
  },
  async 'bring back'() {
    const stored = world.pick((await database.scenes.toArray()).filter(({ putAway }) => putAway !== undefined))
    if (stored) await restoreScene(stored.id)
  },
  async 'start anew'() {
    const gone = (await database.scenes.toArray()).filter(({ putAway }) => putAway !== undefined).map(({ id }) => id)
    const history = (await database.history.toArray()).filter(({ sceneId }) => gone.includes(sceneId))
    const lost = valuesIn([(await database.scenes.bulkGet(gone)) ?? [], history])
    await removePutAway(1e15)
    letGo(lost)
  },
  async 'open what was set aside'() {
    const version = world.pick(await listSetAside())
    if (version) await openSetAside(version.id, 9)
  },
  async 'delete what was set aside'() {
    const version = world.pick(await listSetAside())
    if (version) letGo(valuesIn(await deleteSetAside(version.id)))
  },
  async 'clear pictures'() {
    await database.photos.toCollection().modify({ added: 1 })
    await clearUnusedPictures()
  },
}

/** What a hand does most. */
const often = ['edit', 'edit', 'edit', 'save', 'save', 'open', 'open', 'undo', 'take over', 'another build wrote']
const names = [...Object.keys(acts), ...often]

/** All that may be said to a person; anything else is a fault. */
function isWord(error: unknown): boolean {
  return error instanceof UserProblem || error instanceof SceneConflict || isOutOfRoom(error)
}

async function check(): Promise<void> {
  const found = new Set(valuesIn(await everything()))
  expect(
    [...world.kept].filter((value) => !found.has(value)),
    world.log.join('; '),
  ).toEqual([])
  for (const stored of await database.scenes.toArray()) {
    const read = readScene(stored)
    if ('problem' in read) continue
    const { photo } = read.scene
    const picture = await database.photos.get(photo.id)
    expect(picture?.reduced, `${photo.id} of ${stored.id}: ${world.log.join('; ')}`).toBe(photo.width === REDUCED.width)
  }
}

describe('whatever is done in three tabs', () => {
  const original = Object.entries({ put: IDBObjectStore.prototype.put, add: IDBObjectStore.prototype.add })
  beforeAll(() => {
    const request = (name: string, _: unknown, work: (lock: object | null) => unknown): unknown =>
      work(world.holders.has(name.replace('welkinar scene ', '')) ? null : {})
    vi.stubGlobal('navigator', { locks: { request } })
    vi.stubGlobal(
      'BroadcastChannel',
      class {
        postMessage(): void {
          /* nobody listens */
        }
        close(): void {
          /* nobody listens */
        }
      },
    )
    for (const [name, method] of original)
      Object.assign(IDBObjectStore.prototype, {
        [name](this: IDBObjectStore, ...args: [unknown]) {
          if (writesLeft-- <= 0) throw new DOMException('There is no room.', 'QuotaExceededError')
          return method.apply(this, args)
        },
      })
  })
  afterAll(() => {
    vi.unstubAllGlobals()
    for (const [name, method] of original) Object.assign(IDBObjectStore.prototype, { [name]: method })
  })
  beforeEach(() => {
    writesLeft = Infinity
  })

  it('nothing that was stored is lost without a word', async () => {
    const seed = process.env['WELKINAR_SEQUENCES'] ? Date.now() : 11
    for (let i = 0; i < SEQUENCES; i++) {
      await Promise.all(database.tables.map((table) => table.clear()))
      world = new World(randomNumbers(seed + i))
      world.log.push(`sequence ${seed + i}`)
      // An earlier build gave the reduced reading of a photo the id of the whole one.
      const earlier = sceneOf('earlier', 'file1', true, world.value())
      await addScenes([{ scene: earlier }], [{ id: 'file1', fileName: 'p.jpg', file: new Blob(['x']), reduced: true }])
      world.kept.add(earlier.amount)
      for (let k = 0; k < STEPS; k++) {
        const name = world.pick(names)
        const tab = world.pick(world.tabs)
        writesLeft = world.random() < 0.1 ? Math.floor(world.random() * 4) : Infinity
        world.log.push(`${world.tabs.indexOf(tab)} ${name}${writesLeft < Infinity ? `, full after ${writesLeft}` : ''}`)
        try {
          await acts[name]!(tab)
        } catch (error) {
          if (!isWord(error)) throw new Error(`${world.log.join('; ')}`, { cause: error })
          world.log.push(`said: ${String(error)}`)
          // A tab that is told of a conflict shows what is stored, or keeps what it has as a copy.
          if (error instanceof SceneConflict) forget(tab)
        } finally {
          writesLeft = Infinity
        }
        if ((k + 1) % LOOKED_AFTER === 0) await check()
      }
      if ((i + 1) % SAID_AFTER === 0) console.log(`${i + 1} sequences`)
    }
  }, 7_200_000)
})
