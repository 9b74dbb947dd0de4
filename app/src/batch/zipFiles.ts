import { Zip, ZipPassThrough } from 'fflate'

/** Bytes; a zip without the later extension for large ones holds 4 GB (PKWARE APPNOTE 4.4.9). */
const MOST_OF_ONE = 3.9e9

interface Named {
  readonly name: string
  readonly file: Blob
}

/** Files as one zip, or as several where one would be too large. They are stored as they are: pictures are compressed already. */
export async function zipped(files: readonly Named[]): Promise<readonly Blob[]> {
  const groups: Named[][] = [[]]
  let bytes = 0
  for (const one of files) {
    if (bytes + one.file.size > MOST_OF_ONE) {
      groups.push([])
      bytes = 0
    }
    groups.at(-1)?.push(one)
    bytes += one.file.size
  }
  const zips: Blob[] = []
  for (const group of groups) zips.push(await oneZip(group))
  return zips
}

async function oneZip(files: readonly Named[]): Promise<Blob> {
  // What is done lies in blobs, which a browser may keep outside memory.
  const parts: Blob[] = []
  let chunks: Uint8Array<ArrayBuffer>[] = []
  let failure: Error | undefined
  const zip = new Zip((error, chunk) => {
    if (error) failure = error
    else chunks.push(chunk as Uint8Array<ArrayBuffer>)
  })
  for (const { name, file } of files) {
    const entry = new ZipPassThrough(name)
    zip.add(entry)
    const reader = file.stream().getReader()
    for (let read = await reader.read(); !read.done; read = await reader.read()) entry.push(read.value)
    entry.push(new Uint8Array(), true)
    parts.push(new Blob(chunks))
    chunks = []
  }
  zip.end()
  if (failure) throw failure
  return new Blob([...parts, ...chunks], { type: 'application/zip' })
}
