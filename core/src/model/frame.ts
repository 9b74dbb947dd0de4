import { degreesToRadians } from './degrees'
import type { Crop } from './groundwork'
import type { Size } from '../planes/grid'
import type { Rect } from '../planes/rect'

interface Place {
  readonly x: number
  readonly y: number
}

/** What is shown of a photo: whole pixels of the photo turned counter-clockwise, by so many degrees, about the middle of the frame. */
export interface Frame extends Rect {
  readonly turn: number
}

/** The frame of a crop, in whole px and within the photo; without one all of it. */
export function frameOf(photo: Size, crop: Crop | null | undefined): Frame {
  if (!crop) return { x: 0, y: 0, width: photo.width, height: photo.height, turn: 0 }
  const span = (from: number, length: number, side: number): readonly [number, number] => {
    const start = Math.min(side - 1, Math.max(0, Math.round(from)))
    return [start, Math.min(side, Math.max(start + 1, Math.round(from + length))) - start]
  }
  const [[x, width], [y, height]] = [span(crop.x, crop.width, photo.width), span(crop.y, crop.height, photo.height)]
  return { x, y, width, height, turn: crop.turn }
}

/** Whether a frame shows all of a photo, as it stands. */
export function showsAll({ x, y, width, height, turn }: Frame, photo: Size): boolean {
  return turn === 0 && x === 0 && y === 0 && width === photo.width && height === photo.height
}

export function middleOf({ x, y, width, height }: Rect): Place {
  return { x: x + width / 2, y: y + height / 2 }
}

/** Where a place of the photo is seen once that is turned. */
export function turnedPlaceOf(frame: Frame, place: Place): Place {
  return about(middleOf(frame), place, frame.turn)
}

/** The place of the photo that is seen at a place of the turned one. */
export function photoPlaceOf(frame: Frame, place: Place): Place {
  return about(middleOf(frame), place, -frame.turn)
}

/** Counter-clockwise as it is seen: y points down. */
function about(middle: Place, { x, y }: Place, degrees: number): Place {
  if (degrees === 0) return { x, y }
  const radians = degreesToRadians(degrees)
  const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
  const [dx, dy] = [x - middle.x, y - middle.y]
  return { x: middle.x + dx * cos + dy * sin, y: middle.y - dx * sin + dy * cos }
}

/** Whether all that a crop shows is photo. */
export function isWithin(crop: Crop, photo: Size): boolean {
  const slack = 1e-6
  const inside = ({ x, y }: Place): boolean => x >= -slack && y >= -slack && x <= photo.width + slack && y <= photo.height + slack
  const corners = cornersOf(crop)
  return corners.every(inside) && corners.every((corner) => inside(about(middleOf(crop), corner, -crop.turn)))
}

function cornersOf({ x, y, width, height }: Rect): Place[] {
  return [0, 1].flatMap((i) => [0, 1].map((j) => ({ x: x + i * width, y: y + j * height })))
}

/**
 * The largest crop of a shape in the middle of a photo that is turned.
 * @param shape width by height
 */
export function largestCrop(photo: Size, turn: number, shape = photo.width / photo.height): Crop {
  const radians = degreesToRadians(Math.abs(turn))
  const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
  const { width: w, height: h } = photo
  const width = Math.min(w / (cos + sin / shape), (h * shape) / (sin * shape + cos), w, h * shape)
  const height = width / shape
  return { x: (w - width) / 2, y: (h - height) / 2, width, height, turn }
}

/** A crop turned anew: where it would show more than photo it becomes smaller about its middle. */
export function turnedCrop(crop: Crop, photo: Size, turn: number): Crop {
  return towards(smallerAbout({ ...crop, turn }, 1e-3), { ...crop, turn }, photo)
}

function smallerAbout(crop: Crop, factor: number): Crop {
  const { x, y } = middleOf(crop)
  const [width, height] = [crop.width * factor, crop.height * factor]
  return { ...crop, x: x - width / 2, y: y - height / 2, width, height }
}

/** From a crop that shows photo only, as far towards another as that goes. */
export function towards(from: Crop, to: Crop, photo: Size): Crop {
  const between = (t: number): Crop => {
    const mix = (a: number, b: number): number => a + t * (b - a)
    return {
      x: mix(from.x, to.x),
      y: mix(from.y, to.y),
      width: mix(from.width, to.width),
      height: mix(from.height, to.height),
      turn: mix(from.turn, to.turn),
    }
  }
  if (isWithin(to, photo)) return to
  let [low, high] = [0, 1]
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2
    if (isWithin(between(middle), photo)) low = middle
    else high = middle
  }
  return between(low)
}

/** By how much a photo has to be turned for a line on it to lie level, or to stand upright, whichever is nearer. */
export function turnForLine(from: Place, to: Place): number {
  const slope = (Math.atan2(from.y - to.y, to.x - from.x) * 180) / Math.PI
  const off = slope - 90 * Math.round(slope / 90)
  return -off
}
