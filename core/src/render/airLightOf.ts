import { rgbFromHex } from '../colour/hex'
import type { SceneMarks } from '../model/marks'
import type { AirLight } from '../operations/light/sceneLight/airLight'
import type { PictureSource } from './pictureSource'

/** How far light spreads in the air: a part of the shorter side of the photo, and radii of a light. */
const AIR_BLUR = 0.045
const LIGHT_REACH = 4

/** The light in the air of a scene: the photo blurred widely, and the glow of its lights. */
export function airLightOf({ photo }: Pick<PictureSource, 'photo'>, { lights }: Pick<SceneMarks, 'lights'>): AirLight {
  const glows = lights.map(({ x, y, radius, strength, colour }) => ({
    x,
    y,
    sigma: LIGHT_REACH * radius,
    strength: (0.8 * strength) / 100,
    colour: rgbFromHex(colour),
  }))
  return { photoId: photo.id, sigma: AIR_BLUR * Math.min(photo.width, photo.height), glows }
}
