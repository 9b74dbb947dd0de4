import { UserProblem } from '@welkinar/core'

// Folders of the person, where the browser lets a page write to them (File System Access, WICG draft).

/** The folder cannot be written to any more, or not yet: all waits. */
export class FolderGone extends UserProblem {}

interface Picking {
  showDirectoryPicker?(options: { readonly mode: 'readwrite'; readonly id: string }): Promise<FileSystemDirectoryHandle>
}

interface Permitting {
  queryPermission?(options: { readonly mode: 'readwrite' }): Promise<PermissionState>
  requestPermission?(options: { readonly mode: 'readwrite' }): Promise<PermissionState>
}

export function canChooseFolder(): boolean {
  return 'showDirectoryPicker' in window
}

/** Lets the person choose a folder to write to; undefined if they choose none. */
export async function chooseFolder(): Promise<FileSystemDirectoryHandle | undefined> {
  try {
    return await (window as Picking).showDirectoryPicker?.({ mode: 'readwrite', id: 'welkinar' })
  } catch (error) {
    if ((error as DOMException).name === 'AbortError') return undefined
    throw error
  }
}

/** Whether a folder may be written to; a browser asks the person only after a press. */
export async function mayWrite(folder: FileSystemDirectoryHandle): Promise<boolean> {
  const asking = folder as Permitting
  const mode = { mode: 'readwrite' } as const
  if ((await asking.queryPermission?.(mode)) === 'granted') return true
  return (await asking.requestPermission?.(mode)) !== 'denied'
}

/**
 * Writes a file that is not there yet; what lies there of others stays.
 * @param isOurs whether a file that is there was written for this one before, whole or not
 * @throws FolderGone, or UserProblem if there is a file of that name
 */
export async function writeInFolder(
  folder: FileSystemDirectoryHandle,
  name: string,
  content: Blob,
  isOurs: (there: File) => Promise<boolean>,
): Promise<void> {
  try {
    const there = await fileIn(folder, name)
    if (there && !(await isOurs(there))) throw new UserProblem(`There is a file “${name}” in the folder already; it was left as it is.`)
    const file = await folder.getFileHandle(name, { create: true })
    try {
      // A browser writes beside the file and puts it in its place when it is closed.
      const stream = await file.createWritable()
      await stream.write(content)
      await stream.close()
    } catch (error) {
      await folder.removeEntry(name).catch(() => undefined)
      throw error
    }
  } catch (error) {
    const { name: kind } = error as DOMException
    if (kind === 'NotAllowedError')
      throw new FolderGone(`The folder “${folder.name}” may not be written to any more. Press “Go on” to allow it again.`)
    if (kind === 'NotFoundError') throw new FolderGone(`The folder “${folder.name}” is not there any more.`)
    if (kind === 'QuotaExceededError') throw new FolderGone(`There is no room left in the folder “${folder.name}”.`)
    throw error
  }
}

async function fileIn(folder: FileSystemDirectoryHandle, name: string): Promise<File | undefined> {
  try {
    return await (await folder.getFileHandle(name)).getFile()
  } catch (error) {
    if ((error as DOMException).name === 'NotFoundError') return undefined
    throw error
  }
}

/** What was written to a folder. @throws Error if it cannot be read any more */
export async function readFromFolder(folder: FileSystemDirectoryHandle, name: string): Promise<Blob> {
  return (await folder.getFileHandle(name)).getFile()
}
