import { definitionOf, type Effect } from '../effects/registry'
import { frameOf, photoPlaceOf, turnedPlaceOf, type Frame } from '../model/frame'
import type { Crop } from '../model/groundwork'
import { readPath, readWord, writePath } from '../model/paths'
import type { Scene } from '../model/scene'

/** Crops the photo of a scene, in place: what lies on the photo stays there, what belongs to the frame keeps its part of it. @param crop nothing for all of the photo */
export function cropScene(scene: Pick<Scene, 'photo' | 'groundwork' | 'effects'>, crop: Crop | null): void {
  const { photo, groundwork } = scene
  const [from, to] = [frameOf(photo, groundwork.crop), frameOf(photo, crop)]
  groundwork.crop = crop
  for (const effect of scene.effects) if (definitionOf(effect.kind).inFrame) moveInto(effect, from, to)
}

function moveInto({ kind, controls }: Effect, from: Frame, to: Frame): void {
  for (const { x, y, follows } of definitionOf(kind).places ?? []) {
    if (follows !== undefined && readWord(controls, follows) !== '') continue
    const at = turnedPlaceOf(from, { x: readPath(controls, x), y: readPath(controls, y) })
    const place = photoPlaceOf(to, {
      x: to.x + ((at.x - from.x) / from.width) * to.width,
      y: to.y + ((at.y - from.y) / from.height) * to.height,
    })
    writePath(controls, x, Math.round(100 * place.x) / 100)
    writePath(controls, y, Math.round(100 * place.y) / 100)
  }
}
