import { z } from 'zod'
import { placeControl } from './controls'
import { levelSchema } from './level'
import { NOT_READ, READING_METHOD, READING_METHODS } from './readingMethod'

const LARGEST_SIDE = 512

/** Small pictures as text: a byte for each pixel, row by row, in base 64 (RFC 4648). */
const codesSchema = z
  .strictObject({
    width: z.int().min(1).max(LARGEST_SIDE),
    height: z.int().min(1).max(LARGEST_SIDE),
    codes: z.base64().max(400_000),
  })
  .refine(({ width, height, codes }) => bytesOf(codes) === width * height, 'expected a byte for each pixel')
export type SmallCodes = z.infer<typeof codesSchema>

function bytesOf(text: string): number {
  return (text.length / 4) * 3 - (text.endsWith('==') ? 2 : text.endsWith('=') ? 1 : 0)
}

const place = z.strictObject({ x: placeControl('x'), y: placeControl('y') })
const part = z.number().min(0).max(1)
/** Of what nothing is known: all starts as on any photo. */
export const noBrights = { few: 1, many: 0 }

/** What Welkinar has read from the photo by itself. A mark that is set by hand goes before it. */
export const readingSchema = z.strictObject({
  method: z.literal(READING_METHODS),
  horizon: levelSchema.nullable(),
  /** 255 in the sky, 0 elsewhere; nothing if there is none. */
  sky: codesSchema.nullable(),
  /** Where the light comes from that is seen, or beyond which border it is; nothing if none stands out. */
  light: place.nullable(),
  /** The brightest place of the upper part, where no light stands out: what shines starts there. */
  brightest: place.nullable().default(null),
  /** Where water begins, or ground that is wet; nothing if none is to be seen. */
  water: levelSchema.nullable().default(null),
  /** The light, linear, over which a two-hundredth and a twenty-fifth of the photo lie: what takes its light from the brights starts between them. */
  brights: z.strictObject({ few: part, many: part }).default(noBrights),
  /** Distances; nothing if they were dismissed. */
  distance: codesSchema.nullable(),
})
export type Reading = z.infer<typeof readingSchema>

/** Of a photo in which nothing is to be read: no line is assumed in it. */
export const nothingRead: Reading = {
  method: READING_METHOD,
  horizon: null,
  sky: null,
  light: null,
  brightest: null,
  water: null,
  brights: noBrights,
  distance: null,
}

/** Of a new scene, whose photo will be read: nothing is assumed meanwhile. */
export const notRead: Reading = { ...nothingRead, method: NOT_READ }
