/** Where files are read and written: a folder, or a bucket of an object storage. A file of a store is whole or not there, and has a path in it, with “/”. */
export interface Store {
  /** Names the store, for whoever opens it again: a folder, or `s3://bucket/prefix`. */
  readonly address: string
  /** @throws UserProblem if it cannot be read */
  read(path: string): Promise<Uint8Array>
  /** SHA-256 of a file; undefined if it is not there. @throws UserProblem if that cannot be found out */
  hashOf(path: string): Promise<string | undefined>
  /** Paths of the files below a folder of the store, in no order. */
  list(folder: string): Promise<readonly string[]>
  /**
   * Makes ready to write a file, and finds out before anything is computed if it cannot be.
   * @throws CallProblem if it is there and may not be replaced, is one of what is read, or cannot be written
   */
  begin(path: string, options: BeginOptions): Promise<StoredFile>
  /** Removes what processes of this machine that are gone have left half beside the files that have these paths. */
  clearBeside(paths: readonly string[]): Promise<void>
}

export interface BeginOptions {
  readonly overwrite: boolean
  /** Addresses of what the file is made of, by what they are in words: it is not to be one of them. */
  readonly inputs?: Readonly<Record<string, string | undefined>>
}

/** A file that is about to be there. */
export interface StoredFile {
  /** @throws UserProblem if it cannot be written; then nothing has changed */
  finish(content: Blob): Promise<void>
  /** Leaves nothing of it. */
  discard(): Promise<void>
}

/** Whether an address names an object storage. */
export function isBucket(address: string): boolean {
  return /^s3:\/\//i.test(address)
}
