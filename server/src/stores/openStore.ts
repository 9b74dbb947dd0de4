import { CallProblem } from '../callProblem'
import { FolderStore } from './folderStore'
import { readInput } from './inputFile'
import { isBucket, type Store } from './store'

/** Opens a store. The client of object storage is loaded where there is one. @param make whether a folder that is missing is made */
export async function storeAt(address: string, make = false): Promise<Store> {
  if (!isBucket(address)) return FolderStore.open(address, make)
  const { BucketStore } = await import('./bucketStore')
  return BucketStore.open(address)
}

/** Reads a file by its whole address. @throws UserProblem if it cannot be read */
export async function readAt(address: string): Promise<Uint8Array> {
  if (!isBucket(address)) return readInput(address)
  const at = address.lastIndexOf('/')
  if (at < 's3://b'.length) throw new CallProblem(`“${address}” names no file.`)
  return (await storeAt(address.slice(0, at))).read(address.slice(at + 1))
}
