import { noMarks } from '../model/marks'
import { nothingRead, type Reading } from '../model/reading'
import { base64Of } from '../model/readingMethod'
import type { PictureSource } from './pictureSource'
import { sceneGraph } from './sceneGraph'

const ONE_PIXEL = { width: 1, height: 1, codes: base64Of(Uint8Array.of(128)) }
/** A photo in which everything was read. */
const allRead: Reading = {
  ...nothingRead,
  horizon: { y: 1, turn: 1 },
  sky: ONE_PIXEL,
  light: { x: 1, y: 1 },
  water: { y: 1, turn: 1 },
  distance: ONE_PIXEL,
}

/** Whether it changes a picture what is read from its photo. */
export function usesReading(source: PictureSource): boolean {
  const keyWith = (reading: Reading): string => sceneGraph({ ...source, marks: { ...(source.marks ?? noMarks), reading } }).key
  return keyWith(allRead) !== keyWith(nothingRead)
}
