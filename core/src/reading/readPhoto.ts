import type { Kernels } from '../graph/operation'
import { base64Of, READING_METHOD, type Reading } from '../model/reading'
import type { PhotoData } from '../photo/photoData'
import { readScene } from './readScene'
import { smallPhoto } from './smallPhoto'

/** What a photo shows: its sky, its horizon if that is to be seen, and a distance for every place. Read at one small size, whatever the view. */
export function readPhoto(kernels: Kernels, photo: PhotoData): Reading {
  const small = smallPhoto(kernels, photo)
  const { sky, horizon, light, distance } = readScene(small)
  const size = { width: small.width, height: small.height }
  return {
    method: READING_METHOD,
    horizon: horizon ? { y: Math.round(horizon.y * photo.height), turn: horizon.turn } : null,
    sky: sky ? { ...size, codes: base64Of(sky.map((value) => 255 * value)) } : null,
    light: light ? { x: Math.round(light.x * photo.width), y: Math.round(light.y * photo.height) } : null,
    distance: { ...size, codes: base64Of(distance) },
  }
}
