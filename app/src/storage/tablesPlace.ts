import { Dexie, type DexieOptions } from 'dexie'

/** Where the tables lie: kept by the browser, or, where it denies that, in memory until the page is closed. */
export interface TablesPlace {
  readonly isKept: boolean
  readonly options: DexieOptions
}

const PROBE = 'welkinar probe'

export async function findTablesPlace(): Promise<TablesPlace> {
  if (await isAllowed()) return { isKept: true, options: {} }
  const { IDBFactory, IDBKeyRange } = await import('fake-indexeddb')
  const options = { indexedDB: new IDBFactory(), IDBKeyRange: IDBKeyRange as typeof globalThis.IDBKeyRange }
  // The library asks for them in several ways, one of which may be what throws.
  Object.assign(Dexie.dependencies, options)
  Object.defineProperty(globalThis, 'indexedDB', { value: options.indexedDB, configurable: true })
  return { isKept: false, options }
}

/** Some browsers have no storage, some throw when it is named, some when it is opened. */
async function isAllowed(): Promise<boolean> {
  try {
    const request = indexedDB.open(PROBE)
    await new Promise((resolve, reject) => {
      request.onsuccess = resolve
      request.onerror = () => reject(new Error('The browser keeps nothing.'))
    })
    request.result.close()
    return true
  } catch {
    return false
  }
}
