import 'fake-indexeddb/auto'
import { documentVersion, emptyStack, newEffect, untouched, type CheckedScene, type Scene } from '@welkinar/core'
import { afterAll, beforeAll, beforeEach, expect, it, vi } from 'vitest'
import { database } from '../storage/database'
import { addScenes, loadScene } from '../storage/scenes'
import { Autosave } from './autosave'
import { useScene } from './sceneStore'

const photo = { id: 'p', fileName: 'p.jpg', width: 1200, height: 800 }
const scene: Scene = {
  ...{ format: 'welkinar-scene', ...documentVersion, id: 's', name: 'S', created: 0, edited: 0, photo },
  ...untouched,
  ...emptyStack,
  effects: [newEffect(photo, { kind: 'rain', id: 'rain' })],
}
const setAmount = (amount: number) => useScene.getState().change('Amount', (draft) => void (draft.amount = amount))
const isStored = (amount: number) => vi.waitFor(async () => expect((await loadScene('s')).scene.amount).toBe(amount), { timeout: 5000 })

beforeAll(() => {
  const events = { addEventListener: vi.fn(), removeEventListener: vi.fn() }
  vi.stubGlobal('addEventListener', events.addEventListener)
  vi.stubGlobal('removeEventListener', events.removeEventListener)
  vi.stubGlobal('document', events)
})
afterAll(() => {
  vi.unstubAllGlobals()
})
beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()))
  await addScenes([{ scene: scene as CheckedScene }], [])
})

it('goes on after it was stopped while a save had failed: handed to another tab and taken back', async () => {
  const loaded = await loadScene('s')
  const opening = Symbol('opening')
  useScene.getState().open(opening, loaded)
  const autosave = new Autosave(opening)
  autosave.start(loaded, useScene.getState().history)
  const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  setAmount(40)
  await vi.waitFor(() => expect(useScene.getState().life).toEqual({ is: 'trouble', why: 'no room' }))
  await autosave.stop()
  put.mockRestore()
  autosave.start(loaded, useScene.getState().history)
  setAmount(50)
  await isStored(50)
  await autosave.stop()
  useScene.getState().close(opening)
})
