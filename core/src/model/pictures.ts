import type { z } from 'zod'
import type { PictureReference } from '../masks/picture/definition'
import { GONE, eachRole, mapDocument } from './walk'

// Pictures that a document refers to lie beside it.

/** All pictures that a value refers to, each once: the photo, those of masks, patterns and of the depth. */
export function picturesIn<T>(schema: z.ZodType<T>, value: T): PictureReference[] {
  const found = new Map<string, PictureReference>()
  eachRole(schema, value, (picture, { refersTo }) => {
    if (refersTo === 'picture') found.set((picture as PictureReference).id, picture as PictureReference)
  })
  return [...found.values()]
}

/** The value without its references to some pictures: a mask then says that it has none, a scene has no depth. */
export function withoutPictures<T>(schema: z.ZodType<T>, value: T, gone: readonly string[]): T {
  if (gone.length === 0) return value
  return mapDocument(schema, value, (picture, { refersTo }) =>
    refersTo === 'picture' && gone.includes((picture as { id: string }).id) ? GONE : picture,
  )
}
