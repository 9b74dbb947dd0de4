/** What stands at a path such as `pattern.perLayer.0.size`. */
function read(from: object, path: string): unknown {
  return path.split('.').reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], from)
}

/** The number at a path. @throws RangeError if there is none */
export function readPath(from: object, path: string): number {
  const value = read(from, path)
  if (typeof value !== 'number') throw new RangeError(`There is no number at “${path}”.`)
  return value
}

/** The word at a path; empty if there is none. */
export function readWord(from: object, path: string): string {
  const value = read(from, path)
  return typeof value === 'string' ? value : ''
}

/** Writes a number, a word or nothing at a path, in place. */
export function writePath(into: object, path: string, value: number | string | null): void {
  const parts = path.split('.')
  const last = parts.pop() ?? ''
  const parent = parts.reduce<unknown>((at, part) => (at as Record<string, unknown>)[part], into)
  ;(parent as Record<string, unknown>)[last] = value
}
