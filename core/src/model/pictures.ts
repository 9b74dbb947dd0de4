// Pictures that a document refers to lie beside it. Masks may stand anywhere in it, also in pinned states, so it is walked as a whole.

type Json = Record<string, unknown>

function isReference(value: unknown): value is { readonly id: string; readonly fileName: string } {
  return typeof value === 'object' && value !== null && 'id' in value && 'fileName' in value && 'width' in value
}

/** Ids of all pictures besides the photo that a value refers to: those of masks and of the depth. */
export function pictureIds(value: unknown): string[] {
  if (Array.isArray(value)) return [...new Set(value.flatMap(pictureIds))]
  if (typeof value !== 'object' || value === null) return []
  const own = isReference((value as Json)['picture']) ? [((value as Json)['picture'] as { id: string }).id] : []
  return [...new Set([...own, ...Object.values(value).flatMap(pictureIds)])]
}

/** The value without its references to some pictures: a mask then says that it has none, a scene has no depth. */
export function withoutPictures<T>(value: T, gone: readonly string[]): T {
  return (gone.length === 0 ? value : stripped(value, gone)) as T
}

function stripped(value: unknown, gone: readonly string[]): unknown {
  if (Array.isArray(value)) return value.map((item) => stripped(item, gone))
  if (typeof value !== 'object' || value === null) return value
  const entries = Object.entries(value).map(([key, item]): [string, unknown] => {
    if (key === 'picture' && isReference(item) && gone.includes(item.id)) return [key, null]
    if (
      key === 'depth' &&
      isReference((item as Json | null)?.['picture']) &&
      gone.includes((item as { picture: { id: string } }).picture.id)
    )
      return [key, null]
    return [key, stripped(item, gone)]
  })
  return Object.fromEntries(entries)
}
