import type { Page } from 'playwright-core'

// The application's database as somebody who knows nothing of its code sees it.

export interface Dump {
  readonly scenes: readonly Record<string, unknown>[]
  readonly photos: readonly (Record<string, unknown> & { readonly file: string })[]
  readonly history: readonly Record<string, unknown>[]
}

/** All records of a store; files as their size. */
export function storedIn(page: Page, store: string): Promise<Record<string, unknown>[]> {
  return page.evaluate(
    (name) =>
      new Promise<Record<string, unknown>[]>((resolve, reject) => {
        const opening = indexedDB.open('welkinar')
        opening.onerror = () => reject(opening.error!)
        opening.onsuccess = () => {
          const all = opening.result.transaction(name).objectStore(name).getAll()
          all.onsuccess = () => {
            opening.result.close()
            resolve(
              (all.result as Record<string, unknown>[]).map((record) =>
                Object.fromEntries(Object.entries(record).map(([key, value]) => [key, value instanceof Blob ? value.size : value])),
              ),
            )
          }
        }
      }),
    store,
  )
}

/** Puts values into the record of a scene, each at a path such as `document.effects.0.name`; undefined takes what is there out. */
export async function changeScene(page: Page, name: string, values: Readonly<Record<string, unknown>>): Promise<void> {
  await page.evaluate(
    ([wanted, changes]) =>
      new Promise<void>((resolve) => {
        indexedDB.open('welkinar').onsuccess = (event) => {
          const { result } = event.target as IDBOpenDBRequest
          const scenes = result.transaction('scenes', 'readwrite').objectStore('scenes')
          scenes.getAll().onsuccess = (found) => {
            const all = (found.target as IDBRequest<Record<string, unknown>[]>).result
            const record = all.find(({ document }) => (document as { name?: string }).name === wanted)!
            for (const [path, value] of changes) {
              const keys = path.split('.')
              const parent = keys.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], record)
              ;(parent as Record<string, unknown>)[keys.at(-1)!] = value
            }
            scenes.put(record).onsuccess = () => {
              result.close()
              resolve()
            }
          }
        }
      }),
    [name, Object.entries(values)] as const,
  )
}

/** Puts what was dumped from a database into that of the page. */
export async function restore(page: Page, dump: Dump): Promise<void> {
  await page.evaluate(
    ({ scenes, photos, history }) =>
      new Promise<void>((resolve, reject) => {
        const binary = (url: string): Blob => {
          const [, type = '', base64 = ''] = /^data:([^;]*);base64,(.*)$/.exec(url) ?? []
          return new Blob([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], { type })
        }
        indexedDB.open('welkinar').onsuccess = (event) => {
          const { result } = event.target as IDBOpenDBRequest
          const all = result.transaction(['scenes', 'photos', 'history'], 'readwrite')
          scenes.forEach((scene) => all.objectStore('scenes').put(scene))
          photos.forEach((photo) => all.objectStore('photos').put({ ...photo, file: binary(photo.file) }))
          history.forEach((entry) => all.objectStore('history').put(entry))
          all.oncomplete = () => {
            result.close()
            resolve()
          }
          all.onerror = () => reject(all.error!)
        }
      }),
    { scenes: [...dump.scenes], photos: [...dump.photos], history: [...dump.history] },
  )
}
