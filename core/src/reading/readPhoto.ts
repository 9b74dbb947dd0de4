import type { Kernels } from '../graph/operation'
import type { Reading } from '../model/reading'
import { base64Of, READING_METHOD } from '../model/readingMethod'
import type { PhotoData } from '../photo/photoData'
import { brightestAbove, type Place } from './readLight'
import { sceneSteps } from './readScene'
import { smallPhoto, type SmallPhoto } from './smallPhoto'
import { allAtOnce, type Steps } from './steps'

/** What a photo shows: its sky, its horizon if that is to be seen, and a distance for every place. Read at one small size, whatever the view. */
export function readPhoto(kernels: Kernels, photo: PhotoData): Reading {
  return allAtOnce(readingSteps(kernels, photo))
}

/** The same step by step, so that something else can be done between. */
export function* readingSteps(kernels: Kernels, photo: PhotoData): Steps<Reading> {
  const small = yield* smallPhoto(kernels, photo)
  const { sky, horizon, light, water, distance } = yield* sceneSteps(small)
  const brightest = light ? undefined : brightestAbove(small)
  const pixelAt = (place: Place): Place => ({ x: Math.round(place.x * photo.width), y: Math.round(place.y * photo.height) })
  const size = { width: small.width, height: small.height }
  return {
    method: READING_METHOD,
    horizon: horizon ? { y: Math.round(horizon.y * photo.height), turn: horizon.turn } : null,
    sky: sky ? { ...size, codes: base64Of(sky.map((value) => 255 * value)) } : null,
    light: light ? pixelAt(light) : null,
    brightest: brightest ? pixelAt(brightest) : null,
    water: water ? { y: Math.round(water.y * photo.height), turn: water.turn } : null,
    brights: brightsOf(small),
    distance: { ...size, codes: base64Of(distance) },
  }
}

/** These parts of a photo are its brightest, and its bright ones. */
const FEW = 0.005
const MANY = 0.04

/** The light over which few and over which many places of a photo lie, linear, to a thousandth. */
function brightsOf({ light }: SmallPhoto): Reading['brights'] {
  const tones = light.toSorted()
  const over = (part: number): number => {
    const root = tones[Math.floor((1 - part) * (tones.length - 1))] ?? 1
    return Math.min(1, Number((root * root).toFixed(3)))
  }
  return { few: over(FEW), many: over(MANY) }
}
