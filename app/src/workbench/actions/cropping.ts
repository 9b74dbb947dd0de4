import { cropScene, frameOf, largestCrop, showsAll, turnedCrop, type Crop, type PictureSource, type Size } from '@welkinar/core'
import { useScene } from '../../scene/sceneStore'

/** The crop of a photo; all of it where there is none. */
export function cropOf({ photo, groundwork }: Pick<PictureSource, 'photo' | 'groundwork'>): Crop {
  return groundwork?.crop ?? { x: 0, y: 0, width: photo.width, height: photo.height, turn: 0 }
}

/** Crops the photo of the open scene, to whole px. */
export function setCrop(label: string, crop: Crop, photo: Size, gesture?: string): void {
  const frame = frameOf(photo, { ...crop, turn: Math.round(100 * crop.turn) / 100 })
  useScene.getState().change(label, (scene) => cropScene(scene, showsAll(frame, photo) ? null : frame), gesture)
}

/** Turns the photo. A crop that was as large as it could be stays so; another becomes smaller where it would show more than photo. */
export function setTurn(source: PictureSource, turn: number, gesture?: string): void {
  const { photo } = source
  const crop = cropOf(source)
  const shape = Math.abs(crop.width / crop.height - photo.width / photo.height) < 0.01 ? undefined : crop.width / crop.height
  const largest = largestCrop(photo, crop.turn, shape)
  const isLargest = Math.abs(largest.width - crop.width) < 3 && Math.abs(largest.x - crop.x) < 3 && Math.abs(largest.y - crop.y) < 3
  setCrop('Straighten', isLargest ? largestCrop(photo, turn, shape) : turnedCrop(crop, photo, turn), photo, gesture)
}

/** Gives the crop another shape, as large as it fits about its middle. @param shape width by height */
export function setShape(source: PictureSource, shape: number): void {
  const { photo } = source
  const crop = cropOf(source)
  const [width, height] = crop.width / crop.height > shape ? [crop.height * shape, crop.height] : [crop.width, crop.width / shape]
  const [x, y] = [crop.x + (crop.width - width) / 2, crop.y + (crop.height - height) / 2]
  setCrop('Shape of the crop', { x, y, width, height, turn: crop.turn }, photo)
}
