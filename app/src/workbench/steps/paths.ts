/** The number at a path such as `pattern.perLayer.0.size`. @throws RangeError if there is none */
export function readPath(from: object, path: string): number {
  const value = path.split('.').reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], from)
  if (typeof value !== 'number') throw new RangeError(`There is no number at “${path}”.`)
  return value
}

/** Writes a number at a path, in place. */
export function writePath(into: object, path: string, value: number): void {
  const parts = path.split('.')
  const last = parts.pop() ?? ''
  const parent = parts.reduce<unknown>((at, part) => (at as Record<string, unknown>)[part], into)
  ;(parent as Record<string, unknown>)[last] = value
}
