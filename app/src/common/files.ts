/** Hands a file to the person, as a download. */
export function saveFile(content: Blob, fileName: string): void {
  const address = URL.createObjectURL(content)
  const link = document.createElement('a')
  link.href = address
  link.download = fileName
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}

/** Hands a value to the person as a JSON file. */
export function saveJson(value: unknown, name: string): void {
  saveFile(new Blob([JSON.stringify(value, null, 2)], { type: 'application/json' }), `${safeFileName(name)}.json`)
}

/** Lets the person choose one file. Resolves with nothing if they choose none. */
export async function chooseFile(accept: string): Promise<File | undefined> {
  return (await chooseFiles(accept, false))[0]
}

/** Lets the person choose files. Resolves with none if they choose none. */
export function chooseFiles(accept: string, multiple = true): Promise<readonly File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.accept = accept
    input.multiple = multiple
    input.hidden = true
    const answer = (files: readonly File[]): void => {
      input.remove()
      resolve(files)
    }
    input.addEventListener('change', () => answer([...(input.files ?? [])]))
    input.addEventListener('cancel', () => answer([]))
    // Nothing else holds it: outside the page it may be collected before the person has chosen, and never answer.
    document.body.append(input)
    input.click()
  })
}

/** A name that every file system takes. */
export function safeFileName(name: string): string {
  return (
    name
      .replace(/[\\/:*?"<>|\p{Cc}]+/gu, ' ')
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, 80) || 'scene'
  )
}

/** A size in bytes for people. */
export function bytesInWords(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`
}
