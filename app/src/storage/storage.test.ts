import 'fake-indexeddb/auto'
import { readFileSync } from 'node:fs'
import { checkedScene, documentVersion, emptyStack, newEffect, Refusal, untouched, type CheckedScene } from '@welkinar/core'
import { Dexie } from 'dexie'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { database } from './database'
import { addPicture, clearUnusedPictures, readingId, unusedPictures } from './photos'
import {
  addScenes,
  duplicateScene,
  listScenes,
  loadScene,
  noteOpened,
  openSetAside,
  putAwayScene,
  removePutAway,
  renameScene,
  saveScene,
} from './scenes'
import { deleteState, keepState, MOST_STATES, putBackState, renameState, statesOf } from './states'
import { deleteSetAside, listSetAside, putBackSetAside, versionOf } from './setAside'

const photo = { id: 'p', fileName: 'p.jpg', width: 1200, height: 800 }

function sceneNamed(id: string, name = id): CheckedScene {
  const scene = checkedScene({
    ...{ format: 'welkinar-scene', ...documentVersion, id, name, created: 0, edited: 0 },
    photo: { ...photo },
    ...untouched,
    ...emptyStack,
    effects: [newEffect(photo, { kind: 'rain', id: 'rain' })],
  })
  if (scene instanceof Refusal) throw new Error(scene.reason)
  return scene
}

/** Changes what is stored of a scene, as nobody but a fault does. */
async function damage(id: string, change: (document: Record<string, unknown>) => void): Promise<unknown> {
  const stored = (await database.scenes.get(id))!
  const document = structuredClone(stored.document) as Record<string, unknown>
  change(document)
  await database.scenes.put({ ...stored, document })
  return document
}

const entry = (sceneId: string, index: number) => ({ sceneId, index, label: 'l', patches: [], inverse: [] })
const LONG_AGO = 1

beforeAll(() => {
  // One tab that always gets the lock.
  vi.stubGlobal('navigator', { locks: { request: (_: string, __: object, work: (lock: object) => unknown) => work({}) } })
})
// Other tests may share the globals.
afterAll(() => {
  vi.unstubAllGlobals()
})
beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()))
})

describe('a picture that is stored', () => {
  const file = new Blob(['bytes'])
  const record = { id: 'a', fileName: 'a.png', file, reduced: true }

  it('is never written over by another reading of the same file', async () => {
    await addPicture(record)
    await expect(addPicture({ ...record, reduced: false })).rejects.toThrow('read in another way')
    expect(await database.photos.get('a')).toMatchObject({ reduced: true })
    await addPicture({ ...record, fileName: 'other name.png' })
    expect(await database.photos.get('a')).toMatchObject({ fileName: 'a.png' })
  })

  it('has an id that says how it was read; one that is taken by another reading gets a suffix', async () => {
    expect(await readingId('a', false)).toBe('a')
    expect(await readingId('a', true)).toBe('a.reduced')
    await addPicture(record)
    expect(await readingId('a', false)).toBe('a.again')
    await addPicture({ ...record, id: 'a.reduced', reduced: false })
    expect(await readingId('a', true)).toBe('a.reduced.again')
  })

  it('is in use as long as anything refers to it, in whatever table', async () => {
    await database.photos.bulkPut(['scene', 'step', 'aside', 'nobody'].map((id) => ({ ...record, id, added: LONG_AGO })))
    await addScenes([{ scene: { ...sceneNamed('one'), photo: { ...photo, id: 'scene' } } }], [])
    await database.history.put({ ...entry('one', 0), inverse: [{ op: 'replace', path: ['photo', 'id'], value: 'step' }] })
    await database.setAside.add({ sceneId: 'gone', name: 'G', when: 1, why: [], document: { photo: { id: 'aside' } }, history: [] })
    expect((await unusedPictures()).ids).toEqual(['nobody'])
    // A scene whose picture only a version that was set aside needs besides.
    await addScenes([{ scene: { ...sceneNamed('gone'), photo: { ...photo, id: 'aside' } } }], [])
    await putAwayScene('gone', LONG_AGO)
    await removePutAway(Date.now())
    await clearUnusedPictures()
    expect((await database.photos.toCollection().primaryKeys()).sort()).toEqual(['aside', 'scene', 'step'])
  })
})

describe('what could not be read', () => {
  beforeEach(() => addScenes([{ scene: sceneNamed('s') }], []))

  it('is set aside when the scene that is shown mended is renamed, opened or taken over: each version, none instead of another', async () => {
    await database.history.bulkPut([entry('s', 0), entry('s', 1)])
    const first = await damage('s', (document) => (document['amount'] = -5))
    await renameScene('s', 'New name')
    expect(await loadScene('s')).toMatchObject({ scene: { name: 'New name', amount: 0 }, revision: 1 })
    const second = await damage('s', (document) => (document['surprise'] = 1))
    await noteOpened(await loadScene('s'))
    expect((await loadScene('s')).leftOut).toBeUndefined()
    const versions = await Promise.all((await listSetAside()).map(({ id }) => versionOf(id)))
    expect(versions.map(({ document }) => document)).toEqual(expect.arrayContaining([first, second]))
    expect(versions.map(({ history }) => history.length).sort()).toEqual([0, 2])
    expect(versions.flatMap(({ why }) => why)).toEqual(
      expect.arrayContaining(['Whole stack was -5 and is 0 now', '“surprise” was not known and was dropped']),
    )
  })

  it('can be opened as a scene of its own, deleted and put back', async () => {
    await damage('s', (document) => (document['surprise'] = 1))
    await noteOpened(await loadScene('s'))
    const [version] = await listSetAside()
    const opened = await openSetAside(version!.id, 5)
    expect(await loadScene(opened)).toMatchObject({ scene: { name: 's, set aside', effects: [{ kind: 'rain' }] } })
    const deleted = await deleteSetAside(version!.id)
    expect(await listSetAside()).toEqual([])
    await putBackSetAside(deleted)
    expect(await listSetAside()).toEqual([version])
    await database.setAside.update(version!.id, { document: { nothing: true }, lastValid: undefined })
    await expect(openSetAside(version!.id, 5)).rejects.toThrow('This scene is damaged')
  })

  it('is not written over by a tab that has seen something older', async () => {
    await damage('s', (document) => (document['surprise'] = 1))
    const seen = await loadScene('s')
    await renameScene('s', 'By another tab')
    await expect(noteOpened(seen)).rejects.toThrow('changed in another tab')
    expect((await loadScene('s')).scene.name).toBe('By another tab')
    expect(await listSetAside()).toHaveLength(1)
  })

  it('of a history is said: steps with a gap are set aside, not dropped', async () => {
    await database.history.bulkPut([entry('s', 0), entry('s', 2)])
    await database.scenes.update('s', { position: 2 })
    const loaded = await loadScene('s')
    expect(loaded).toMatchObject({ history: [], position: 0, leftOut: ['the steps that led to it are not whole, so undo begins anew'] })
    await noteOpened(loaded)
    expect((await versionOf((await listSetAside())[0]!.id)).history).toHaveLength(2)
  })

  it('because it is nested without an end is no scene, and harms no other', async () => {
    await damage('s', (document) => {
      document['effects'] = JSON.parse(`${'['.repeat(200)}${']'.repeat(200)}`)
    })
    await addScenes([{ scene: sceneNamed('whole') }], [])
    const list = await listScenes()
    expect(list.find(({ id }) => id === 's')?.problem).toBe('This scene is damaged: it is nested deeper than any.')
    expect(list.find(({ id }) => id === 'whole')?.scene?.name).toBe('whole')
  })
})

describe('a document of a newer build', () => {
  beforeEach(() => addScenes([{ scene: sceneNamed('s') }], []))

  it('of a higher minor version is shown as far as it is known, and nothing writes it', async () => {
    const document = await damage('s', (made) => {
      made['minor'] = documentVersion.minor + 1
      ;(made['effects'] as unknown[]).push({ kind: 'meteors', name: 'Meteors' })
    })
    const loaded = await loadScene('s')
    expect(loaded).toMatchObject({ newer: true, scene: { effects: [{ kind: 'rain' }] } })
    expect(await listScenes()).toMatchObject([{ isNewer: true, scene: { name: 's' } }])
    await expect(renameScene('s', 'Other')).rejects.toThrow('newer Welkinar')
    await expect(duplicateScene('s', 1)).rejects.toThrow('newer Welkinar')
    expect((await database.scenes.get('s'))!.document).toEqual(document)
    expect(await listSetAside()).toEqual([])
  })

  it('of a higher version is left alone', async () => {
    await damage('s', (made) => (made['version'] = documentVersion.version + 1))
    expect(await listScenes()).toMatchObject([
      { problem: `This scene was made by a newer Welkinar (version ${documentVersion.version + 1}).` },
    ])
    await expect(renameScene('s', 'Other')).rejects.toThrow('cannot be read')
  })

  it('of an earlier version is upgraded when it is read, and so written with the next change', async () => {
    await damage('s', (made) => {
      made['version'] = 2
      delete made['minor']
    })
    const { scene, leftOut, revision } = await loadScene('s')
    expect({ ...scene }).toMatchObject(documentVersion)
    expect(leftOut).toBeUndefined()
    await saveScene({ scene, entries: [], position: 0 }, 0, revision)
    expect((await database.scenes.get('s'))!.document).toMatchObject(documentVersion)
  })
})

// Written by the build of commit 752015b: tests/fixtures/reducedTwice.json.
it('a database of an earlier build keeps what it had set aside, as a version of its own', async () => {
  interface Dump {
    readonly dexieVersion: number
    readonly scenes: readonly { readonly id: string; readonly setAside?: { readonly document: unknown } }[]
  }
  const { scenes, dexieVersion } = JSON.parse(
    readFileSync(new URL('../../../tests/fixtures/reducedTwice.json', import.meta.url), 'utf8'),
  ) as Dump
  await database.delete()
  const earlier = new Dexie('welkinar')
  earlier.version(dexieVersion / 10).stores({ scenes: 'id, edited', photos: 'id', history: '[sceneId+index]', settings: 'name' })
  await earlier.table('scenes').bulkPut([...scenes])
  earlier.close()
  await database.open()
  const before = scenes.find(({ setAside }) => setAside)!
  const [version] = await listSetAside()
  expect(await versionOf(version!.id)).toMatchObject({ sceneId: before.id, document: before.setAside!.document })
  expect(await database.scenes.get(before.id)).not.toHaveProperty('setAside')
  expect(await listScenes()).toHaveLength(scenes.length)
})

describe('a state that is kept', () => {
  const withMask = (id: string, picture: string): CheckedScene => {
    const made = checkedScene({
      ...sceneNamed(id),
      depth: {
        picture: { id: picture, fileName: 'depth.png', width: 10, height: 10 },
        near: 'white',
        nearDistance: 1,
        farDistance: 100,
        steps: 'distance',
      },
    })
    if (made instanceof Refusal) throw new Error(made.reason)
    return made
  }
  const stored = async (id: string): Promise<void> => {
    await database.photos.put({ id, fileName: `${id}.png`, file: new Blob(['x']), reduced: false, added: LONG_AGO })
  }

  it('is the scene as it was, without its photo; it is named, renamed, deleted and put back', async () => {
    const scene = sceneNamed('a')
    await addScenes([{ scene }], [])
    expect(await keepState(scene, undefined, 1)).toBe('State 1')
    expect(await keepState({ ...scene, amount: 40 }, '  Fainter ', 2)).toBe('Fainter')
    expect((await database.states.toArray()).every(({ document }) => !('photo' in (document as object)))).toBe(true)
    const [fainter, first] = await statesOf(scene)
    expect(first?.scene).toEqual(scene)
    expect(fainter).toMatchObject({ name: 'Fainter', scene: { amount: 40, photo: scene.photo } })
    await renameState(first!.id, 'The first')
    const deleted = await deleteState(fainter!.id)
    expect((await statesOf(scene)).map(({ name }) => name)).toEqual(['The first'])
    await putBackState(deleted)
    expect((await statesOf(scene)).map(({ name }) => name)).toEqual(['Fainter', 'The first'])
    expect(await statesOf(sceneNamed('b'))).toEqual([])
  })

  it('is one of sixty at the most, all of them read again; another name is found where one is taken', async () => {
    const scene = sceneNamed('a')
    await keepState(scene, 'State 2', 0)
    expect(await keepState(scene, undefined, 1)).toBe('State 3')
    for (let i = 2; i < MOST_STATES; i++) await keepState(scene, undefined, i)
    expect((await statesOf(scene)).length).toBe(60)
    expect(new Set((await statesOf(scene)).map(({ name }) => name)).size).toBe(60)
    await expect(keepState(scene, undefined, 99)).rejects.toThrow('no more can be kept')
  })

  it('keeps the pictures that only it reads, until its scene is removed for good', async () => {
    await Promise.all(['p', 'depth'].map(stored))
    await addScenes([{ scene: sceneNamed('a') }], [])
    await keepState(withMask('a', 'depth'), 'With depth', 1)
    expect((await unusedPictures()).ids).toEqual([])
    await clearUnusedPictures()
    expect((await database.photos.toCollection().primaryKeys()).toSorted()).toEqual(['depth', 'p'])
    await putAwayScene('a', LONG_AGO)
    await removePutAway(Date.now())
    expect(await database.states.count()).toBe(0)
    expect(await database.photos.count()).toBe(0)
  })

  it('opens with as little changed as can be where something of it cannot be read, and stays stored where nothing can', async () => {
    const scene = sceneNamed('a')
    await keepState(scene, 'Odd', 1)
    await keepState(scene, 'Torn', 2)
    const [torn, odd] = await statesOf(scene)
    await database.states.update(odd!.id, { document: { ...((await database.states.get(odd!.id))!.document as object), surprise: 1 } })
    await database.states.update(torn!.id, { document: 'nothing' })
    expect((await statesOf(scene)).map(({ name }) => name)).toEqual(['Odd'])
    expect(await database.states.count()).toBe(2)
  })
})
