import { mkdir, readdir } from 'node:fs/promises'
import { dirname, join, relative, resolve, sep } from 'node:path'
import { CallProblem } from '../callProblem'
import { readInput } from './inputFile'
import { clearLeftovers, OutputFile } from './outputFile'
import { sha256 } from '../sha256'
import { isBucket, type BeginOptions, type Store, type StoredFile } from './store'

/** A folder of this machine, or of one that is mounted here. */
export class FolderStore implements Store {
  private constructor(readonly address: string) {}

  /** @throws CallProblem if it is missing and is not to be made, or cannot be made */
  static async open(folder: string, make: boolean): Promise<FolderStore> {
    const address = resolve(folder)
    if (make) {
      await mkdir(address, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
        throw new CallProblem(`“${folder}” cannot be made: ${error.code === 'EEXIST' ? 'it is a file' : error.code}.`)
      })
      await clearLeftovers(address)
    }
    return new FolderStore(address)
  }

  read(path: string): Promise<Uint8Array> {
    return readInput(join(this.address, path))
  }

  hashOf(path: string): Promise<string | undefined> {
    return this.read(path).then(sha256, () => undefined)
  }

  async list(folder: string): Promise<readonly string[]> {
    const at = join(this.address, folder)
    const entries = await readdir(at, { recursive: true, withFileTypes: true }).catch(() => [])
    return entries
      .filter((entry) => entry.isFile())
      .map((entry) => relative(this.address, join(entry.parentPath, entry.name)).split(sep).join('/'))
  }

  async clearBeside(paths: readonly string[]): Promise<void> {
    const folders = new Set(paths.map((path) => dirname(join(this.address, path))))
    for (const folder of folders) await clearLeftovers(folder)
  }

  async begin(path: string, { overwrite, inputs = {} }: BeginOptions): Promise<StoredFile> {
    const files = Object.entries(inputs).filter(([, address]) => address !== undefined && !isBucket(address))
    const at = join(this.address, path)
    await mkdir(dirname(at), { recursive: true }).catch(() => undefined)
    return OutputFile.begin(at, overwrite, Object.fromEntries(files))
  }
}
