import { readFile, stat } from 'node:fs/promises'
import { UserProblem } from '@welkinar/core'

const words: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file',
  EACCES: 'it may not be read',
  EISDIR: 'it is a folder',
  ENOTDIR: 'there is no such folder',
}

/** The bytes of a file. What is no file is not waited for. @throws UserProblem naming the file and the reason */
export async function readInput(path: string): Promise<Uint8Array> {
  try {
    const found = await stat(path)
    if (found.isFile()) return await readFile(path)
    throw new UserProblem(`“${path}” cannot be read: it is ${found.isDirectory() ? 'a folder' : 'no file'}.`)
  } catch (error) {
    if (error instanceof UserProblem) throw error
    const { code = 'something went wrong' } = error as NodeJS.ErrnoException
    throw new UserProblem(`“${path}” cannot be read: ${words[code] ?? code}.`)
  }
}

/** Text of a file. */
export async function readTextInput(path: string): Promise<string> {
  return new TextDecoder().decode(await readInput(path))
}
