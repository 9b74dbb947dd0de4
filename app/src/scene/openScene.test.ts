import 'fake-indexeddb/auto'
import { documentVersion, emptyStack, newEffect, untouched, type CheckedScene, type Scene } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { database } from '../storage/database'
import { addScenes, loadScene } from '../storage/scenes'
import { Autosave } from './autosave'
import { openedScene, OpenScene, type Surroundings } from './openScene'
import { lived, type SceneLife } from './sceneLife'
import { useScene } from './sceneStore'

const photo = { id: 'p', fileName: 'p.jpg', width: 1200, height: 800 }
const sceneOf = (id: string): CheckedScene =>
  ({
    ...{ format: 'welkinar-scene', ...documentVersion, id, name: id, created: 0, edited: 0, photo },
    ...untouched,
    ...emptyStack,
    effects: [newEffect(photo, { kind: 'rain', id: 'rain' })],
  }) satisfies Scene as Scene as CheckedScene

/** Locks as browsers give them (Web Locks API): one holder, the others wait in order; who steals takes it at once. */
class Locks {
  private readonly held = new Map<string, { readonly lose: (reason: unknown) => void }>()
  private readonly waiting: { readonly name: string; readonly go: () => void }[] = []

  async request(name: string, { ifAvailable, steal, signal }: LockOptions, work: (lock: object | null) => unknown): Promise<unknown> {
    if (steal) this.held.get(name)?.lose(new DOMException('Stolen.', 'AbortError'))
    else if (this.held.has(name)) {
      if (ifAvailable) return work(null)
      signal?.throwIfAborted()
      await new Promise<void>((go, stop) => {
        const turn = { name, go }
        this.waiting.push(turn)
        signal?.addEventListener('abort', () => {
          this.waiting.splice(this.waiting.indexOf(turn), 1)
          stop(signal.reason as Error)
        })
      })
    }
    let lose: (reason: unknown) => void = () => undefined
    const lost = new Promise<never>((_, reject) => (lose = reject))
    const mine = { lose }
    this.held.set(name, mine)
    return Promise.race([Promise.resolve(work({})), lost]).finally(() => {
      if (this.held.get(name) !== mine) return
      this.held.delete(name)
      const next = this.waiting.findIndex((turn) => turn.name === name)
      if (next >= 0) this.waiting.splice(next, 1)[0]!.go()
    })
  }
}

let locks: Locks
/** What the photo waits for. */
let photoOpens: Promise<unknown>
const released = vi.fn()
const surroundings: Surroundings = {
  pool: () => Promise.resolve({} as RenderPool),
  pictures: () => ({
    hold: () => photoOpens.then(() => []),
    holdPictures: () => Promise.resolve([]),
    keep: () => undefined,
    release: released,
  }),
  thumbnail: () => ({ finish: () => Promise.resolve() }),
}

/** A scene that is open, and how it is left. */
async function opened(id = 's') {
  const abort = new AbortController()
  const scene = await OpenScene.open(id, abort.signal, surroundings)
  return { scene, leave: () => abort.abort() }
}

/** Another tab has a scene. Returns how it lets it go. */
async function elsewhere(id = 's'): Promise<() => void> {
  let letGo = (): void => undefined
  await new Promise<void>((has) => {
    const held = locks.request(`welkinar scene ${id}`, {}, () => {
      has()
      return new Promise<void>((release) => (letGo = release))
    })
    held.catch(() => undefined)
  })
  return letGo
}

const life = () => useScene.getState().life
const setAmount = (amount: number) => useScene.getState().change('Amount', (draft) => void (draft.amount = amount))
const amountStored = async (id = 's') => (await loadScene(id)).scene.amount
const until = (is: SceneLife['is']) => vi.waitFor(() => expect(life().is).toBe(is), { timeout: 8000 })

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
  locks = new Locks()
  vi.stubGlobal('navigator', { locks })
  photoOpens = Promise.resolve()
  released.mockClear()
  await Promise.all(database.tables.map((table) => table.clear()))
  await addScenes([{ scene: sceneOf('s') }, { scene: sceneOf('t') }], [])
})

describe('a scene that is open', () => {
  it('is opened, changed, saved and closed; what was changed just before it was left is stored', async () => {
    const { leave } = await opened()
    expect(life()).toEqual({ is: 'open' })
    setAmount(40)
    expect(life()).toEqual({ is: 'saving' })
    await until('open')
    expect(await amountStored()).toBe(40)
    setAmount(41)
    leave()
    const { leave: leaveNext } = await opened('t')
    // The one before is over before the next one begins.
    expect(await amountStored()).toBe(41)
    expect(released).toHaveBeenCalledOnce()
    expect(useScene.getState().history?.scene.id).toBe('t')
    leaveNext()
  })

  it('that is left while its photo is read is never shown, and keeps nobody waiting', async () => {
    photoOpens = new Promise(() => undefined)
    const abort = new AbortController()
    const late = OpenScene.open('s', abort.signal, surroundings)
    await vi.waitFor(() => expect(photoOpens).toBeDefined())
    abort.abort()
    await expect(late).rejects.toThrow('abort')
    expect(released).toHaveBeenCalledOnce()
    photoOpens = Promise.resolve()
    const { leave } = await opened('t')
    expect(useScene.getState().history?.scene.id).toBe('t')
    leave()
  })

  it('that is changed and left before it is settled who writes it is stored', async () => {
    const letGo = await elsewhere()
    const abort = new AbortController()
    const opening = OpenScene.open('s', abort.signal, surroundings)
    await until('opening')
    setAmount(42)
    letGo()
    abort.abort()
    await expect(opening).rejects.toThrow('abort')
    expect(await amountStored()).toBe(42)
    expect(openedScene()).toBeUndefined()
  })

  it('in another tab is read only, follows it, is taken over, and given back', async () => {
    await elsewhere()
    const { scene, leave } = await opened()
    expect(life()).toEqual({ is: 'reading only', why: 'another tab' })
    expect(setAmount(50)).toBe(false)
    // The other tab does not answer, and loses it.
    vi.spyOn(AbortSignal, 'timeout').mockImplementationOnce(() => AbortSignal.abort())
    await scene.takeOver()
    expect(life()).toEqual({ is: 'open' })
    setAmount(51)
    // The other one asks for it again.
    const channel = new BroadcastChannel('welkinar scenes')
    channel.postMessage({ kind: 'hand over', id: 's' })
    channel.close()
    await until('reading only')
    expect(await amountStored()).toBe(51)
    leave()
  })

  it('that cannot be stored says so until it can', async () => {
    const { leave } = await opened()
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    setAmount(60)
    await vi.waitFor(() => expect(life()).toEqual({ is: 'trouble', why: 'no room' }))
    put.mockRestore()
    await until('open')
    expect(await amountStored()).toBe(60)
    leave()
  })

  it('goes on to be saved after that was stopped while it had failed: handed to another tab and taken back', async () => {
    const loaded = await loadScene('s')
    const opening = Symbol('opening')
    useScene.getState().open(opening, loaded)
    const autosave = new Autosave(opening)
    autosave.start(loaded, useScene.getState().history)
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    setAmount(40)
    await vi.waitFor(() => expect(life()).toEqual({ is: 'trouble', why: 'no room' }))
    await autosave.stop()
    put.mockRestore()
    autosave.start(loaded, useScene.getState().history)
    setAmount(50)
    await vi.waitFor(async () => expect(await amountStored()).toBe(50), { timeout: 5000 })
    await autosave.stop()
    useScene.getState().close(opening)
  })

  it('that another tab has written although this one has it keeps its changes as a copy', async () => {
    const { scene, leave } = await opened()
    await database.scenes.update('s', { revision: 99 })
    setAmount(70)
    await vi.waitFor(() => expect(life()).toEqual({ is: 'trouble', why: 'conflict' }))
    await database.photos.put({ id: 'p', fileName: 'p.jpg', file: new Blob(['x']), reduced: false, added: 0 })
    const copy = await scene.keepAsCopy()
    expect(await amountStored(copy)).toBe(70)
    expect(life()).toEqual({ is: 'open' })
    leave()
  })

  it('that is over changes nothing of the one that is shown', async () => {
    const { leave } = await opened()
    const { opening } = useScene.getState()
    const stored = await loadScene('s')
    leave()
    const next = await opened('t')
    const store = useScene.getState()
    expect(store.live(opening!, { is: 'reading only', why: 'gone' })).toBe(false)
    store.follow(opening!, stored)
    store.close(opening!)
    expect(useScene.getState().history?.scene.id).toBe('t')
    expect(life()).toEqual({ is: 'open' })
    next.leave()
  })

  it('goes through nothing that cannot follow', () => {
    const reading: SceneLife = { is: 'reading only', why: 'gone' }
    expect(lived(reading, { is: 'saving' })).toBe(reading)
    expect(lived(reading, { is: 'opening' })).toEqual({ is: 'opening' })
    expect(lived({ is: 'closed' }, { is: 'open' })).toEqual({ is: 'closed' })
    expect(lived({ is: 'saving' }, { is: 'trouble', why: 'failed' })).toEqual({ is: 'trouble', why: 'failed' })
  })
})
