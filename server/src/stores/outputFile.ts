import { link, open, readdir, realpath, rename, rm, stat, type FileHandle } from 'node:fs/promises'
import { rmSync, type Stats } from 'node:fs'
import { hostname } from 'node:os'
import { basename, dirname, join } from 'node:path'
import { UserProblem } from '@welkinar/core'
import { CallProblem } from '../callProblem'
import { sha256 } from '../sha256'

const words: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such folder',
  ENOTDIR: 'there is no such folder',
  EACCES: 'nothing may be written there',
  EPERM: 'nothing may be written there',
  EROFS: 'nothing may be written there',
  ENOSPC: 'there is no room left',
  EDQUOT: 'there is no room left',
  EFBIG: 'it would be too large there',
}

/** What a file is not to be written over: by its name in words. */
export type Inputs = Readonly<Record<string, string | undefined>>

/**
 * A file that is whole or not there: it is written beside its place, and put there at the end. What lay there before stays until then. Where it cannot be written is found before
 * anything is computed.
 */
export class OutputFile {
  private constructor(
    private readonly asked: string,
    private readonly place: string,
    private readonly beside: string,
    private readonly handle: FileHandle,
    private readonly overwrite: boolean,
  ) {}

  /** @throws CallProblem if it is one of the inputs, or is there already and may not be replaced, or cannot be written */
  static async begin(path: string, overwrite: boolean, inputs: Inputs): Promise<OutputFile> {
    const before = await statOf(path)
    if (before?.isDirectory()) throw new CallProblem(`“${path}” cannot be written: it is a folder.`)
    for (const [what, input] of Object.entries(inputs)) {
      const other = before && input !== undefined ? await statOf(input) : undefined
      if (other && other.dev === before?.dev && other.ino === before.ino) {
        throw new CallProblem(`“${path}” is ${what} itself; give another name to --out.`)
      }
    }
    if (before && !before.isFile()) throw new CallProblem(`“${path}” cannot be written: it is no file.`)
    if (before && !overwrite) throw new CallProblem(`“${path}” is there already; --overwrite replaces it.`)
    // Of a link the file that it leads to is replaced.
    const place = before ? await realpath(path) : path
    const beside = join(dirname(place), partName(basename(place), process.pid))
    try {
      const file = new OutputFile(path, place, beside, await open(beside, 'wx'), overwrite)
      unfinished.add(beside)
      return file
    } catch (error) {
      throw new CallProblem(inWords(path, error))
    }
  }

  /** Writes all of it and puts it in its place. @throws UserProblem if it cannot be written; then nothing has changed */
  async finish(content: Blob): Promise<void> {
    try {
      // A single write may take only a part, as where room runs out.
      for await (const piece of content.stream()) await this.handle.writeFile(piece as Uint8Array)
      await this.handle.sync()
      await this.handle.close()
      await this.put()
      unfinished.delete(this.beside)
    } catch (error) {
      await this.discard()
      throw error instanceof UserProblem ? error : new UserProblem(inWords(this.asked, error))
    }
  }

  /** Leaves nothing of it. */
  async discard(): Promise<void> {
    await this.handle.close().catch(() => undefined)
    await rm(this.beside, { force: true }).catch(() => undefined)
    unfinished.delete(this.beside)
  }

  private async put(): Promise<void> {
    if (this.overwrite) return rename(this.beside, this.place)
    // Unlike a renamed file a linked one replaces nothing that has come there meanwhile.
    try {
      await link(this.beside, this.place)
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException
      if (code === 'EEXIST') throw new UserProblem(`“${this.asked}” has come there meanwhile; --overwrite replaces it.`)
      // Not every file system has links.
      if (code === 'EPERM' || code === 'ENOTSUP' || code === 'ENOSYS') return rename(this.beside, this.place)
      throw error
    }
    await rm(this.beside, { force: true })
  }
}

async function statOf(path: string): Promise<Stats | undefined> {
  return stat(path).catch(() => undefined)
}

function inWords(path: string, error: unknown): string {
  const { code = 'something went wrong' } = error as NodeJS.ErrnoException
  return `“${path}” cannot be written: ${words[code] ?? code}.`
}

/** Names this machine in a folder that several share. */
const machine = sha256(hostname()).slice(0, 8)

/** What a file is called that a process of this machine has not finished yet. */
export function partName(name: string, pid: number): string {
  return `.${sha256(name).slice(0, 16)}.${machine}-${pid}.part`
}

/** Removes what processes of this machine that are gone have left half in a folder. */
export async function clearLeftovers(folder: string): Promise<void> {
  for (const name of await readdir(folder).catch(() => [])) {
    const [, where, pid] = /^\.[0-9a-f]{16}\.([0-9a-f]{8})-(\d+)\.part$/.exec(name) ?? []
    if (where === machine && !isAlive(Number(pid))) await rm(join(folder, name), { force: true })
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}

const unfinished = new Set<string>()

/** A file that goes when a signal ends this process, as an unfinished one does. Returns what lets it stay. */
export function goesWithSignal(path: string): () => void {
  unfinished.add(path)
  return () => void unfinished.delete(path)
}

/** Leaves nothing of what this process has not finished. */
export function removeUnfinished(): void {
  unfinished.forEach((path) => rmSync(path, { force: true }))
}

/** Ends the process on a signal, and leaves nothing half. */
export function leaveNothingHalf(): void {
  for (const [signal, code] of [
    ['SIGINT', 130],
    ['SIGTERM', 143],
    ['SIGHUP', 129],
  ] as const) {
    process.on(signal, () => {
      removeUnfinished()
      process.exit(code)
    })
  }
}
